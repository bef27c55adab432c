<script setup lang="ts">
import { computed, ref, toRef, watch } from 'vue'
import { turnSign } from '#core/adjusters/words'
import { takesMin } from '#core/practice/coach/clock'
import { useCoachTent } from '../../composables/useCoachTent.ts'
import { useUnits } from '../../composables/useUnits.ts'
import { useNotices } from '../../stores/notices.ts'
import {
  askable,
  lookable,
  minuteWords,
  sagsOf,
  stoppedWords,
  strokesOf,
} from '../../support/practiceWords.ts'
import BikeRails from '../day/BikeRails.vue'
import DayLine from '../day/DayLine.vue'
import PendingTurns from '../day/PendingTurns.vue'
import AskRider from './AskRider.vue'
import CoachEnd from './CoachEnd.vue'
import RiderSays from './RiderSays.vue'
import RideTrace from './RideTrace.vue'
import ThreeColumns from './ThreeColumns.vue'

/** Three riders at once, by one clock: what is done with one takes time from the others. */
const props = defineProps<{ seed: number }>()
const notices = useNotices()
const { moveWords, positionWords } = useUnits()
const coach = useCoachTent(toRef(props, 'seed'))
const { tent, at, bundle, riders, spokenTo, moves, held, pending, sending, courses } = coach

const isOut = computed(() => at.value.backAtMin !== null)
const isHappy = computed(() => at.value.day.settled)
const isOpen = computed(() => tent.value.leftMin > 0)
const someAway = computed(() => tent.value.riders.some((r) => r.backAtMin !== null))
const runNo = computed(() => bundle.value.runs.length)
/** The run that is looked at; null: the last. */
const selected = ref<string | null>(null)
watch([spokenTo, runNo], () => (selected.value = null))
const runAt = computed(() => {
  const i = bundle.value.runs.findIndex((r) => r.id === selected.value)
  return i < 0 ? runNo.value - 1 : i
})
const run = computed(() => (isOut.value ? undefined : bundle.value.runs[runAt.value]))
const isLast = computed(() => runAt.value === runNo.value - 1)
const units = computed(() => bundle.value.units.filter((u) => u.adjusters.length > 0))
const stopped = computed(() => stoppedWords(at.value.day))
/** One line for each: where they are, and what they said last. */
const lanes = computed(() =>
  tent.value.riders.map((r, i) => {
    const feel = r.backAtMin === null ? r.day.bundle.feels.at(-1) : undefined
    return {
      number: i + 1,
      title: riders.value[i].drill.title,
      where: r.day.settled
        ? 'happy'
        : r.backAtMin === null
          ? `here since ${minuteWords(r.hereSinceMin)}`
          : `out, back at ${minuteWords(r.backAtMin)}`,
      out: r.backAtMin !== null,
      rating: feel?.rating ?? null,
      runs: r.day.runs.length,
    }
  }),
)
const turns = computed(() =>
  moves.value.map((m) => `${moveWords(m)} ${turnSign(m.adjuster, m.from, m.to) ?? ''}`),
)
const linked = ref(false)
const why = ref('')
watch([moves, spokenTo], () => (linked.value = false))
// A reason is of the bike it was typed for.
watch(spokenTo, () => (why.value = ''))
function apply() {
  if (moves.value.length === 0 || (moves.value.length > 1 && !linked.value)) return
  coach.turn(linked.value, why.value)
  why.value = ''
}
async function sendOut() {
  if (moves.value.length > 0)
    return notices.show(
      'Something is chosen on the rails: say that it is on, or cancel it, then send the rider out.',
      'error',
    )
  await notices.attempt(coach.sendOut)
}
</script>

