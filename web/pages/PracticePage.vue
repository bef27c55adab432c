<script setup lang="ts">
import { useMediaQuery } from '@vueuse/core'
import { computed, defineAsyncComponent, nextTick, ref, useTemplateRef, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import type { Feel } from '#contract/run'
import { spaceOfDay } from '#core/adviser/history'
import { zeroMoved, zeroMovedWords } from '#core/adviser/zeroMoved'
import { drillOf } from '#core/practice/drills'
import { turnSign } from '#core/adjusters/words'
import { variationOf, variations } from '#core/practice/vary'
import BikeRails from '../components/day/BikeRails.vue'
import DayLine from '../components/day/DayLine.vue'
import FeelStrip from '../components/day/FeelStrip.vue'
import PendingTurns from '../components/day/PendingTurns.vue'
import AdviceCard from '../components/practice/AdviceCard.vue'
import AskRider from '../components/practice/AskRider.vue'
import BenchTasks from '../components/practice/BenchTasks.vue'
import DrillList from '../components/practice/DrillList.vue'
import RiderSays from '../components/practice/RiderSays.vue'
import RideFigures from '../components/practice/RideFigures.vue'
import RideTrace from '../components/practice/RideTrace.vue'
import ThreeColumns from '../components/practice/ThreeColumns.vue'
import BarSlots from '../components/shell/BarSlots.vue'
import { usePageTitle } from '../composables/usePageTitle.ts'
import { useShortcuts } from '../composables/useShortcuts.ts'
import { useUnits } from '../composables/useUnits.ts'
import { useNotices } from '../stores/notices.ts'
import { usePractice } from '../stores/practice.ts'
import { keepDraft } from '../support/drafts.ts'
import { lessonStep } from '../support/lesson.ts'
import { askable, lastSeedKey, lookable, sagsOf, stoppedWords, strokesOf } from '../support/practiceWords.ts'

const CoachTent = defineAsyncComponent(() => import('../components/practice/CoachTent.vue'))
const PracticeTrace = defineAsyncComponent(() => import('../components/practice/PracticeTrace.vue'))
const PracticeEnd = defineAsyncComponent(() => import('../components/practice/PracticeEnd.vue'))

const props = defineProps<{ drill?: string; seed?: string }>()
const practice = usePractice()
const notices = useNotices()
const route = useRoute()
const router = useRouter()
const { moveWords, positionWords } = useUnits()

/** Seeds in an address: whole numbers that a person can pass on. */
const mostSeed = 999_999
const drill = computed(() => (props.drill ? drillOf(props.drill) : undefined))
const seed = computed(() => {
  const n = Number(props.seed)
  return Number.isInteger(n) && n >= 1 && n <= mostSeed ? n : null
})
const variation = computed(() => variationOf(route.query.vary))
/** Not a rider but ring, count and stopwatch: an address of its own beside the drills. */
const onBench = computed(() => props.drill === 'bench')
/** Nor this: several riders at once. */
const inTent = computed(() => props.drill === 'coach')
const fault = computed(() =>
  props.drill && !drill.value && !onBench.value && !inTent.value
    ? 'There is no such drill. Choose one of these.'
    : props.seed && seed.value === null
      ? `A rider is a whole number from 1 to ${mostSeed}.`
      : '',
)
const selected = ref<string | null>(null)
watch(
  [drill, seed, variation, onBench, inTent],
  () => {
    selected.value = null
    if (!drill.value || seed.value === null) {
      if ((drill.value || onBench.value || inTent.value) && !props.seed)
        void router.replace({ name: 'practice', params: { drill: props.drill, seed: 1 } })
      if (inTent.value && seed.value !== null) keepDraft(lastSeedKey('coach'), seed.value)
      return
    }
    practice.open({ drill: drill.value.key, variation: variation.value, seed: seed.value })
    keepDraft(lastSeedKey(drill.value.key), seed.value)
  },
  { immediate: true },
)
const playing = computed(
  () => !!drill.value && seed.value !== null && practice.rider?.drill.key === drill.value.key,
)
usePageTitle(() =>
  onBench.value
    ? 'Practice on the bench'
    : inTent.value
      ? 'Practice in the tent'
      : drill.value
        ? `Practice, ${drill.value.title}`
        : 'Practice',
)

const day = computed(() => practice.day!)
const b = computed(() => practice.bundle!)
const nextNo = computed(() => b.value.runs.length + 1)
const at = computed(() => {
  const i = b.value.runs.findIndex((r) => r.id === selected.value)
  return i < 0 ? b.value.runs.length - 1 : i
})
const run = computed(() => b.value.runs[at.value])
const recordingOf = (i: number) => practice.recordings.find((r) => r.runId === b.value.runs[i]?.id) ?? null
const wrongZeros = computed(() => {
  const analysis = recordingOf(at.value)?.analysis
  return analysis ? zeroMoved({ run: run.value, analysis }, spaceOfDay(b.value)).map(zeroMovedWords) : []
})
/** The same address with or without the trace of a ride: a rider and what is varied stay as they are. */
const traceTo = (number: number | null) => ({
  name: 'practice',
  params: { drill: props.drill, seed: props.seed },
  query: { ...route.query, trace: number ?? undefined },
})
const ridden = (number: number) => (number >= 1 && number <= b.value.runs.length ? traceTo(number) : null)
/** Run whose trace is looked at: one that was ridden, with sensors that somebody looks at. */
const traced = computed(() => {
  const number = Number(route.query.trace)
  return practice.sensorsOn && !isLesson.value && ridden(number) ? number : null
})
/** What may be had beside the plain ride; the first lesson has none of it. */
const toggles = computed(() => {
  if (isLesson.value) return []
  const { adviserOn, sensorsOn, notesByHand } = practice
  const afterARun = [
    {
      key: 'adviser',
      on: adviserOn,
      words: adviserOn ? 'Without the adviser' : 'What would the adviser do?',
      flip: () => (practice.adviserOn = !adviserOn),
    },
    {
      key: 'sensors',
      on: sensorsOn,
      words: sensorsOn ? 'Without sensor figures' : 'What do the sensors say?',
      flip: practice.toggleSensors,
    },
  ]
  const byHand = {
    key: 'byHand',
    on: notesByHand,
    words: notesByHand ? 'Have the feel noted' : 'I’ll note the feel myself',
    flip: () => (practice.notesByHand = !notesByHand),
  }
  return run.value ? [...afterARun, byHand] : [byHand]
})
/** Runs that this one can be held against. */
const others = computed(() => b.value.runs.slice(0, at.value).map((r, i) => ({ id: r.id, number: i + 1 })))
const noteFeel = ({ rating, marks, verdicts, note }: Feel) =>
  practice.note(at.value + 1, { rating, marks, verdicts, note })
const isLast = computed(() => at.value === b.value.runs.length - 1)
const isLesson = computed(() => drill.value?.key === 'first-lesson')
const lesson = computed(() => (isLesson.value ? lessonStep(day.value) : null))
const questions = computed(() => askable(day.value))
const units = computed(() => b.value.units.filter((u) => u.adjusters.length > 0))
const sags = computed(() => sagsOf(day.value))
const looks = computed(() => (isLesson.value ? [] : lookable(day.value, positionWords)))
const stopped = computed(() => stoppedWords(day.value))
const strokes = computed(() => strokesOf(day.value))
const linked = ref(false)
const why = ref('')
const turns = computed(() =>
  practice.moves.map((m) => `${moveWords(m)} ${turnSign(m.adjuster, m.from, m.to) ?? ''}`),
)
const needsLink = computed(() => practice.moves.length > 1)
watch(needsLink, () => (linked.value = false))
function apply() {
  if (practice.moves.length === 0 || (needsLink.value && !linked.value)) return
  practice.turn(why.value, linked.value)
  why.value = ''
  // The next thing is to ride it: where the hand goes on from here, also on a phone.
  void nextTick(() => rideButton.value?.focus())
}
const rideButton = useTemplateRef<HTMLButtonElement>('rideButton')
async function ride() {
  if (day.value.settled || practice.moves.length > 0) {
    if (practice.moves.length > 0)
      notices.show('Something is chosen on the rails: say that it is on, or cancel it, then ride.', 'error')
    return
  }
  selected.value = null
  await notices.attempt(practice.ride)
}
const ghostFor = (a: { id: string }) =>
  practice.proposal?.moves.find((m) => m.adjusterId === a.id)?.to ?? null
const bracketFor = (a: { id: string }) =>
  practice.knowledge?.brackets.find((x) => x.adjuster.id === a.id)?.bracket ?? null
function again() {
  practice.again()
  selected.value = null
}
const narrow = useMediaQuery('(max-width: 720px)')
useShortcuts([{ key: 'r', does: 'ride a run of practice', act: () => void (playing.value && ride()) }])
</script>

<template>
  <div v-if="onBench && seed !== null" class="page">
    <h1>On the bench: ring, count, stopwatch</h1>
    <p>What is worked out before anybody rides. Take your time; after each you are told why.</p>
    <BenchTasks :seed="seed" />
    <p class="back">
      <RouterLink :to="{ name: 'practice', params: { drill: '', seed: '' } }">All drills</RouterLink>
    </p>
  </div>
  <template v-else-if="inTent && seed !== null">
    <BarSlots>
      <template #about>
        <span class="about"><b>Practice</b> {{ `three at once, ${seed}` }}</span>
      </template>
    </BarSlots>
    <CoachTent :seed="seed" />
  </template>
  <div v-else-if="!playing" class="page">
    <h1>Practice: a rider you can’t see into</h1>
    <p>
      Something stands wrong and you are not told what. Ride, listen, ask, read, turn one thing, ride again;
      stop when it is enough. The end tells what it was, and what each run could have told.
    </p>
    <p v-if="fault" class="caution" role="alert">{{ fault }}</p>
    <DrillList />
    <p class="soft small">
      Invented riders on an invented bike. A day of practice stays in this browser and never gets among your
      riders and days.
    </p>
  </div>
  <template v-else>
    <BarSlots>
      <template #about>
        <span class="about"><b>Practice</b> {{ `${drill!.title}, rider ${seed}` }}</span>
      </template>
    </BarSlots>
    <PracticeTrace
      v-if="traced !== null"
      :key="JSON.stringify(practice.key)"
      :number="traced"
      :before="ridden(traced - 1)"
      :after="ridden(traced + 1)"
      :back="traceTo(null)"
    />
    <PracticeEnd
      v-else-if="day.settled"
      :key="JSON.stringify(practice.key)"
      @again="again"
      @reopen="practice.undo"
    />
    <ThreeColumns v-else line-last>
      <template #line>
        <DayLine
          :bundle="b"
          :knowledge="practice.knowledge"
          :selected="run?.id ?? null"
          @select="(id) => (selected = id)"
          @compare="(id) => (selected = id)"
        />
        <p v-if="variation" class="soft small">{{ `Varied: ${variations[variation]}.` }}</p>
        <div class="acts">
          <button v-if="b.runs.length" type="button" class="btn btn-plain" @click="again">Begin again</button>
          <RouterLink class="btn btn-plain" :to="{ name: 'practice', params: { drill: '', seed: '' } }"
            >All drills</RouterLink
          >
        </div>
      </template>
      <template #default>
        <h1 v-if="run && !lesson" class="visually-hidden">{{ drill!.title }}</h1>
        <section v-if="lesson" class="card-paper lesson" aria-live="polite" aria-labelledby="lesson-title">
          <p class="soft small">First lesson</p>
          <h1 id="lesson-title">{{ lesson.title }}</h1>
          <p>{{ lesson.text }}</p>
        </section>
        <section v-else-if="!run" class="card-paper" aria-labelledby="before-title">
          <p class="soft small">{{ `Practice, rider ${seed}` }}</p>
          <h1 id="before-title">{{ drill!.title }}</h1>
          <p>{{ drill!.before }}</p>
          <p class="soft">Ride it as it stands first: that run is the baseline.</p>
        </section>
        <div class="acts">
          <button
            ref="rideButton"
            type="button"
            class="btn btn-primary"
            :aria-disabled="practice.riding"
            @click="ride"
          >
            {{ practice.riding ? 'Riding …' : `Ride run ${nextNo}` }}
          </button>
          <button v-if="run" type="button" class="btn btn-plain" @click="practice.settle">
            We’re happy: stop here
          </button>
          <button v-if="practice.undoable" type="button" class="btn btn-plain" @click="practice.undo">
            Undo the last turn
          </button>
          <button
            v-for="t in toggles"
            :key="t.key"
            type="button"
            class="btn btn-plain"
            :aria-pressed="t.on"
            @click="t.flip"
          >
            {{ t.words }}
          </button>
        </div>
        <RideTrace
          v-if="practice.course && isLast && run"
          :course="practice.course"
          :sections="b.trail.sections"
          :number="at + 1"
        />
        <RiderSays
          v-if="run"
          :run="run"
          :number="at + 1"
          :said="day.runs[at].said"
          :as-people-talk="day.runs[at].byHandNoted"
          :sections="b.trail.sections"
          :strokes-mm="strokes"
        />
        <FeelStrip
          v-if="run && day.runs[at].byHandNoted"
          :run="run"
          :number="at + 1"
          :feel="{ ...b.feels[at], answers: [] }"
          :sections="b.trail.sections"
          :others="others"
          saving="saved"
          @edit="noteFeel"
        />
        <RideFigures
          v-if="practice.sensorsOn && run && !isLesson"
          :recording="recordingOf(at)"
          :before="recordingOf(at - 1)"
          :number="at + 1"
          :fault="practice.sensorsFault"
          :wrong="wrongZeros"
          :trace-to="ridden(at + 1)"
        />
        <AskRider
          v-if="isLast && (run || !isLesson) && (questions.length || sags.length)"
          :questions="questions"
          :sags="sags"
          :looks="looks"
          @ask="practice.ask"
          @read="practice.read"
          @look="practice.look"
        />
        <p v-if="stopped" class="caution" role="status">{{ stopped }}</p>
        <p v-if="practice.fault" class="caution" role="alert">{{ practice.fault }}</p>
        <AdviceCard
          v-if="practice.adviserOn && practice.proposal && run"
          :proposal="practice.proposal"
          :judging="practice.judging"
          @do="practice.doProposal"
          @ask="practice.proposal.question && practice.ask(practice.proposal.question)"
          @look="practice.proposal.lookAt.forEach((part) => practice.look(part))"
          @read="practice.proposal.readEnd && practice.read(practice.proposal.readEnd)"
        />
      </template>
      <template #bike>
        <header>
          <h2>On the bike now</h2>
          <span v-if="!narrow" class="soft small">closed ◂ ▸ open</span>
        </header>
        <PendingTurns
          v-if="practice.moves.length"
          v-model:linked="linked"
          v-model:why="why"
          :turns="turns"
          @apply="apply"
          @drop="practice.drop"
        />
        <BikeRails
          :units="units"
          :held="practice.held"
          :pending="practice.pending"
          :ghost-for="ghostFor"
          :bracket-for="bracketFor"
          @choose="practice.choose"
          @apply="apply"
          @drop="practice.drop"
        />
      </template>
    </ThreeColumns>
  </template>
</template>

<style scoped>
/* The strip of a trail day keeps its own: on a narrow phone it needs every pixel. */
.card-paper:not(.feel) {
  padding: 0.8rem 1rem;
}
.about b {
  margin-right: 0.4rem;
}
header {
  display: flex;
  justify-content: space-between;
  align-items: baseline;
}
.back {
  margin-top: 0.8rem;
}
.lesson {
  border-left: 6px solid var(--sun);
}
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 0.5rem;
}
</style>
