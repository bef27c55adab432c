<script setup lang="ts">
import { computed, nextTick, onMounted, ref, useTemplateRef, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { v7 as uuid } from 'uuid'
import type { Adjuster } from '#contract/adjuster'
import type { BikeKind } from '#contract/bike'
import { Bike } from '#contract/bike'
import { Rider } from '#contract/rider'
import type { Setup } from '#contract/setup'
import { SuspensionUnit } from '#contract/unit'
import { assumed, readBy, setBy } from '#core/setup/known'
import CautionList from '../components/bench/CautionList.vue'
import NumberField from '../components/shell/NumberField.vue'
import TypedPicker from '../components/shell/TypedPicker.vue'
import KitFigure from '../components/start/KitFigure.vue'
import KnobTiles from '../components/start/KnobTiles.vue'
import StartRow from '../components/start/StartRow.vue'
import { usePageTitle } from '../composables/usePageTitle.ts'
import { useUnits } from '../composables/useUnits.ts'
import { useWho } from '../composables/useWho.ts'
import { useGarage } from '../stores/garage.ts'
import { useNotices } from '../stores/notices.ts'
import { cautions } from '../support/cautions.ts'
import { dialWords, startFault, type StartFault } from '../support/startFault.ts'
import { toFault } from '../support/toFault.ts'
import { keepDraft, readDraft } from '../support/drafts.ts'
import {
  firstBike,
  kitGuessKg,
  kitKg,
  noAnswers,
  rolesOf,
  startEstimates,
  usualTravelMm,
  type Answers,
  type StartEstimate,
} from '../support/firstBike.ts'
import { bikeKindWords } from '../support/words.ts'

/** From nothing to a bike that can be ridden or measured: one question a screen, each answerable without a manual. */
const garage = useGarage()
const notices = useNotices()
const route = useRoute()
const router = useRouter()
const { say, units: choice } = useUnits()
const { who } = useWho()

const answers = ref<Answers>({ ...noAnswers(), ...readDraft<Answers>('first-bike') })
watch(answers, (a) => keepDraft('first-bike', a), { deep: true })
onMounted(() => notices.attempt(garage.load))

const existing = computed(() => garage.rider(answers.value.riderId) ?? null)
const steps = computed(() =>
  [
    { key: 'who', title: 'Who rides it?' },
    { key: 'kit', title: 'What is worn on the bike?', skip: existing.value !== null },
    { key: 'kind', title: 'What kind of bike is it?' },
    {
      key: 'travel',
      title: answers.value.hardtail ? 'How much travel has the fork?' : 'How much travel has it?',
    },
    { key: 'fork', title: 'What do you see on the fork?' },
    { key: 'shock', title: 'What do you see on the shock?', skip: answers.value.hardtail },
    { key: 'count', title: 'Count the clicks now?' },
    { key: 'start', title: 'Where to start' },
  ].filter((s) => !s.skip),
)
const at = computed(() =>
  Math.max(
    0,
    steps.value.findIndex((s) => s.key === route.query.at),
  ),
)
const step = computed(() => steps.value[at.value])
usePageTitle(() => step.value.title)
const heading = useTemplateRef<HTMLElement>('heading')
watch(at, async () => {
  fault.value = null
  await nextTick()
  heading.value?.focus()
})
const fault = ref<StartFault | null>(null)
const counting = ref(false)
const go = (to: number) => void router.push({ query: { at: steps.value[to]?.key } })
function next() {
  fault.value = startFault(step.value.key, answers.value, counting.value)
  if (fault.value) return void toFault()
  go(at.value + 1)
}
/** The fault beside its field. */
const faultAt = (field: string) => (fault.value?.field === field ? fault.value.words : null)
/** Fields show their own fault; what has none is said below. */
const otherFault = computed(() =>
  fault.value && ['parts', 'record'].includes(fault.value.field) ? fault.value.words : null,
)
const ends = computed(() => (answers.value.hardtail ? (['front'] as const) : (['front', 'rear'] as const)))
const kinds = computed(() =>
  (Object.keys(bikeKindWords) as BikeKind[]).map((k) => ({ key: k, text: bikeKindWords[k] })),
)
function pickKind(kind: BikeKind) {
  answers.value.kind = kind
  next()
}
const countOf = (end: 'front' | 'rear', role: string) =>
  (answers.value[end].counts[role] ??= { clicks: null, at: null })

/** The records as the answers describe them now; made anew when an answer changes, kept while turns are ticked. */
const made = computed(() => firstBike(answers.value, existing.value))
const estimates = computed(() => startEstimates(made.value, choice.value))
/** What was said to be set, by end and part: the records may be made anew meanwhile. */
const onIt = ref<string[]>([])
const seat = (e: { end: string; adjuster: Adjuster }) => `${e.end} ${e.adjuster.role}`
const isOn = (e: { end: string; adjuster: Adjuster }) => onIt.value.includes(seat(e))
const toggleSet = (e: StartEstimate) =>
  (onIt.value = isOn(e) ? onIt.value.filter((x) => x !== seat(e)) : [...onIt.value, seat(e)])

const busy = ref(false)
async function save(then: 'bench' | 'day') {
  const { rider, bike, units, counted } = made.value
  const broken = [
    Rider.safeParse(rider),
    ...units.map((u) => SuspensionUnit.safeParse(u)),
    Bike.safeParse(bike),
  ].find((r) => !r.success)
  if (broken?.error) return void (fault.value = { field: 'record', words: broken.error.issues[0].message })
  busy.value = true
  const hand = { at: new Date().toISOString(), by: who.value }
  const parts = units.flatMap((u) => u.adjusters.map((part) => ({ part, end: u.end })))
  const on = parts.flatMap(({ part, end }) => {
    const est = estimates.value.find((e) => e.adjuster.id === part.id)
    const value = counted.get(part.id)
    if (est && isOn(est))
      return [{ end, adjusterId: part.id, value: est.value, known: setBy(hand, est.words.slice(0, 160)) }]
    return value === undefined
      ? []
      : [
          {
            end,
            adjusterId: part.id,
            value,
            known: readBy(hand, part.kind === 'click' ? 'counted from closed' : 'printed on the spring'),
          },
        ]
  })
  const setup = (over: Partial<Setup>): Setup => ({
    id: uuid(),
    bikeId: bike.id,
    parentId: null,
    dayId: null,
    madeAt: hand.at,
    name: null,
    frontUnitId: bike.frontUnitId,
    rearUnitId: bike.rearUnitId,
    positions: [],
    reason: {
      text: 'Read off the bike',
      source: 'baseline',
      linked: true,
      proposalId: null,
      undoes: null,
      fromSetupId: null,
    },
    foundIn: null,
    wanted: false,
    ...over,
  })
  const wished = estimates.value.filter((e) => !isOn(e))
  const ok = await notices.attempt(async () => {
    if (!existing.value) await garage.saveRider(rider)
    for (const u of units) await garage.saveUnit(u)
    await garage.saveBike(bike)
    await garage.saveSetup(setup({ positions: on }))
    // What nobody has set yet is wanted, not on the bike.
    if (wished.length)
      await garage.saveSetup(
        setup({
          id: uuid(),
          name: 'Start, estimated from weight',
          wanted: true,
          positions: [
            ...on,
            ...wished.map((e) => ({
              end: e.end,
              adjusterId: e.adjuster.id,
              value: e.value,
              known: assumed(e.words.slice(0, 160), hand.at),
            })),
          ].filter((p, i, all) => all.findLastIndex((q) => q.adjusterId === p.adjusterId) === i),
        }),
      )
  })
  busy.value = false
  if (!ok) return
  keepDraft('first-bike', null)
  await router.push(
    then === 'bench'
      ? { name: 'bench', params: { bikeId: bike.id } }
      : { name: 'today', query: { new: 'day', bike: bike.id } },
  )
}
const riders = computed(() => [
  { value: '', text: 'somebody new' },
  ...garage.riders.map((r) => ({ value: r.id, text: r.name })),
])
</script>

<template>
  <div class="page setup">
    <ol class="way" :aria-label="`Question ${at + 1} of ${steps.length}`">
      <li v-for="(s, i) in steps" :key="s.key" :class="{ done: i < at, now: i === at }"></li>
    </ol>
    <h1 ref="heading" tabindex="-1">{{ step.title }}</h1>
    <form class="question" @submit.prevent="next">
      <template v-if="step.key === 'who'">
        <TypedPicker
          v-if="garage.riders.length"
          :model-value="answers.riderId ?? ''"
          label="Rider"
          :options="riders"
          @update:model-value="(v) => (answers.riderId = v || null)"
        />
        <div v-if="!answers.riderId" class="field-grid">
          <div>
            <label class="form-label" for="setup-name">Name</label>
            <BFormInput id="setup-name" v-model="answers.name" autocomplete="off" maxlength="80" />
            <p v-if="faultAt('name')" class="fault" role="alert">{{ faultAt('name') }}</p>
          </div>
          <NumberField
            v-model="answers.bodyMassKg"
            label="Weight, without kit"
            quantity="mass"
            hint="private: never on a shared view"
            :fault="faultAt('mass')"
          />
        </div>
      </template>
      <template v-else-if="step.key === 'kit'">
        <KitFigure :model-value="answers.kit ?? []" @update:model-value="(k) => (answers.kit = k)" />
        <p class="num">
          {{
            answers.kit === null
              ? 'Nothing tapped yet.'
              : `About ${say('mass', kitKg(answers.kit))} of kit, added up from what is usual; a scale knows better.`
          }}
        </p>
        <BButton variant="plain" @click="((answers.kit = null), next())">{{
          `I don’t know: about ${say('mass', kitGuessKg)} is assumed`
        }}</BButton>
      </template>
      <template v-else-if="step.key === 'kind'">
        <div class="tiles" role="group" aria-label="Kind of bike">
          <button
            v-for="k in kinds"
            :key="k.key"
            type="button"
            class="big"
            :aria-pressed="answers.kind === k.key"
            @click="pickKind(k.key)"
          >
            <b>{{ k.text }}</b>
            <span class="small num">{{
              `usually ${usualTravelMm[k.key].front} / ${usualTravelMm[k.key].rear} mm`
            }}</span>
          </button>
        </div>
        <label class="check"
          ><input v-model="answers.hardtail" type="checkbox" class="form-check-input" /> It has no shock at
          the rear</label
        >
      </template>
      <template v-else-if="step.key === 'travel'">
        <div class="field-grid">
          <NumberField
            v-for="end in ends"
            :key="end"
            v-model="answers[end].travelMm"
            :label="end === 'front' ? 'Front' : 'Rear wheel'"
            unit="mm"
            :placeholder="`usually ${usualTravelMm[answers.kind][end]}`"
            :fault="faultAt(`travel.${end}`)"
          />
        </div>
        <BButton
          variant="plain"
          @click="((answers.front.travelMm = null), (answers.rear.travelMm = null), next())"
          >{{
            `I don’t know: typical for ${answers.kind === 'other' ? 'a bike' : `a ${bikeKindWords[answers.kind]} bike`}`
          }}</BButton
        >
      </template>
      <template v-else-if="step.key === 'fork' || step.key === 'shock'">
        <KnobTiles
          v-model="answers[step.key === 'fork' ? 'front' : 'rear'].parts"
          :end="step.key === 'fork' ? 'front' : 'rear'"
        />
        <p class="soft">Tap all that you see. Nothing has to be turned yet.</p>
        <NumberField
          v-if="answers[step.key === 'fork' ? 'front' : 'rear'].parts.includes('coil')"
          v-model="answers[step.key === 'fork' ? 'front' : 'rear'].rateNPerMm"
          label="Printed on the spring"
          quantity="springRate"
          hint="leave empty if there is no number"
        />
        <BButton variant="plain" @click="go(at + 1)">None of these</BButton>
      </template>
      <template v-else-if="step.key === 'count'">
        <p>
          The number of clicks tells how far a dial reaches. Close it gently (clockwise), then count to the
          other stop and back to where it stood.
        </p>
        <CautionList :of="['stop']" />
        <template v-if="counting">
          <template v-for="end in ends" :key="end">
            <fieldset v-for="r in rolesOf(answers[end].parts)" :key="end + r" class="field-grid">
              <legend>{{ dialWords(end, r) }}</legend>
              <NumberField
                v-model="countOf(end, r).clicks"
                label="From stop to stop"
                unit="clicks"
                :fault="faultAt(`count.${end}.${r}.clicks`)"
              />
              <NumberField
                v-model="countOf(end, r).at"
                label="It stands, from closed"
                unit="clicks"
                :fault="faultAt(`count.${end}.${r}.at`)"
              />
            </fieldset>
          </template>
          <p v-if="ends.every((e) => rolesOf(answers[e].parts).length === 0)" class="soft">
            There is no dial with clicks to count.
          </p>
        </template>
        <div v-else class="acts">
          <BButton variant="primary" @click="next">Later</BButton>
          <BButton variant="plain" @click="counting = true">Count them now</BButton>
        </div>
      </template>
      <template v-else>
        <CautionList :of="['maximum', 'pump']" />
        <ul class="starts">
          <StartRow
            v-for="e in estimates"
            :key="e.adjuster.id"
            :estimate="e"
            :set="isOn(e)"
            @set="toggleSet(e)"
          />
        </ul>
        <p v-if="!estimates.length" class="soft">
          Nothing can be estimated from what is known; measuring comes first.
        </p>
        <p class="soft">
          What you have not set stays unread: it shows as “?”, and these numbers wait in the garage as wanted.
        </p>
        <p class="soft">{{ cautions.manuals }}</p>
        <CautionList :of="['testRuns']" />
        <div class="acts">
          <BButton variant="primary" :disabled="busy" @click="save('bench')">Measure it (20 min)</BButton>
          <BButton variant="plain" class="ride" :disabled="busy" @click="save('day')">Ride it</BButton>
        </div>
      </template>
      <p v-if="otherFault" class="fault" role="alert">{{ otherFault }}</p>
      <div v-if="step.key !== 'start'" class="foot">
        <BButton v-if="at > 0" variant="plain" @click="router.back()">Previous</BButton>
        <BButton
          v-if="!(step.key === 'count' && !counting) && step.key !== 'kind'"
          type="submit"
          variant="primary"
          >Next</BButton
        >
      </div>
    </form>
    <p class="soft small">
      Every detail can be given in <RouterLink to="/garage">the garage’s full forms</RouterLink> instead.
    </p>
  </div>
</template>

<style scoped>
.setup {
  max-width: 760px;
}
.way {
  display: flex;
  gap: 0.3rem;
  list-style: none;
  padding: 0;
  margin: 0 0 1rem;
}
.way li {
  flex: 1;
  height: 8px;
  border-radius: 4px;
  background: var(--paper-deep);
}
.way .done {
  background: var(--pine);
}
.way .now {
  background: var(--sun);
}
h1 {
  outline: none;
  margin-bottom: 1rem;
}
.question {
  display: grid;
  gap: 0.9rem;
}
.tiles {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(150px, 1fr));
  gap: 0.6rem;
}
.big {
  display: grid;
  text-align: left;
  min-height: 72px;
  padding: 0.6rem 0.9rem;
  border: 2px solid var(--line);
  border-radius: var(--radius);
  background: var(--card);
  color: var(--ink);
}
.check {
  display: flex;
  gap: 0.6rem;
  align-items: center;
  min-height: var(--touch);
}
.acts,
.foot {
  display: flex;
  flex-wrap: wrap;
  gap: 0.6rem;
}
.foot {
  justify-content: flex-end;
}
.starts {
  list-style: none;
  padding: 0;
  margin: 0;
}
fieldset {
  border-top: 1px solid var(--line);
  padding-top: 0.4rem;
}
legend {
  font-weight: 650;
  font-size: 1rem;
}
.fault {
  margin: 0;
}
</style>