<template>
  <CoachEnd v-if="tent.over" :riders="riders" :tent="tent" :seed="seed" @again="coach.again" />
  <ThreeColumns v-else>
    <template #line>
      <p class="clock num" role="timer">
        <b>{{ minuteWords(tent.minute) }}</b>
        {{ isOpen ? `track open for ${tent.leftMin} min` : 'the track is closed' }}
      </p>
      <ul class="lanes" aria-label="Riders in the tent">
        <li v-for="(l, i) in lanes" :key="l.number">
          <button
            type="button"
            :class="{ out: l.out }"
            :aria-pressed="spokenTo === i"
            @click="coach.speakTo(i)"
          >
            <span class="no">{{ l.number }}</span>
            <span class="about"
              ><b>{{ l.title }}</b
              ><span>{{ l.where }}</span></span
            >
            <span v-if="l.rating !== null" class="num last">{{ l.rating }}</span>
          </button>
        </li>
      </ul>
      <button v-if="someAway" type="button" class="btn btn-plain waits" @click="coach.wait">
        Wait for the next to come back
      </button>
      <DayLine
        v-if="runNo && !isOut"
        :bundle="bundle"
        :knowledge="null"
        :selected="run?.id ?? null"
        @select="(id) => (selected = id)"
        @compare="(id) => (selected = id)"
      />
    </template>
    <template #default>
      <section v-if="isOut" class="card-paper" aria-labelledby="out-title">
        <h1 id="out-title">{{ `Rider ${spokenTo + 1} is out` }}</h1>
        <p>{{ `Back at ${minuteWords(at.backAtMin!)}.` }}</p>
      </section>
      <section v-else-if="isHappy" class="card-paper" aria-labelledby="happy-title">
        <h1 id="happy-title">{{ `Rider ${spokenTo + 1} is happy` }}</h1>
        <p>Left alone from here on.</p>
      </section>
      <template v-else>
        <h1 :class="{ 'visually-hidden': run }">
          {{ `Rider ${spokenTo + 1}: ${riders[spokenTo].drill.title}` }}
        </h1>
        <p v-if="!run">{{ riders[spokenTo].drill.before }}</p>
        <div class="acts">
          <button
            v-if="isOpen"
            type="button"
            class="btn btn-primary"
            :aria-disabled="sending"
            @click="sendOut"
          >
            {{ sending ? 'Going out …' : `Send out for run ${runNo + 1}` }}
          </button>
          <button v-if="run" type="button" class="btn btn-plain" @click="coach.add({ do: 'settle' })">
            Happy: leave it alone
          </button>
        </div>
        <p v-if="stopped" class="caution" role="status">{{ stopped }}</p>
        <RideTrace
          v-if="run && isLast && courses[spokenTo]"
          :course="courses[spokenTo]"
          :sections="bundle.trail.sections"
          :number="runNo"
        />
        <RiderSays
          v-if="run"
          :run="run"
          :number="runAt + 1"
          :said="at.day.runs[runAt].said"
          :as-people-talk="false"
          :sections="bundle.trail.sections"
          :strokes-mm="strokesOf(at.day)"
        />
        <AskRider
          v-if="isLast"
          :questions="askable(at.day)"
          :sags="sagsOf(at.day)"
          :looks="lookable(at.day, positionWords)"
          @ask="(q) => coach.add({ do: 'ask', question: q.id, end: q.end })"
          @read="(end) => coach.add({ do: 'read', end })"
          @look="(id) => coach.add({ do: 'look', adjusterId: id })"
        />
        <p class="soft small num">
          {{
            `Your minutes: a question ${takesMin.ask}, a count or gauge ${takesMin.look}, something turned ${takesMin.turn}, sag ${takesMin.read}.`
          }}
        </p>
      </template>
    </template>
    <template #bike>
      <header>
        <h2>{{ `On bike ${spokenTo + 1} now` }}</h2>
      </header>
      <PendingTurns
        v-if="moves.length"
        v-model:linked="linked"
        v-model:why="why"
        :turns="turns"
        @apply="apply"
        @drop="coach.drop"
      />
      <BikeRails
        :key="spokenTo"
        :units="units"
        :held="held"
        :pending="pending"
        :locked="isOut || isHappy"
        @choose="coach.choose"
        @apply="apply"
        @drop="coach.drop"
      />
    </template>
  </ThreeColumns>
</template>

<style scoped>
.card-paper {
  padding: 0.8rem 1rem;
}
.clock b {
  font-size: 1.7rem;
  margin-right: 0.5rem;
}
.lanes {
  list-style: none;
  margin: 0 0 0.8rem;
  padding: 0;
  display: grid;
  gap: 8px;
}
.lanes button {
  display: grid;
  grid-template-columns: 34px minmax(0, 1fr) auto;
  gap: 0.6rem;
  align-items: center;
  width: 100%;
  min-height: 56px;
  padding: 0.3rem 0.7rem;
  text-align: left;
  border: 1px solid var(--line);
  border-radius: var(--radius);
  background: var(--card);
  color: inherit;
}
.lanes button[aria-pressed='true'] {
  outline: 3px solid var(--sun);
  outline-offset: -1px;
}
.lanes .out {
  background: none;
  border-style: dashed;
}
.no {
  width: 34px;
  height: 34px;
  display: grid;
  place-items: center;
  border-radius: 4px;
  background: var(--moss);
  color: var(--on-moss, #fff);
  font-weight: 700;
}
.about {
  display: grid;
  line-height: 1.25;
}
.last {
  font-size: 1.4rem;
  font-weight: 700;
}
.waits {
  margin-bottom: 1rem;
}
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 0.5rem;
}
</style>
