<script setup lang="ts">
import { useMediaQuery } from '@vueuse/core'
import { computed, defineAsyncComponent, onUnmounted, ref, useTemplateRef, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { v7 as uuid } from 'uuid'
import type { Feel, Run } from '#contract/run'
import { conditionsOf } from '#core/conditions/ofDay'
import { carriedSurface } from '#core/conditions/at'
import { logOf } from '#core/conditions/log'
import { nothingNoted } from '#core/setup/nothingNoted'
import IconUpload from '~icons/lucide/upload'
import { usePageTitle } from '../composables/usePageTitle.ts'
import { useUnits } from '../composables/useUnits.ts'
import BlindCover from '../components/day/BlindCover.vue'
import DayHead from '../components/day/DayHead.vue'
import DayLine from '../components/day/DayLine.vue'
import EarlierDays from '../components/day/EarlierDays.vue'
import FeelConflict from '../components/day/FeelConflict.vue'
import FeelStrip from '../components/day/FeelStrip.vue'
import NextChange from '../components/day/NextChange.vue'
import OnTheBike from '../components/day/OnTheBike.vue'
import ProposalLog from '../components/day/ProposalLog.vue'
import DayPlans from '../components/day/DayPlans.vue'
import DaySheet from '../components/day/DaySheet.vue'
import RunExtras from '../components/day/RunExtras.vue'
import BarSlots from '../components/shell/BarSlots.vue'
import NotOpened from '../components/shell/NotOpened.vue'
import { useCalled } from '../composables/useCalled.ts'
import { useDayActs } from '../composables/useDayActs.ts'
import { useDayPlans } from '../composables/useDayPlans.ts'
import { useShortcuts } from '../composables/useShortcuts.ts'
import { useSteady } from '../composables/useSteady.ts'
import { useDay } from '../stores/day.ts'
import { useNotices } from '../stores/notices.ts'
import { useOutbox } from '../stores/outbox.ts'
import { localToday, shortDayWords } from '../support/dates.ts'
import { useGarage } from '../stores/garage.ts'
import { runAgainMs } from '../support/oneAtATime.ts'
import { vRoving } from '../support/roving.ts'
import { wayBack } from '../support/goBack.ts'
import { factsLine } from '../support/runFacts.ts'

// Seen when they are called; they come right after the screen itself.
const TurnList = defineAsyncComponent(() => import('../components/garage/TurnList.vue'))
const CarryDialog = defineAsyncComponent(() => import('../components/day/CarryDialog.vue'))
const CommandLine = defineAsyncComponent(() => import('../components/day/CommandLine.vue'))
const DayHours = defineAsyncComponent(() => import('../components/day/DayHours.vue'))
const DaySettings = defineAsyncComponent(() => import('../components/day/DaySettings.vue'))
const RunForm = defineAsyncComponent(() => import('../components/day/RunForm.vue'))
const ImportDialog = defineAsyncComponent(() => import('../components/importing/ImportDialog.vue'))

const props = defineProps<{ id: string }>()
const day = useDay()
const notices = useNotices()
const router = useRouter()
const outbox = useOutbox()
const acts = useDayActs()
const { busy } = acts
/** The parts of a day, in the order of a phone's bar. */
const panels = [
  { key: 'next', text: 'Next' },
  { key: 'feel', text: 'Feel' },
  { key: 'bike', text: 'Bike' },
  { key: 'line', text: 'Day' },
] as const
type Part = (typeof panels)[number]['key']
const failed = ref(false)
const commandOpen = ref(false)
const runOpen = ref(false)
const settingsOpen = ref(false)
const settingsCalled = useCalled(settingsOpen)
const hoursOpen = ref(false)
const hoursCalled = useCalled(hoursOpen)
const turnsOpen = ref(false)
const carryOpen = ref(false)
const importOpen = ref(false)
const dropped = ref<File | null>(null)
const route = useRoute()
/** Puts what is looked at into the address, so that it comes back with a reload and can be passed on. */
const look = (at: { part?: Part; run?: number }) => void router.replace({ query: { ...route.query, ...at } })
/** Which part a phone shows. */
const panel = computed<Part>({
  get: () => panels.find((p) => p.key === route.query.part)?.key ?? 'next',
  set: (part) => look({ part }),
})

// Turns are written against what is on the bike, which the garage holds for every bike.
const garage = useGarage()
watch(turnsOpen, (is) => is && !garage.loaded && void notices.attempt(garage.load))
// Without the garage the gauge is not said; the reading is taken all the same.
watch(
  () => (day.proposal?.lookAt.length ?? 0) > 0,
  (is) => is && !garage.loaded && void garage.load().catch(() => undefined),
  { immediate: true },
)
const load = async () => void (failed.value = !(await notices.attempt(() => day.load(props.id))))
watch(() => props.id, load, { immediate: true })
watch(
  () => props.id,
  (_, before) => before && notices.leave(before),
)
onUnmounted(() => notices.leave(props.id))

const b = computed(() => (day.bundle?.day.id === props.id ? day.bundle : null))
const run = computed(() => day.selectedRun)
const printing = useMediaQuery('print')
/** One part at a time; as the styles below have it. */
const onPhone = useMediaQuery('(max-width: 720px)')
useSteady(useTemplateRef<HTMLElement>('nextSlot'), useTemplateRef<HTMLElement>('feelSlot'))
// The run was removed elsewhere: what was open about it would write to another one.
watch(
  () => run.value?.id,
  () => {
    runOpen.value = false
    importOpen.value = false
  },
)
const runNo = computed(() => (run.value ? day.runNumber(run.value.id) : 0))
const nextNo = computed(() => (b.value?.runs.length ?? 0) + 1)
const others = computed(() =>
  (b.value?.runs ?? [])
    .map((r, i) => ({ id: r.id, number: i + 1, kind: r.kind }))
    .filter((r) => r.id !== run.value?.id && r.kind === 'counted'),
)
const counted = computed(() => b.value?.runs.filter((r) => r.kind === 'counted') ?? [])
const { moveWords, units: unitChoice } = useUnits()
usePageTitle(() =>
  b.value
    ? `${b.value.rider.name}, ${b.value.bike.name}, ${b.value.trail.name}, ${shortDayWords(b.value.day.date)}`
    : 'Trail day',
)
// The run in the address, by its number, is the one that is looked at.
watch(
  [() => b.value !== null, () => Number(route.query.run)],
  ([is, number]) => {
    if (is) day.selectedRunId = b.value?.runs[number - 1]?.id ?? null
  },
  { immediate: true },
)
const facts = computed(() => (b.value && run.value ? factsLine(b.value, run.value, unitChoice.value) : ''))
const recordingOf = (id: string) => b.value?.recordings.find((r) => r.runId === id)
const feel = computed<Feel | null>(() => (run.value ? day.feelOf(run.value.id) : null))
const isToday = computed(() => b.value?.day.date === localToday())
const settledSetup = computed(() => b.value?.setups.find((s) => s.id === b.value?.day.settledSetupId))
const settled = computed(() => typeof b.value?.day.settledSetupId === 'string')
/** What a past day may still do: put its settings on the bike, turn by turn. */
const pastWords = computed(() =>
  day.past
    ? 'This day is over: it shows what was on the bike at its end. Settings are changed on the bike’s last day.'
    : null,
)
/** A day that is over and was not settled has nothing next. */
const hasNext = computed(() => day.proposal !== null && (!day.past || settled.value))
/** The run before the one that is looked at. */
const runBefore = computed(() => b.value?.runs[runNo.value - 2] ?? null)
const logging = ref(false)
/** One tap: a run as usual. What was not usual is added to it where it stands. */
async function logRun() {
  if (!b.value || logging.value) return
  logging.value = true
  const logged: Run = {
    id: uuid(),
    version: 0,
    dayId: props.id,
    setupId: day.currentSetup?.id ?? b.value.day.startSetupId,
    startedAt: new Date().toISOString(),
    kind: b.value.runs.length === 0 ? 'warm-up' : 'counted',
    ...nothingNoted,
    surface: carriedSurface(logOf(b.value).hours, b.value.runs.at(-1)),
  }
  const number = nextNo.value
  setTimeout(() => (logging.value = false), runAgainMs)
  const saving = notices.attempt(() => day.saveRun(logged))
  look({ run: undefined, part: 'feel' })
  if (!(await saving)) return
  notices.show(
    `Run ${number} is logged${logged.kind === 'warm-up' ? ' as a warm-up; nobody judges it' : ''}.`,
    'done',
    () => day.removeRun(logged.id),
    props.id,
  )
}
const changeRun = (change: Partial<Run>) =>
  run.value && notices.attempt(() => day.saveRun({ ...run.value!, ...change }))
const saveRun = (r: Run): Promise<boolean> => notices.attempt(() => day.saveRun(r))
async function removeRun(id: string) {
  await acts.removeRun(id)
  look({ run: undefined })
}
const openCommand = () => (commandOpen.value = true)
/** The command line with a sentence in it: what it would turn is seen before anybody says it is done. */
function say(line: string) {
  toSay.value = line
  openCommand()
}
const toSay = ref('')
const { plans, inLine, drop: dropPlan, closeDone } = useDayPlans()
/** What was planned came so: it stands in the command line, and is closed when it is done. */
function doPlan({ id: planId }: { id: string }, line: string) {
  inLine.value = planId
  say(line)
}
// The dialog closed without it: the plan stays.
watch(commandOpen, (is) => {
  if (!is) inLine.value = null
})
/** Whether the run that is looked at was ridden on something else than what is on the bike. */
const backToThis = computed(() => {
  if (!b.value || !run.value || !day.currentSetup || day.past || day.covered) return false
  return !('fault' in wayBack(b.value, day.currentSetup, runNo.value))
})
async function other() {
  await acts.decideOther()
  panel.value = 'bike'
  openCommand()
}
async function repeat() {
  await acts.decideRepeat()
  await logRun()
}
const select = (id: string) => look({ run: day.runNumber(id), part: 'feel' })
function compareWith(id: string) {
  const a = run.value?.id
  if (a && a !== id) void router.push({ name: 'compare', params: { id: props.id }, query: { a: id, b: a } })
}
function compareLast() {
  const list = counted.value
  const at = list.findIndex((r) => r.id === run.value?.id)
  const last = at > 0 ? at : list.length - 1
  if (last > 0)
    void router.push({
      name: 'compare',
      params: { id: props.id },
      query: { a: list[last - 1].id, b: list[last].id },
    })
}
function step(by: number) {
  const list = b.value?.runs ?? []
  const i = list.findIndex((r) => r.id === run.value?.id)
  const to = list[Math.min(list.length - 1, Math.max(0, i + by))]
  if (to) look({ run: day.runNumber(to.id) })
}
function toFeel() {
  const row = document.querySelector<HTMLElement>('.p-feel button')
  row?.scrollIntoView({ block: 'center' })
  row?.focus({ preventScroll: true })
}
function drop(e: DragEvent) {
  const file = e.dataTransfer?.files[0]
  if (!file || !run.value) return
  dropped.value = file
  importOpen.value = true
}
function pickFile() {
  dropped.value = null
  importOpen.value = true
}
useShortcuts([
  { key: 'c', does: 'change in one line', act: () => day.past || openCommand() },
  { key: 'r', does: 'log a run', act: () => day.past || void logRun() },
  { key: 'f', does: 'to the feel of the run', act: toFeel },
  { key: 'j', does: 'next run', act: () => step(1) },
  { key: 'k', does: 'previous run', act: () => step(-1) },
  { key: 'x', does: 'compare with the run before', act: compareLast },
])
</script>

<template>
  <BarSlots v-if="b">
    <template #about>
      <DayHead :bundle="b" />
    </template>
    <template #acts>
      <template v-if="!day.past">
        <button type="button" class="btn bar-btn" @click="openCommand">Change <kbd>c</kbd></button>
        <button type="button" class="btn btn-sun" :aria-disabled="logging" @click="logRun">
          Log run {{ nextNo }}
        </button>
      </template>
    </template>
  </BarSlots>
  <NotOpened v-if="failed && !b" title="This day could not be opened" @again="load" />
  <DaySheet v-if="b && printing && !day.covered" :bundle="b" :knowledge="day.knowledge" />
  <div v-if="b" class="day" :data-panel="panel" @dragover.prevent @drop.prevent="drop">
    <!-- What is next has the page's heading; on a phone it is one of four parts, and a day that is over has none. -->
    <h1 v-if="!hasNext || (onPhone && panel !== 'next')" class="visually-hidden">
      {{ `${b.rider.name}, ${b.bike.name}` }}
    </h1>
    <div class="col line">
      <BlindCover
        v-if="day.covered"
        what="The day so far"
        :run-number="day.runNumber(day.covered.id)"
        @uncover="day.uncover(day.covered.id)"
      />
      <DayLine
        v-else
        :bundle="b"
        :knowledge="day.knowledge"
        :selected="run?.id ?? null"
        @select="select"
        @compare="compareWith"
      />
      <div class="lineacts">
        <button
          v-if="counted.length > 1 && !day.covered"
          type="button"
          class="btn btn-plain"
          @click="compareLast"
        >
          Compare with the last <kbd>x</kbd>
        </button>
        <button type="button" class="btn btn-plain" @click="hoursOpen = true">
          {{ isToday ? 'How it is now' : 'How it was' }}
        </button>
        <button type="button" class="btn btn-plain" @click="settingsOpen = true">About this day</button>
        <RouterLink
          v-if="settledSetup && !day.covered"
          class="btn btn-plain"
          :to="{ name: 'setups', params: { bikeId: b.bike.id }, query: { at: settledSetup.id } }"
          >Settled setup, its card</RouterLink
        >
      </div>
      <EarlierDays
        v-if="!day.covered"
        :remembered="day.knowledge?.remembered ?? null"
        :alone="b.day.judgedAlone"
        :failed="day.earlierFailed"
        :past="day.past"
        @alone="(judgedAlone) => notices.attempt(() => day.editDay({ judgedAlone }))"
      />
      <ProposalLog v-if="!day.covered" :bundle="b" />
    </div>
    <div class="col middle">
      <div v-if="pastWords" class="caution past">
        <span>{{ pastWords }}</span>
        <button v-if="day.currentSetup" type="button" class="btn btn-plain" @click="turnsOpen = true">
          Put this on the bike now
        </button>
      </div>
      <p v-if="day.judgeFault" class="caution" role="alert">{{ day.judgeFault }}</p>
      <div ref="nextSlot" class="p-next">
        <DayPlans
          v-if="plans.length && !day.past && !day.covered"
          :plans="plans"
          @do="doPlan"
          @drop="dropPlan"
        />
        <NextChange
          v-if="hasNext && day.proposal"
          :proposal="day.proposal"
          :space="day.space"
          :positions="day.currentSetup?.positions ?? []"
          :gauges="garage.gauges"
          :day-id="id"
          :bike-id="day.bundle!.bike.id"
          :judging="day.judging"
          :can-settle="counted.length > 0"
          :settled="settled"
          :past="day.past"
          :busy="busy"
          @done="acts.doIt"
          @answer="acts.answer"
          @read="acts.readSag"
          @found="acts.found"
          @other="other"
          @repeat="repeat"
          @happy="acts.happy"
          @reopen="acts.reopen"
          @carry="carryOpen = true"
          @log="logRun"
        />
      </div>
      <div v-if="run && feel" ref="feelSlot" class="p-feel">
        <FeelStrip
          :key="run.id"
          :run="run"
          :number="runNo"
          :feel="feel"
          :sections="b.trail.sections"
          :others="others"
          :saving="outbox.saving"
          @edit="day.editFeel"
          @retry="outbox.flush"
        >
          <template #extras>
            <RunExtras
              :run="run"
              :has-rear="day.space.rear !== null"
              :front-stroke-mm="day.space.front?.strokeMm ?? null"
              :rear-stroke-mm="day.space.rear?.strokeMm ?? null"
              @change="changeRun"
              @details="runOpen = true"
            />
          </template>
        </FeelStrip>
        <FeelConflict
          v-if="day.conflict"
          :differences="day.conflict.differences"
          @settle="day.settleConflict"
        />
        <p v-if="facts" class="soft small num facts">{{ facts }}</p>
        <div class="runacts">
          <RouterLink
            v-if="recordingOf(run.id) && !day.covered"
            class="btn btn-plain"
            :to="{ name: 'trace', params: { id, runId: run.id } }"
            >What the suspension did</RouterLink
          >
          <template v-else-if="!recordingOf(run.id)">
            <button type="button" class="btn btn-plain" @click="pickFile">
              <IconUpload aria-hidden="true" /> Add a sensor file
            </button>
            <RouterLink class="btn btn-plain" :to="{ name: 'logger', params: { id }, query: { run: run.id } }"
              >From a logger</RouterLink
            >
          </template>
          <button v-if="backToThis" type="button" class="btn btn-plain" @click="say(`back to run ${runNo}`)">
            {{ `Back to run ${runNo}` }}
          </button>
          <button type="button" class="btn btn-plain" @click="removeRun(run.id)">Remove run</button>
        </div>
      </div>
      <button v-if="day.arrived" type="button" class="btn btn-sun arrived" @click="select(day.arrived.id)">
        {{ `Run ${day.runNumber(day.arrived.id)} was logged elsewhere: look at it` }}
      </button>
      <p v-if="!run" class="p-feel soft empty">No run yet. Warm up first, then log the baseline.</p>
    </div>
    <div class="col bike">
      <div v-if="day.overtaken" class="caution conflict" role="alert">
        <span>{{
          `The bike was changed elsewhere meanwhile. Yours, not yet on it: ${day.overtaken.moves.map((m) => moveWords(m)).join('; ')}.`
        }}</span>
        <button type="button" class="btn btn-plain" @click="day.settleOvertaken('mine')">
          I’ve turned mine too
        </button>
        <button type="button" class="btn btn-plain" @click="day.settleOvertaken('theirs')">Drop mine</button>
      </div>
      <BlindCover
        v-if="day.covered"
        what="On the bike now"
        :run-number="day.runNumber(day.covered.id)"
        @uncover="day.uncover(day.covered.id)"
      />
      <OnTheBike v-else @done="acts.tell" @undo="acts.undo" @command="openCommand" @say="say" />
    </div>
    <nav v-roving class="tabs" aria-label="Parts of the day">
      <button
        v-for="p in panels"
        :key="p.key"
        type="button"
        :aria-pressed="panel === p.key"
        @click="panel = p.key"
      >
        {{ p.text }}
      </button>
    </nav>
    <RunForm
      v-if="run"
      v-model:open="runOpen"
      :run="run"
      :number="runNo"
      :previous="runBefore"
      :tyres-psi="{ front: b.bike.tyres.front.pressurePsi, rear: b.bike.tyres.rear.pressurePsi }"
      :air="day.air"
      :has-rear="day.space.rear !== null"
      :front-stroke-mm="day.space.front?.strokeMm ?? null"
      :rear-stroke-mm="day.space.rear?.strokeMm ?? null"
      :save="saveRun"
    />
    <DaySettings v-if="settingsCalled" v-model:open="settingsOpen" />
    <DayHours v-if="hoursCalled" v-model:open="hoursOpen" />
    <TurnList
      v-if="day.past && day.currentSetup"
      v-model:open="turnsOpen"
      :bike="b.bike"
      :target="day.currentSetup"
    />
    <CarryDialog
      v-if="settledSetup"
      v-model:open="carryOpen"
      :source="{
        bikeId: b.bike.id,
        riderId: b.rider.id,
        units: b.units,
        conditions: conditionsOf(b),
        words: `${b.trail.name}, ${shortDayWords(b.day.date)}`,
        settled: true,
      }"
      :setup="settledSetup"
    />
    <CommandLine
      v-model:open="commandOpen"
      v-model:say="toSay"
      @done="(done) => (acts.tell(done), closeDone())"
      @undo="(acts.undo(), closeDone())"
      @planned="notices.show('Planned. Nothing is turned yet.', 'done', null, id)"
    />
    <ImportDialog
      v-if="run"
      v-model:open="importOpen"
      :bundle="b"
      :run="run"
      :number="runNo"
      :dropped="dropped"
      @imported="load"
    />
  </div>
