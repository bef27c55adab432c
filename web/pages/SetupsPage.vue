<script setup lang="ts">
import { computed, defineAsyncComponent, nextTick, ref, useTemplateRef, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import type { Bike } from '#contract/bike'
import { anything, answers, asksForNothing, type Wanted } from '#core/lineage/find'
import { foldPlaces } from '#core/lineage/fold'
import { layLanes } from '#core/lineage/lanes'
import { compareDials, type Side } from '#core/lineage/compare'
import { shiftsBetween } from '#core/carry/profile'
import { airOf } from '#core/lineage/elsewhere'
import type { KnownPlace } from '#core/lineage/facts'
import { localDate } from '#core/units/localDate'
import FindSetups from '../components/setups/FindSetups.vue'
import ComparePanel from '../components/setups/ComparePanel.vue'
import SetupMap from '../components/setups/SetupMap.vue'
import NotOpened from '../components/shell/NotOpened.vue'
import TypedPicker from '../components/shell/TypedPicker.vue'
import { useBikeSetups } from '../composables/useBikeSetups.ts'
import { useKept } from '../composables/useKept.ts'
import { onReachAgain } from '../api/reach.ts'
import { usePageTitle } from '../composables/usePageTitle.ts'
import { useUnits } from '../composables/useUnits.ts'
import { endpoints } from '#contract/endpoints'
import { call } from '../api/client.ts'
import { useGarage } from '../stores/garage.ts'
import { useNotices } from '../stores/notices.ts'
import { sideOfBaseline, sideOfPlace } from '../support/setupSides.ts'
import { titleOf } from '../support/setupWords.ts'

const TurnList = defineAsyncComponent(() => import('../components/garage/TurnList.vue'))
const CarryDialog = defineAsyncComponent(() => import('../components/day/CarryDialog.vue'))
const CardDialog = defineAsyncComponent(() => import('../components/setups/CardDialog.vue'))
const BringCard = defineAsyncComponent(() => import('../components/setups/BringCard.vue'))
const BringTable = defineAsyncComponent(() => import('../components/setups/BringTable.vue'))
const AdviceTable = defineAsyncComponent(() => import('../components/setups/AdviceTable.vue'))
const ProfileForm = defineAsyncComponent(() => import('../components/setups/ProfileForm.vue'))
const UseProfile = defineAsyncComponent(() => import('../components/setups/UseProfile.vue'))
const KeepForm = defineAsyncComponent(() => import('../components/setups/KeepForm.vue'))

const props = defineProps<{ bikeId?: string }>()
const garage = useGarage()
const notices = useNotices()
const route = useRoute()
const router = useRouter()
const lastBike = useKept('wild-spring:setups-bike', '')
const failed = ref(false)
const load = async () => void (failed.value = !(await notices.attempt(garage.load)))
void load()
onReachAgain(() => failed.value && load())

/** A bike with nothing recorded has room for what somebody noted of it before; those with something come first. */
const bikes = computed(() => {
  const hasSetup = (b: Bike) => b.currentSetupId !== null
  return [...garage.bikes.filter(hasSetup), ...garage.bikes.filter((b) => !hasSetup(b))]
})
/** The bike in the address, else the one that was looked at last, else the first. */
const bikeId = computed(() => {
  const wished = props.bikeId || lastBike.value
  const found = bikes.value.find((b) => b.id === wished)
  // Another bike's setups under this one's address would be taken for its own.
  return found?.id ?? (props.bikeId ? null : (bikes.value.at(0)?.id ?? null))
})
const bike = computed(() => garage.bike(bikeId.value))
const bikeName = (id: string) => {
  const b = garage.bike(id)
  return b ? `${garage.rider(b.riderId)?.name ?? '?'}, ${b.name}` : '?'
}
const bikeOptions = computed(() => bikes.value.map((b) => ({ value: b.id, text: bikeName(b.id) })))
const chosenBike = computed<string>({
  get: () => bikeId.value ?? '',
  set: (id) => void router.push({ name: 'setups', params: { bikeId: id } }),
})
watch(bikeId, (id) => id && (lastBike.value = id))
usePageTitle(() => (bikeId.value ? `Setups, ${bikeName(bikeId.value)}` : 'Setups'))

const { all, places, failed: notRead } = useBikeSetups(bikeId)
/** It was read, and there is nothing. */
const isBare = computed(() => all.value !== null && places.value.length === 0)
const wanted = ref<Wanted>(anything)
const unfolded = ref<string[]>([])
// From one bike to another; what is typed while the first is being read stays.
watch(bikeId, (_, before) => {
  if (before === null) return
  wanted.value = anything
  unfolded.value = []
})
const asked = computed(() => !asksForNothing(wanted.value))
const found = computed(() => new Set(places.value.filter((p) => answers(p, wanted.value)).map((p) => p.id)))
const opened = computed(() => new Set(unfolded.value))
/** What a map is read by: what was settled, kept, wished for, and where the bike is; while something is looked for, that. */
const tells = (p: KnownPlace) =>
  p.now ||
  opened.value.has(p.id) ||
  p.id === chosen.value?.id ||
  (asked.value ? found.value.has(p.id) : p.state === 'settled' || p.wanted || p.name !== null)
const spots = computed(() => layLanes(foldPlaces(places.value, tells)))
function unfold(id: string) {
  const spot = spots.value.find((s) => s.place.id === id)
  if (spot) unfolded.value = [...unfolded.value, ...[...spot.between, ...spot.aside].map((p) => p.id)]
}

const present = computed(() => places.value.find((p) => p.now) ?? null)
const placeOf = (list: readonly KnownPlace[], setupId: unknown) =>
  list.find((p) => p.setupIds.includes(String(setupId))) ?? null
/** The setup in the address; without one, what is on the bike. */
const chosen = computed<KnownPlace | null>(() => placeOf(places.value, route.query.at) ?? present.value)
const look = (query: Record<string, string | undefined>) =>
  void router.replace({ query: { ...route.query, ...query } })

// Laid beside: of this bike or another one, a setup, or what somebody recommends.
const otherBikeId = computed(() => garage.bike(String(route.query.bike ?? ''))?.id ?? bikeId.value)
const elsewhere = computed(() => otherBikeId.value !== bikeId.value)
const other = useBikeSetups(computed(() => (elsewhere.value ? otherBikeId.value : null)))
const otherPlaces = computed(() => (elsewhere.value ? other.places.value : places.value))
const otherAll = computed(() => (elsewhere.value ? other.all.value : all.value))
const besideOptions = computed(() => {
  const list = [...otherPlaces.value].reverse().filter((p) => elsewhere.value || p.id !== chosen.value?.id)
  const now = list.find((p) => p.now)
  return [
    ...(now ? [{ value: 'now', text: `on ${elsewhere.value ? 'that' : 'the'} bike now` }] : []),
    { value: 'none', text: 'nothing' },
    ...list
      .filter(
        (p) =>
          !p.now &&
          (p.state === 'settled' || p.wanted || p.name !== null || p.id === beside.value?.place?.id),
      )
      .map((p) => ({
        value: p.id,
        text: `${titleOf(p)}, ${p.rides.at(0)?.date ?? localDate(p.setup.madeAt)}`,
      })),
    ...garage
      .baselinesOf(otherBikeId.value ?? '')
      .map((b) => ({ value: b.id, text: `${b.name}, recommended` })),
  ]
})
const besideKey = computed<string>({
  get: () => {
    const isThere = otherPlaces.value.some((p) => p.now)
    return String(route.query.with ?? (isThere && (elsewhere.value || !chosen.value?.now) ? 'now' : 'none'))
  },
  set: (key) => look({ with: key }),
})
const besideBike = computed<string>({
  get: () => otherBikeId.value ?? '',
  set: (id) => look({ bike: id === bikeId.value ? undefined : id, with: undefined }),
})
const beside = computed(() => {
  const key = besideKey.value
  if (key === 'none' || !otherAll.value) return null
  const recommended = garage.baselinesOf(otherBikeId.value ?? '').find((b) => b.id === key)
  const units = garage.bike(otherBikeId.value)
  if (recommended && units) return sideOfBaseline(recommended, garage.unitsOf(units))
  const place = key === 'now' ? otherPlaces.value.find((p) => p.now) : placeOf(otherPlaces.value, key)
  if (!place || (!elsewhere.value && place.id === chosen.value?.id)) return null
  return sideOfPlace(place, otherAll.value.units)
})
const first = computed(() => (chosen.value && all.value ? sideOfPlace(chosen.value, all.value.units) : null))
const turns = computed(() => {
  if (!first.value || !all.value) return 0
  const { side } = first.value
  // Nothing is known to be on it: every place is one to be set.
  const now: Side = present.value
    ? sideOfPlace(present.value, all.value.units).side
    : { positions: [], units: side.units }
  return compareDials(now, side).filter((d) => d.how === 'moved' || (d.how === 'unread' && d.to !== null))
    .length
})
async function removeNoted() {
  const ids = chosen.value!.setupIds
  const name = titleOf(chosen.value!)
  const each = (endpoint: typeof endpoints.deleteSetup | typeof endpoints.restoreSetup) => async () => {
    for (const id of ids) await call(endpoint, { id })
  }
  if (!(await notices.attempt(each(endpoints.deleteSetup)))) return
  look({ at: undefined })
  notices.show(`${name} was removed.`, 'done', each(endpoints.restoreSetup))
}
const turnOpen = ref(false)
const tableOpen = ref(false)
const carryOpen = ref(false)
const keepOpen = ref(false)
const cardOpen = ref(false)
const bringOpen = ref(false)
const profileOpen = ref(false)
const useOpen = ref(false)
const adviceOpen = ref(false)
const { moveWords } = useUnits()
/** From what it lies beside to the chosen one, where both are known. */
const difference = computed(() => {
  if (!first.value || !beside.value) return { shifts: [], words: [] }
  const dials = compareDials(beside.value.side, first.value.side)
  const words = dials.flatMap((d) =>
    d.how === 'moved' && d.second && d.from !== null && d.to !== null
      ? [
          moveWords({ end: d.end, adjuster: d.second, from: d.from, to: d.to }) +
            (d.fromHow === 'assumed' || d.toHow === 'assumed' ? '; not both were set or read' : ''),
        ]
      : [],
  )
  return { shifts: shiftsBetween(dials), words }
})
const panelShown = ref(false)
function choose(id: string) {
  look({ at: id, with: undefined, bike: undefined })
  panelShown.value = true
}
const map = useTemplateRef<InstanceType<typeof SetupMap>>('map')
async function toPresent() {
  if (!present.value) return
  choose(present.value.id)
  panelShown.value = false
  await nextTick()
  map.value?.show(present.value.id)
}
</script>

<template>
  <div v-if="failed || notRead" class="page">
    <h1>The setups could not be read</h1>
    <BButton variant="primary" @click="load">Try again</BButton>
  </div>
  <NotOpened
    v-else-if="garage.loaded && props.bikeId && !bikeId"
    title="There is no such bike"
    :back="{ to: '/setups', text: 'To the setups' }"
    @again="load"
  />
  <div v-else-if="garage.loaded && !bikeId" class="page">
    <h1>There is no bike yet</h1>
    <p class="key-row bare">
      <RouterLink class="btn btn-primary" :to="{ name: 'setup' }">Set up my bike</RouterLink>
      <BButton variant="plain" @click="bringOpen = true">Bring in a card</BButton>
    </p>
  </div>
  <div v-else class="setups">
    <div class="trails">
      <div class="page-head">
        <h1>What I know works</h1>
        <span class="key-row">
          <BButton variant="plain" @click="bringOpen = true">Bring in a card</BButton>
          <BButton v-if="bike" variant="plain" @click="tableOpen = true">Bring in a table</BButton>
          <TypedPicker
            v-if="bikeOptions.length > 1"
            v-model="chosenBike"
            label="Bike"
            quiet
            :options="bikeOptions"
            class="bikes"
          />
        </span>
      </div>
      <FindSetups v-if="!isBare" v-model="wanted" :found="found.size" />
      <p v-else-if="bike" class="none">
        Nothing is known of this bike yet. Walk
        <RouterLink :to="{ name: 'bench', params: { bikeId: bike.id } }">its bench</RouterLink>, record what
        is on it in the <RouterLink :to="{ name: 'garage' }">garage</RouterLink>, or bring in a table of how
        it stood before.
      </p>
      <button v-if="present" type="button" class="btn btn-plain present" @click="toPresent">
        <i aria-hidden="true"></i>{{ `On the bike now: ${titleOf(present)}` }}
      </button>
      <SetupMap
        v-if="all && !isBare"
        ref="map"
        :spots="spots"
        :units="all.units"
        :chosen-id="chosen?.id ?? null"
        :beside-id="elsewhere ? null : (beside?.place?.id ?? null)"
        @choose="choose"
        @unfold="unfold"
      />
      <p v-if="!isBare" class="legend small soft">
        Filled: settled there. Hollow: ridden only, or a start. Dashed: wanted, not turned. Wider trail: more
        runs. Diamond: on the bike now.
      </p>
    </div>
    <aside v-if="first && bike" class="panel" :class="{ shown: panelShown }" aria-label="The chosen setup">
      <!-- On a phone the panel is the whole screen. -->
      <h1 class="visually-hidden alone">{{ titleOf(first.place) }}</h1>
      <button type="button" class="btn btn-plain back" @click="panelShown = false">Back to the map</button>
      <div class="beside">
        <TypedPicker v-model="besideKey" label="Beside" :options="besideOptions" />
        <TypedPicker v-if="bikeOptions.length > 1" v-model="besideBike" label="of" :options="bikeOptions" />
      </div>
      <ComparePanel :chosen="first" :beside="beside" :bike-id="elsewhere ? null : bike.id" />
      <div class="acts">
        <BButton v-if="!first.place.now" variant="primary" @click="turnOpen = true"
          >Put it on the bike: {{ turns }} {{ turns === 1 ? 'turn' : 'turns' }}</BButton
        >
        <BButton variant="plain" @click="keepOpen = true">{{
          first.place.kept ? 'Name and purpose' : 'Keep it by a name'
        }}</BButton>
        <BButton variant="plain" @click="cardOpen = true">Card to take along</BButton>
        <BButton variant="plain" @click="carryOpen = true">Carry over to …</BButton>
        <BButton v-if="difference.shifts.length && !elsewhere" variant="plain" @click="profileOpen = true"
          >Keep the difference</BButton
        >
        <BButton variant="plain" @click="useOpen = true">For other ground …</BButton>
        <BButton v-if="first.place.state === 'noted' && !first.place.now" variant="plain" @click="removeNoted"
          >Remove it</BButton
        >
        <BButton v-if="garage.baselinesOf(bike.id).length" variant="plain" @click="adviceOpen = true"
          >What is recommended</BButton
        >
      </div>
      <TurnList
        v-if="turnOpen"
        v-model:open="turnOpen"
        :bike="bike"
        :target="first.place.setup"
        :words="titleOf(first.place)"
        :found-air="airOf(first.place)"
      />
      <CarryDialog
        v-if="carryOpen"
        v-model:open="carryOpen"
        :source="{
          bikeId: bike.id,
          riderId: bike.riderId,
          units: first.side.units,
          conditions: first.place.rides[0]?.conditions ?? null,
          words: titleOf(first.place),
          settled: first.place.state === 'settled',
        }"
        :setup="first.place.setup"
      />
      <CardDialog
        v-if="cardOpen"
        v-model:open="cardOpen"
        :bike-id="bike.id"
        :setup-id="first.place.setup.id"
        :words="titleOf(first.place)"
      />
      <ProfileForm
        v-if="profileOpen && beside"
        v-model:open="profileOpen"
        :shifts="difference.shifts"
        :words="difference.words"
        :from="`${first.words} beside ${beside.words}`"
      />
      <UseProfile
        v-if="useOpen"
        v-model:open="useOpen"
        :bike="bike"
        :base="first"
        :setup="first.place.setup"
        @made="choose"
      />
      <AdviceTable v-if="adviceOpen" v-model:open="adviceOpen" :bike="bike" />
      <KeepForm v-if="keepOpen" v-model:open="keepOpen" :bike-id="bike.id" :place="first.place" />
    </aside>
  </div>
  <BringCard v-if="bringOpen" v-model:open="bringOpen" />
  <BringTable
    v-if="tableOpen && bike"
    v-model:open="tableOpen"
    :bike="bike"
    @kept="(id) => look({ at: id })"
  />
