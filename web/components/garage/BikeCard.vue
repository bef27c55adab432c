<script setup lang="ts">
import { computed, defineAsyncComponent, ref } from 'vue'
import { v7 as uuid } from 'uuid'
import type { Adjuster } from '#contract/adjuster'
import type { Baseline } from '#contract/baseline'
import type { Bike } from '#contract/bike'
import type { ServiceEntry } from '#contract/care'
import type { Setup } from '#contract/setup'
import type { SuspensionUnit } from '#contract/unit'
import { knownWords, readBy } from '#core/setup/known'
import { countBaseWords } from '#core/adjusters/count'
import { adjusterName } from '#core/adjusters/words'
import { useCalled } from '../../composables/useCalled.ts'
import { useUnits } from '../../composables/useUnits.ts'
import { useGarage } from '../../stores/garage.ts'
import { useNotices } from '../../stores/notices.ts'
import { serviceWords, sourceWords } from '../../support/benchWords.ts'
import { dayWords } from '../../support/dates.ts'
import { forRider } from '#core/carry/ofAnotherRider'
import { saidRidingMassKg } from '#core/spring/load'
import { knownTitle } from '../../support/knownTitle.ts'
import { useOutbox } from '../../stores/outbox.ts'
import { useWho } from '../../composables/useWho.ts'
import PrintLinks from '../bench/PrintLinks.vue'
import EndMark from '../shell/EndMark.vue'

// Seen when they are called; nobody who only looks waits for them.
const RecountDialog = defineAsyncComponent(() => import('./RecountDialog.vue'))
const TurnList = defineAsyncComponent(() => import('./TurnList.vue'))
const ServiceForm = defineAsyncComponent(() => import('./ServiceForm.vue'))
const StartingPointForm = defineAsyncComponent(() => import('./StartingPointForm.vue'))

type Dial = Extract<Adjuster, { kind: 'click' }>

/** One bike: where everything stands, what others recommend, what was done to it. */
const props = defineProps<{ bike: Bike }>()
const emit = defineEmits<{ edit: []; read: []; away: [] }>()
const garage = useGarage()
const notices = useNotices()
const outbox = useOutbox()
const { who } = useWho()
const { say, positionWords, units: choice } = useUnits()

const setup = computed(() => garage.currentSetup(props.bike.id))
const units = computed(() => garage.unitsOf(props.bike))
/** Another rider's settings stand here as they hold for this one. */
const starts = computed(() => {
  const rider = garage.rider(props.bike.riderId)
  const mass = rider ? saidRidingMassKg(rider) : null
  return garage
    .baselinesOf(props.bike.id)
    .map((b) => ({ b, held: forRider(b, units.value, mass, choice.value) }))
})
const services = computed(() => garage.servicesOf(props.bike.id))
const rows = computed(() =>
  units.value.map((u) => ({
    u,
    facts: [
      `${say('length', u.strokeMm)} ${u.end === 'front' ? 'travel' : 'stroke'}${u.assumed.includes('strokeMm') ? ' (assumed)' : ''}`,
      u.spring,
      `sag target ${u.sagTargetPct} %`,
      u.revalved ? `re-valved${u.revalvedOn ? ` ${u.revalvedOn}` : ''}` : null,
      u.idNote || null,
    ]
      .filter(Boolean)
      .join(', '),
    lines: u.adjusters.map((a) => {
      const at = setup.value?.positions.find((p) => p.adjusterId === a.id)
      return {
        a,
        at: at === undefined ? '?' : positionWords(a, at.value),
        how: knownWords[at?.known.how ?? 'unread'],
        title: knownTitle(at?.known ?? null),
        base: countBaseWords(a),
        rangeAssumed: u.assumed.includes(a.id) && a.kind !== 'lever',
        others: starts.value.map(({ held }) => {
          const v = held.positions.find((p) => p.adjusterId === a.id)?.value
          return v === undefined ? '' : positionWords(a, v)
        }),
      }
    }),
  })),
)

