<script setup lang="ts">
import { computed, defineAsyncComponent, onMounted, ref } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import type { Bike } from '#contract/bike'
import type { Rider } from '#contract/rider'
import type { Trail } from '#contract/trail'
import { useMediaQuery } from '@vueuse/core'
import ChoiceKeys from '../components/shell/ChoiceKeys.vue'
import BikeCard from '../components/garage/BikeCard.vue'
import { useGarage } from '../stores/garage.ts'
import { useOutbox } from '../stores/outbox.ts'
import { useNotices } from '../stores/notices.ts'
import { riderWords } from '../support/riderWords.ts'
import { sectionWords } from '../support/words.ts'
import { useCalled } from '../composables/useCalled.ts'
import { usePageTitle } from '../composables/usePageTitle.ts'

// Seen when they are called; nobody who only looks waits for them.
const RemovedShelf = defineAsyncComponent(() => import('../components/garage/RemovedShelf.vue'))
const BaselineForm = defineAsyncComponent(() => import('../components/garage/BaselineForm.vue'))
const BikeForm = defineAsyncComponent(() => import('../components/garage/BikeForm.vue'))
const RiderForm = defineAsyncComponent(() => import('../components/garage/RiderForm.vue'))
const TrailForm = defineAsyncComponent(() => import('../components/garage/TrailForm.vue'))
const WorkshopShelf = defineAsyncComponent(() => import('../components/garage/WorkshopShelf.vue'))

const garage = useGarage()
const route = useRoute()
const router = useRouter()
const notices = useNotices()
const outbox = useOutbox()
onMounted(() => notices.attempt(garage.load))

const riderOpen = ref(false)
const bikeOpen = ref(false)
const trailOpen = ref(false)
const baselineOpen = ref(false)
const riderCalled = useCalled(riderOpen)
const bikeCalled = useCalled(bikeOpen)
const trailCalled = useCalled(trailOpen)
const rider = ref<Rider | null>(null)
const bike = ref<Bike | null>(null)
const trail = ref<Trail | null>(null)
const recording = ref<Bike | null>(null)

const openRider = (r: Rider | null) => ((rider.value = r), (riderOpen.value = true))
const openBike = (b: Bike | null) => ((bike.value = b), (bikeOpen.value = true))
const openTrail = (t: Trail | null) => ((trail.value = t), (trailOpen.value = true))
const openBaseline = (b: Bike) => ((recording.value = garage.bike(b.id) ?? b), (baselineOpen.value = true))

async function remove(what: 'rider' | 'bike' | 'trail', id: string, name: string) {
  if (!(await notices.attempt(() => outbox.remove(what, id)))) return
  const more = what === 'rider' ? ' and every bike of this rider' : ''
  notices.show(`${name}${more} was removed; it lies on the shelf below.`, 'done', () =>
    outbox.restore(what, id),
  )
}
/** Parts of the garage; one at a time, so that none grows without end. */
const parts = [
  { value: 'riders', text: 'Riders' },
  { value: 'trails', text: 'Trails' },
  { value: 'workshop', text: 'Workshop' },
  { value: 'shelf', text: 'Removed' },
] as const
type Part = (typeof parts)[number]['value']
const asked = (key: string) => (typeof route.query[key] === 'string' ? String(route.query[key]) : '')
const part = computed<Part>(
  () => parts.find((p) => p.value === asked('part'))?.value ?? (asked('trail') ? 'trails' : 'riders'),
)
const toPart = (to: Part) => void router.replace({ query: { part: to } })

