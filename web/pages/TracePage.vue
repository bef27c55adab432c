<script setup lang="ts">
import { useMediaQuery } from '@vueuse/core'
import { computed, ref } from 'vue'
import type { RecordingEvent } from '#contract/recording'
import { rideHeightTargets } from '#core/adviser/history'
import { apiBase } from '../api/client.ts'
import DepthBySection from '../components/trace/DepthBySection.vue'
import EvidencePanel from '../components/trace/EvidencePanel.vue'
import FiguresOfRun from '../components/trace/FiguresOfRun.vue'
import FilesDialog from '../components/importing/FilesDialog.vue'
import JumpTo from '../components/trace/JumpTo.vue'
import MirrorTrace from '../components/trace/MirrorTrace.vue'
import SectionPlacer from '../components/trace/SectionPlacer.vue'
import SignalFigures from '../components/trace/SignalFigures.vue'
import BlindCover from '../components/day/BlindCover.vue'
import BarSlots from '../components/shell/BarSlots.vue'
import { useDayPage } from '../composables/useDayPage.ts'
import { useRecording } from '../composables/useRecording.ts'
import { dayWords, durationWords } from '../support/dates.ts'
import { zeroMoved, zeroMovedWords } from '#core/adviser/zeroMoved'
import { figuresWords, hasFigures } from '../support/figures.ts'
import { standsOut } from '../support/standsOut.ts'
import DayHead from '../components/day/DayHead.vue'
import { usePageTitle } from '../composables/usePageTitle.ts'

const props = defineProps<{ id: string; runId: string }>()
const { day, bundle: b, reload } = useDayPage(() => props.id)

const held = computed(() => b.value?.recordings.find((r) => r.runId === props.runId) ?? null)
const recording = computed(() => {
  const r = held.value
  return hasFigures(r) ? r : null
})
const { drawable, fault } = useRecording(recording)
const number = computed(() => day.runNumber(props.runId))
const targets = computed(() => rideHeightTargets(day.space, recording.value?.analysis.rearAt ?? 'shaft'))
const lines = computed(() =>
  recording.value && b.value
    ? standsOut(recording.value.analysis, b.value.trail.sections, targets.value)
    : [],
)
const read = ref<{ timeS: number; front: number | null; rear: number | null } | null>(null)
const isTouch = useMediaQuery('(pointer: coarse)')
const depthWords = (v: number | null) => (v === null ? '·' : `${v.toFixed(0)} %`)
const readWords = computed(() =>
  read.value
    ? `${durationWords(read.value.timeS, 2)}  front ${depthWords(read.value.front)}  rear ${depthWords(read.value.rear)}`
    : `front grows up, rear grows down, 0 to 100 % of travel; drag to move, ${isTouch.value ? 'two fingers' : 'wheel'} to zoom`,
)
const filesWords = computed(() => {
  const n = recording.value?.addedFiles.length ?? 0
  return n === 0 ? 'Add a track or file' : `${n + 1} files`
})
const facts = computed(() =>
  recording.value
    ? `${durationWords(recording.value.durationS)} min · ${Math.round(recording.value.sampleRateHz)} Hz · rear at the ${recording.value.analysis.rearAt}`
    : '',
)
const guessed = computed(() => recording.value?.analysis.sectionsBy === 'share-of-length')
const doubt = computed(() => recording.value?.analysis.sectionsDoubt ?? null)
/** Said above what rests on it. */
const wrongZeros = computed(() => {
  const run = b.value?.runs.find((r) => r.id === props.runId)
  const analysis = recording.value?.analysis
  return run && analysis ? zeroMoved({ run, analysis }, day.space).map(zeroMovedWords) : []
})
const trace = ref<InstanceType<typeof MirrorTrace>>()
const jump = (e: RecordingEvent) => trace.value?.showAt(e.startS, e.endS)
const placing = ref(false)
const picking = ref(false)
const picked = ref<number | null>(null)
const others = computed(() =>
  (b.value?.recordings ?? [])
    .filter(hasFigures)
    .filter((r) => r.id !== recording.value?.id)
    .map((r) => ({ recording: r, text: `run ${day.runNumber(r.runId)}` })),
)
async function placed() {
  placing.value = false
  await reload()
}
const filesOpen = ref(false)
const before = computed(() => {
  const counted = b.value?.runs.filter((r) => r.kind === 'counted') ?? []
  const i = counted.findIndex((r) => r.id === props.runId)
  return i > 0 ? counted[i - 1] : null
})
const compareTo = computed(() =>
  before.value
    ? { name: 'compare', params: { id: props.id }, query: { a: before.value.id, b: props.runId } }
    : null,
)
const dayTo = computed(() => ({ name: 'day', params: { id: props.id } }))
usePageTitle(() =>
  b.value
    ? `Trace of run ${day.runNumber(props.runId)}, ${b.value.rider.name}, ${dayWords(b.value.day.date)}`
    : 'Trace',
)
</script>