const recounting = ref<{ unit: SuspensionUnit; dial: Dial } | null>(null)
const recountOpen = ref(false)
function recount(unit: SuspensionUnit, dial: Adjuster) {
  if (dial.kind !== 'click') return
  recounting.value = { unit, dial }
  recountOpen.value = true
}
/** The count also told where the dial stood: that is what is on the bike. */
async function counted(stoodAt: number) {
  const r = recounting.value
  if (!r) return
  const held = setup.value
  const before = held?.positions.find((p) => p.adjusterId === r.dial.id)
  const known = readBy({ at: new Date().toISOString(), by: who.value }, 'counted to the stop')
  const saved = await notices.attempt(() =>
    garage.saveSetup({
      id: uuid(),
      bikeId: props.bike.id,
      parentId: held?.id ?? null,
      dayId: null,
      madeAt: new Date().toISOString(),
      name: null,
      frontUnitId: props.bike.frontUnitId,
      rearUnitId: props.bike.rearUnitId,
      positions: [
        ...(held?.positions ?? []).filter((p) => p.adjusterId !== r.dial.id),
        { end: r.unit.end, adjusterId: r.dial.id, value: stoodAt, known },
      ],
      reason: {
        text: 'Recounted',
        source: 'reading',
        linked: true,
        proposalId: null,
        undoes: null,
        fromSetupId: null,
      },
      foundIn: held?.foundIn ?? null,
      wanted: false,
    }),
  )
  if (saved)
    notices.show(
      before?.value === stoodAt
        ? 'Counted: it stood where it was written.'
        : 'Counted. Where it stood is on the bike now.',
    )
}
const turning = ref<Setup | null>(null)
const turnOpen = ref(false)
const wanted = computed(() => garage.wantedOf(props.bike.id))
const openTurns = (s: Setup) => ((turning.value = s), (turnOpen.value = true))
async function dropWanted(s: Setup) {
  if (await notices.attempt(() => outbox.remove('setup', s.id)))
    notices.show('The wanted setup was removed.', 'done', () => outbox.restore('setup', s.id))
}

const serviceOpen = ref(false)
const service = ref<ServiceEntry | null>(null)
const startOpen = ref(false)
const serviceCalled = useCalled(serviceOpen)
const startCalled = useCalled(startOpen)
const start = ref<Baseline | null>(null)
const openService = (s: ServiceEntry | null) => ((service.value = s), (serviceOpen.value = true))
const openStart = (b: Baseline | null) => ((start.value = b), (startOpen.value = true))
async function remove(what: 'service' | 'baseline', id: string, name: string) {
  if (await notices.attempt(() => outbox.remove(what, id)))
    notices.show(`${name} was removed.`, 'done', () => outbox.restore(what, id))
}
</script>