const text = ref('')
const words = computed(() => text.value.toLowerCase().split(/\s+/).filter(Boolean))
const fits = (about: string) => words.value.every((w) => about.toLowerCase().includes(w))
const bikesOf = (r: Rider) => garage.bikes.filter((b) => b.riderId === r.id)
const aboutBike = (b: Bike) => [b.name, ...garage.unitsOf(b).map((u) => u.name)].join(' ')
/** Riders that are found by their name or by anything on their bikes. */
const riders = computed(() =>
  garage.riders
    .filter((r) => fits([r.name, ...bikesOf(r).map(aboutBike)].join(' ')))
    .sort((a, b) => a.name.localeCompare(b.name)),
)
/** The one whose bikes are open: asked for, or the first that fits. */
const chosen = computed(
  () =>
    garage.rider(asked('rider')) ??
    garage.rider(garage.bike(asked('bike'))?.riderId ?? null) ??
    (narrow.value && riders.value.length > 1 ? null : riders.value[0]),
)
/** A phone shows the list or one rider, never both. */
const narrow = useMediaQuery('(max-width: 720px)')
const bikes = computed(() => {
  const list = chosen.value ? bikesOf(chosen.value) : []
  // The one that was asked for comes first; nobody looks for it again.
  return [...list].sort((a, b) => Number(b.id === asked('bike')) - Number(a.id === asked('bike')))
})
const choose = (r: Rider) => void router.push({ query: { rider: r.id } })
const all = () => void router.push({ query: {} })

const trailsShown = ref(10)
const trails = computed(() =>
  garage.trails
    .filter((t) => fits(`${t.name} ${t.place} ${t.sections.map((s) => s.name).join(' ')}`))
    .sort(
      (a, b) =>
        Number(b.id === asked('trail')) - Number(a.id === asked('trail')) || a.name.localeCompare(b.name),
    ),
)
const sectionList = (t: Trail) =>
  t.sections
    .map((s) => `${s.name} (${sectionWords[s.kind]}${s.lengthM === null ? '' : `, ${s.lengthM} m`})`)
    .join(' · ')
usePageTitle(() => 'Garage')
</script>