<template>
  <BarSlots v-if="b">
    <template #about><DayHead :bundle="b" /></template>
    <template #acts>
      <RouterLink class="btn bar-btn" :to="dayTo">Back to the day</RouterLink>
      <RouterLink v-if="compareTo" class="btn btn-sun" :to="compareTo"
        >Compare with run {{ day.runNumber(before!.id) }}</RouterLink
      >
    </template>
  </BarSlots>
  <div v-if="b && day.covered" class="page">
    <BlindCover
      what="What the suspension did"
      :run-number="day.runNumber(day.covered.id)"
      @uncover="day.uncover(day.covered.id)"
    />
  </div>
  <div v-else-if="b" class="trace-page">
    <div class="page-head">
      <h1>Run {{ number }}, what the suspension did</h1>
      <span class="soft small num">{{ facts }}</span>
    </div>
    <p v-if="!recording">
      {{ held ? figuresWords(held) : 'There is no sensor file on this run.' }}
      <RouterLink :to="dayTo">Back to the day</RouterLink>
    </p>
    <template v-else>
      <section class="card-paper stage">
        <div class="over">
          <span class="num" role="status">{{ readWords }}</span>
          <span class="tools">
            <JumpTo :events="recording.analysis.events" @show="jump" />
            <button type="button" :aria-pressed="placing" @click="placing = !placing">Place sections</button>
            <button type="button" @click="filesOpen = true">{{ filesWords }}</button>
          </span>
        </div>
        <MirrorTrace
          v-if="drawable"
          ref="trace"
          :main="drawable"
          :sections="b.trail.sections"
          :label="`Depth of front and rear over time, run ${number}`"
          :class="{ picking }"
          @read="(r) => (read = r)"
          @pick="(t) => (picked = t)"
        />
        <p v-else class="soft wait" role="status">{{ fault || 'Fetching the channels …' }}</p>
        <p v-if="doubt" class="small note doubt" role="status">{{ doubt }}</p>
        <p v-for="words in wrongZeros" :key="words" class="caution" role="status">{{ words }}</p>
        <p v-if="guessed" class="soft small note">
          Sections are placed by their share of the trail’s length, a guess: the file has no speed or
          distance.
        </p>
      </section>
      <SectionPlacer
        v-if="placing && drawable"
        :main="drawable"
        :trail="b.trail"
        :others="others"
        :picked="picked"
        @picking="(on) => (picking = on)"
        @placed="placed"
      />
      <div class="three">
        <DepthBySection :analysis="recording.analysis" :sections="b.trail.sections" :targets="targets" />
        <div class="stack">
          <FiguresOfRun
            :analysis="recording.analysis"
            :bike-id="b.bike.id"
            :run-id="runId"
            :trail-id="b.trail.id"
          />
          <section class="card-paper panel" aria-labelledby="out-title">
            <h2 id="out-title">What stands out</h2>
            <ul>
              <li v-for="l in lines" :key="l.title">
                <b :class="l.end ? `end-${l.end}` : ''">{{ l.title }}</b>
                <span class="soft">{{ l.detail }}</span>
              </li>
            </ul>
            <p v-for="i in recording.issues" :key="i.code" class="small soft">{{ i.message }}</p>
            <p class="small">
              <a :href="`${apiBase}/recordings/${recording.id}/original`" :download="recording.fileName"
                >The file as it came ({{ recording.fileName }})</a
              >
            </p>
            <p class="small">
              Cleaned and counted:
              <a :href="`${apiBase}/recordings/${recording.id}/channels.csv`" download>{{
                'channels as CSV'
              }}</a>
              {{ ' · ' }}
              <a :href="`${apiBase}/recordings/${recording.id}/metrics.csv`" download>{{
                'figures as CSV'
              }}</a>
              {{ ' · ' }}
              <a :href="`${apiBase}/recordings/${recording.id}/metrics.json`" download>{{ 'as JSON' }}</a>
            </p>
          </section>
        </div>
        <EvidencePanel :analysis="recording.analysis" />
      </div>
      <SignalFigures :analysis="recording.analysis" />
      <FilesDialog v-model:open="filesOpen" :recording="recording" :bundle="b" @changed="reload" />
    </template>
  </div>
</template>

<style scoped>
.trace-page {
  padding: 0.9rem 1.1rem 2rem;
}
.stage {
  padding: 0.5rem 0.7rem 0.2rem;
  margin-bottom: 0.9rem;
}
.over {
  display: flex;
  flex-wrap: wrap;
  justify-content: space-between;
  gap: 0.4rem;
  font-size: 0.9rem;
  min-height: 32px;
}
.tools {
  display: flex;
  flex-wrap: wrap;
  gap: 0.4rem;
}
.tools > button {
  border: 1px solid var(--line);
  background: var(--paper);
  color: var(--ink);
  border-radius: 8px;
  min-height: 36px;
  padding: 0 0.7rem;
  font-size: 0.88rem;
}
.tools > button[aria-pressed='true'] {
  background: var(--sun);
  color: #1b2723;
}
.doubt {
  color: var(--rust);
  font-weight: 600;
}
.picking {
  cursor: crosshair;
  outline: 2px solid var(--sun);
}
.wait {
  height: 340px;
  display: grid;
  place-items: center;
}
.note {
  margin: 0 0 0.3rem;
}
.three {
  display: grid;
  grid-template-columns: minmax(0, 1.45fr) minmax(0, 1fr) minmax(0, 1fr);
  gap: 0.9rem;
  align-items: start;
}
.panel {
  padding: 0.9rem 1.1rem;
}
.stack {
  display: grid;
  gap: 0.9rem;
}
ul {
  list-style: none;
  padding: 0;
  margin: 0.5rem 0;
}
li {
  display: grid;
  border-bottom: 1px solid var(--line);
  padding: 0.35rem 0;
}
@media (pointer: coarse) {
  .over > .num {
    /* Two lines, whatever is read: the trace must not jump under a finger. */
    min-height: 2.9em;
    flex-basis: 100%;
  }
  .tools > button {
    min-height: var(--touch);
  }
}
@media (max-width: 1000px) {
  .three {
    grid-template-columns: 1fr;
  }
}
</style>