<template>
  <article class="card-paper bike">
    <header>
      <div>
        <h3>{{ bike.name }}</h3>
        <span class="soft">{{
          `${garage.rider(bike.riderId)?.name ?? '?'}${bike.eBike ? ', electric' : ''}`
        }}</span>
      </div>
      <div class="acts">
        <RouterLink class="btn btn-sun" :to="{ name: 'bench', params: { bikeId: bike.id } }">
          {{ setup ? 'To the bench' : 'Set it up on the bench' }}
        </RouterLink>
        <button type="button" class="btn btn-plain" @click="emit('read')">Record current settings</button>
        <button type="button" class="btn btn-plain" @click="emit('edit')">Edit</button>
        <button type="button" class="btn soft" @click="emit('away')">Remove</button>
      </div>
    </header>
    <div class="units">
      <div v-for="r in rows" :key="r.u.id">
        <h4><EndMark :end="r.u.end" /> {{ r.u.name }}</h4>
        <p class="soft small num">{{ r.facts }}</p>
        <table class="num">
          <thead v-if="starts.length">
            <tr>
              <td></td>
              <th scope="col">on it now</th>
              <th v-for="{ b } in starts" :key="b.id" scope="col">{{ sourceWords[b.source] }}</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="l in r.lines" :key="l.a.id">
              <th scope="row">{{ adjusterName(l.a) }}</th>
              <td>
                <b>{{ l.at }}</b> <small class="soft" :title="l.title">{{ l.how }}</small>
                <button
                  v-if="l.a.kind === 'click'"
                  type="button"
                  class="base"
                  :aria-label="`Recount ${r.u.end} ${adjusterName(l.a).toLowerCase()}`"
                  @click="recount(r.u, l.a)"
                >
                  {{ l.base }}
                </button>
                <span v-else class="soft small">{{ ` ${l.base}` }}</span>
                <small v-if="l.rangeAssumed" class="soft"> range assumed</small>
              </td>
              <td v-for="(o, i) in l.others" :key="i">{{ o }}</td>
            </tr>
          </tbody>
        </table>
      </div>
    </div>
    <div v-for="w in wanted" :key="w.id" class="caution wanted">
      <span>{{ `Wanted, not on the bike: ${w.name ?? 'a setup'}` }}</span>
      <button type="button" class="btn btn-plain" @click="openTurns(w)">Turns to make</button>
      <button type="button" class="btn btn-sm soft" @click="dropWanted(w)">Remove</button>
    </div>
    <TurnList v-if="turning" v-model:open="turnOpen" :bike="bike" :target="turning" />
    <details>
      <summary>{{ `Makers’ settings: ${starts.length || 'none yet'}` }}</summary>
      <ul>
        <li v-for="{ b, held } in starts" :key="b.id">
          <span
            >{{ `${b.name}, ${sourceWords[b.source]}, ${b.asOf}` }}
            <small v-if="held.words" class="soft">{{ held.words }}</small></span
          >
          <span
            ><button type="button" class="btn btn-sm" @click="openStart(b)">Edit</button
            ><button type="button" class="btn btn-sm soft" @click="remove('baseline', b.id, b.name)">
              Remove
            </button></span
          >
        </li>
      </ul>
      <p class="soft small">Several stand side by side. That they disagree is normal.</p>
      <BButton variant="plain" @click="openStart(null)">Add one</BButton>
    </details>
    <details>
      <summary>{{ `Service log: ${services.length || 'nothing yet'}` }}</summary>
      <ul>
        <li v-for="s in services" :key="s.id">
          <span>{{
            `${dayWords(s.date)}: ${serviceWords[s.kind]}${s.unitId ? `, ${garage.unit(s.unitId)?.name ?? ''}` : ''}${s.note ? `. ${s.note}` : ''}`
          }}</span>
          <span
            ><button type="button" class="btn btn-sm" @click="openService(s)">Edit</button
            ><button
              type="button"
              class="btn btn-sm soft"
              @click="remove('service', s.id, serviceWords[s.kind])"
            >
              Remove
            </button></span
          >
        </li>
      </ul>
      <BButton variant="plain" @click="openService(null)">Log a service</BButton>
    </details>
    <div class="print">
      <RouterLink v-if="setup" class="btn btn-plain" :to="{ name: 'setups', params: { bikeId: bike.id } }"
        >Its setups</RouterLink
      >
      <PrintLinks :bike-id="bike.id" :only="setup ? undefined : 'sag-strip'" />
    </div>
    <RecountDialog
      v-if="recounting"
      v-model:open="recountOpen"
      :unit="recounting.unit"
      :dial="recounting.dial"
      @counted="counted"
    />
    <ServiceForm v-if="serviceCalled" v-model:open="serviceOpen" :bike="bike" :editing="service" />
    <StartingPointForm v-if="startCalled" v-model:open="startOpen" :bike="bike" :editing="start" />
  </article>
</template>

<style scoped>
.bike {
  padding: 0.9rem 1.1rem 1.1rem;
  margin-bottom: 0.8rem;
}
header {
  display: flex;
  flex-wrap: wrap;
  justify-content: space-between;
  gap: 0.5rem;
}
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 0.4rem;
}
.units {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(280px, 1fr));
  gap: 0.5rem 2rem;
  margin: 0.6rem 0;
}
h4 {
  font-size: 1rem;
}
.units p {
  margin: 0.1rem 0 0.3rem;
}
table {
  border-collapse: collapse;
}
th,
td {
  text-align: left;
  font-weight: 400;
  padding: 0.1rem 1rem 0.1rem 0;
  vertical-align: baseline;
}
thead th {
  color: var(--ink-soft);
  font-size: 0.86rem;
}
.base {
  border: 0;
  background: none;
  color: var(--ink-soft);
  font-size: 0.86rem;
  padding: 0.2rem 0.3rem;
  text-decoration: underline dotted;
  text-underline-offset: 3px;
}
details ul {
  list-style: none;
  padding: 0;
  margin: 0;
}
details li {
  display: flex;
  justify-content: space-between;
  align-items: center;
  gap: 0.6rem;
  border-bottom: 1px solid var(--line);
}
details p {
  margin: 0.3rem 0;
}
.print {
  display: flex;
  flex-wrap: wrap;
  gap: 0.5rem;
  margin-top: 0.5rem;
}
</style>