</template>

<style scoped>
.setups {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 408px;
  height: calc(100vh - var(--bar));
}
.trails {
  overflow-y: auto;
  padding: 0.8rem 1.2rem 3rem;
}
.page-head {
  align-items: end;
  margin-bottom: 0.7rem;
}
.bikes {
  min-width: 220px;
}
.bare {
  margin: 0.6rem 0 0;
}
.present {
  margin-bottom: 0.4rem;
}
.present i {
  width: 13px;
  height: 13px;
  rotate: 45deg;
  background: var(--sun);
  border: 2px solid #1b2723;
}
.panel {
  border-left: 1px solid var(--line);
  background: color-mix(in srgb, var(--card) 60%, var(--paper));
  overflow-y: auto;
  padding: 0.9rem 1.1rem 0;
}
.beside {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 0.6rem;
  margin-bottom: 0.8rem;
}
.acts {
  position: sticky;
  bottom: 0;
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  margin: 1rem -1.1rem 0;
  padding: 0.7rem 1.1rem;
  background: var(--card);
  border-top: 1px solid var(--line);
}
.acts .btn {
  padding-inline: 0.6rem;
}
.alone {
  display: none;
}
.back {
  display: none;
  margin-bottom: 0.6rem;
}
.legend {
  margin-top: 0.6rem;
}
@media (max-width: 900px) {
  .setups {
    display: block;
    height: auto;
  }
  .trails {
    overflow: visible;
    padding: 0.9rem 0.7rem 6rem;
  }
  .panel {
    display: none;
    overflow: visible;
    border: 0;
    padding: 0.9rem 0.8rem 57px;
  }
  .setups:has(.panel.shown) .trails {
    display: none;
  }
  .panel.shown {
    display: block;
  }
  .acts {
    bottom: 57px;
    margin-inline: -0.8rem;
    padding-inline: 0.8rem;
  }
  .alone {
    display: block;
  }
  .back {
    display: inline-flex;
  }
}
</style>