</template>

<style scoped>
.day {
  display: grid;
  grid-template-columns: 292px minmax(0, 1fr) 336px;
  height: calc(100vh - var(--bar));
}
.col {
  overflow-y: auto;
  padding: 0.9rem 1rem 2rem;
}
.line {
  border-right: 1px solid var(--line);
}
.bike {
  border-left: 1px solid var(--line);
  background: color-mix(in srgb, var(--card) 60%, var(--paper));
}
.middle {
  display: grid;
  gap: 0.9rem;
  align-content: start;
}
.lineacts,
.runacts {
  display: flex;
  flex-wrap: wrap;
  gap: 0.5rem;
  margin-top: 0.6rem;
}
.facts {
  margin: 0.5rem 0 0;
}
.empty {
  text-align: center;
  padding: 2rem;
}
.tabs {
  display: none;
}
kbd {
  font: inherit;
  font-size: 0.78em;
  border: 1px solid currentcolor;
  border-radius: 4px;
  padding: 0 0.3em;
  background: none;
  color: inherit;
  opacity: 0.85;
}
.arrived {
  position: sticky;
  bottom: 0.4rem;
  justify-self: center;
  z-index: 4;
}
@media (max-width: 1100px) {
  .day {
    grid-template-columns: 270px minmax(0, 1fr);
    height: auto;
  }
  .bike {
    grid-column: 1 / -1;
    border: 0;
    border-top: 1px solid var(--line);
  }
}
@media (max-width: 720px) {
  .day {
    display: block;
    padding-bottom: 64px;
  }
  .col {
    padding: 0.7rem 0.7rem 1rem;
    border: 0;
    overflow: visible;
  }
  .line,
  .bike,
  .p-next,
  .p-feel {
    display: none;
  }
  [data-panel='next'] .p-next,
  [data-panel='feel'] .p-feel,
  [data-panel='bike'] .bike,
  [data-panel='line'] .line {
    display: block;
  }
  .middle {
    display: block;
  }
  .arrived {
    bottom: 70px;
    width: 100%;
  }
  [data-panel='bike'] .middle,
  [data-panel='line'] .middle {
    display: none;
  }
  .tabs {
    display: grid;
    grid-template-columns: repeat(4, 1fr);
    position: fixed;
    inset: auto 0 0;
    background: var(--card);
    border-top: 1px solid var(--line);
    z-index: 9;
    padding-bottom: env(safe-area-inset-bottom);
  }
  .tabs button {
    min-height: 56px;
    border: 0;
    background: none;
    color: var(--ink);
    border-top: 4px solid transparent;
  }
  .tabs button[aria-pressed='true'] {
    font-weight: 700;
    border-top-color: var(--sun);
    background: var(--paper-deep);
  }
  .bar-btn {
    display: none;
  }
}
</style>