<template>
  <div class="page">
    <div class="page-head">
      <h1>Who rides what, and what can be turned on it</h1>
      <RouterLink class="btn btn-sun" :to="{ name: 'setup' }">Set up a bike</RouterLink>
    </div>
    <div class="find">
      <nav aria-label="Parts of the garage">
        <ChoiceKeys :model-value="part" label="What is shown" :options="parts" @update:model-value="toPart" />
      </nav>
      <input
        v-if="part === 'riders' || part === 'trails'"
        v-model="text"
        type="search"
        class="form-control"
        :aria-label="part === 'riders' ? 'Find a rider, bike or unit' : 'Find a trail'"
        :placeholder="part === 'riders' ? 'rider, bike, fork, shock' : 'trail, place, section'"
        autocomplete="off"
      />
    </div>
    <div v-if="part === 'riders'" class="two">
      <section v-if="!narrow || !chosen" class="list" aria-labelledby="riders">
        <div class="page-head">
          <h2 id="riders">Riders</h2>
          <BButton variant="plain" @click="openRider(null)">New rider</BButton>
        </div>
        <ul class="riders">
          <li v-for="r in riders" :key="r.id">
            <button type="button" :aria-pressed="chosen?.id === r.id" @click="choose(r)">
              <b>{{ r.name }}</b>
              <span class="soft small">{{
                bikesOf(r)
                  .map((x) => x.name)
                  .join(', ') || 'no bike yet'
              }}</span>
            </button>
          </li>
        </ul>
        <p v-if="garage.loaded && !garage.riders.length" class="soft">
          Nobody yet. Make a rider first; the weight stays private.
        </p>
        <p v-else-if="garage.loaded && !riders.length" class="soft" role="status">
          Nobody fits “{{ text }}”.
        </p>
      </section>
      <section
        v-if="chosen || !narrow"
        class="one"
        :aria-label="chosen ? `Bikes of ${chosen.name}` : 'Bikes'"
      >
        <template v-if="chosen">
          <button v-if="narrow && riders.length > 1" type="button" class="btn btn-plain" @click="all">
            All riders
          </button>
          <div class="page-head">
            <div>
              <h2>{{ chosen.name }}</h2>
              <span class="soft">{{ riderWords(chosen) }}</span>
            </div>
            <span class="acts">
              <BButton variant="plain" :aria-label="`Edit ${chosen.name}`" @click="openRider(chosen)"
                >Edit</BButton
              >
              <BButton variant="plain" @click="openBike(null)">New bike</BButton>
              <button
                type="button"
                class="btn soft"
                :aria-label="`Remove ${chosen.name}`"
                @click="remove('rider', chosen.id, chosen.name)"
              >
                Remove
              </button>
            </span>
          </div>
          <BikeCard
            v-for="x in bikes"
            :key="x.id"
            :bike="x"
            @edit="openBike(x)"
            @read="openBaseline(x)"
            @away="remove('bike', x.id, x.name)"
          />
          <p v-if="!bikes.length" class="soft">No bike yet.</p>
        </template>
      </section>
    </div>
    <WorkshopShelf v-else-if="part === 'workshop'" />
    <section v-else-if="part === 'trails'" aria-labelledby="trails">
      <div class="page-head">
        <h2 id="trails">Test trails</h2>
        <BButton variant="plain" @click="openTrail(null)">New trail</BButton>
      </div>
      <ul class="trails">
        <li v-for="t in trails.slice(0, trailsShown)" :key="t.id" class="card-paper">
          <div>
            <b>{{ t.name }}</b> <span class="soft">{{ t.place }}</span>
            <p class="small">{{ sectionList(t) }}</p>
          </div>
          <span class="acts"
            ><button type="button" class="btn" :aria-label="`Edit ${t.name}`" @click="openTrail(t)">
              Edit</button
            ><button
              type="button"
              class="btn soft"
              :aria-label="`Remove ${t.name}`"
              @click="remove('trail', t.id, t.name)"
            >
              Remove
            </button></span
          >
        </li>
      </ul>
      <BButton v-if="trails.length > trailsShown" variant="plain" @click="trailsShown += 10">{{
        `Show more of ${trails.length - trailsShown}`
      }}</BButton>
    </section>
    <RemovedShelf v-else />
    <RiderForm v-if="riderCalled" v-model:open="riderOpen" :editing="rider" />
    <BikeForm v-if="bikeCalled" v-model:open="bikeOpen" :editing="bike" :rider-id="chosen?.id" />
    <TrailForm v-if="trailCalled" v-model:open="trailOpen" :editing="trail" />
    <BaselineForm v-if="recording" v-model:open="baselineOpen" :bike="recording" />
  </div>
</template>

<style scoped>
.find {
  display: flex;
  flex-wrap: wrap;
  gap: 0.6rem 1rem;
  align-items: center;
  margin-bottom: 1rem;
}
.find input {
  flex: 1 1 220px;
  max-width: 360px;
}
.two {
  display: grid;
  grid-template-columns: 250px minmax(0, 1fr);
  gap: 1.4rem;
  align-items: start;
}
section .page-head {
  margin-bottom: 0.5rem;
}
ul {
  list-style: none;
  padding: 0;
  margin: 0;
}
.riders {
  max-height: calc(100vh - 260px);
  min-height: 200px;
  overflow-y: auto;
}
.riders button {
  display: grid;
  width: 100%;
  min-height: 48px;
  text-align: left;
  padding: 0.1rem 0.7rem;
  line-height: 1.3;
  border: 0;
  border-left: 5px solid transparent;
  border-bottom: 1px solid var(--line);
  background: none;
  color: inherit;
}
.riders button span {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.riders button[aria-pressed='true'] {
  background: var(--card);
  border-left-color: var(--sun);
}
.trails li {
  padding: 0.6rem 0.9rem;
  display: grid;
  grid-template-columns: 1fr auto;
  gap: 0.6rem;
  margin-bottom: 0.5rem;
}
.trails p {
  margin: 0;
}
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 0.5rem;
}
@media (max-width: 720px) {
  .two {
    grid-template-columns: minmax(0, 1fr);
  }
  .riders {
    max-height: none;
  }
}
</style>
