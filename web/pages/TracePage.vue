<script setup lang="ts">
import { computed, ref } from 'vue'
import { rideHeightTargets } from '#core/adviser/history'
import { apiBase } from '../api/client.ts'
import FiguresOfRun from '../components/trace/FiguresOfRun.vue'
import FilesDialog from '../components/importing/FilesDialog.vue'
import SectionPlacer from '../components/trace/SectionPlacer.vue'
import TraceView from '../components/trace/TraceView.vue'
import BlindCover from '../components/day/BlindCover.vue'
import BarSlots from '../components/shell/BarSlots.vue'
import { useDayPage } from '../composables/useDayPage.ts'
import { useRecording } from '../composables/useRecording.ts'
import { dayWords } from '../support/dates.ts'
import { movedZerosOf } from '../support/compareMetrics.ts'
import { figuresWords, hasFigures, recordingFacts } from '../support/figures.ts'
import DayHead from '../components/day/DayHead.vue'
import NotOpened from '../components/shell/NotOpened.vue'
import { usePageTitle } from '../composables/usePageTitle.ts'

const props = defineProps<{ id: string; runId: string }>()
const { day, bundle: b, reload, failed } = useDayPage(() => props.id)

const held = computed(() => b.value?.recordings.find((r) => r.runId === props.runId) ?? null)
const recording = computed(() => {
  const r = held.value
  return hasFigures(r) ? r : null
})
const { drawable, fault } = useRecording(recording)
const number = computed(() => day.runNumber(props.runId))
const targets = computed(() => rideHeightTargets(day.space, recording.value?.analysis.rearAt ?? 'shaft'))
const filesWords = computed(() => {
  const n = recording.value?.addedFiles.length ?? 0
  return n === 0 ? 'Add a track or file' : `${n + 1} files`
})
const guessed = computed(() => recording.value?.analysis.sectionsBy === 'share-of-length')
const moved = computed(() => (b.value ? movedZerosOf(b.value, props.runId) : []))
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
  <NotOpened v-if="failed && !b" title="This day could not be opened" @again="reload" />
  <NotOpened
    v-else-if="b && number === 0"
    title="There is no such run"
    :back="{ to: dayTo, text: 'Back to the day' }"
    @again="reload"
  />
  <div v-else-if="b && day.covered" class="page">
    <BlindCover
      what="What the suspension did"
      :run-number="day.runNumber(day.covered.id)"
      @uncover="day.uncover(day.covered.id)"
    />
  </div>
  <div v-else-if="b" class="trace-page">
    <div class="page-head">
      <h1>Run {{ number }}, what the suspension did</h1>
      <span v-if="recording" class="soft small num">{{ recordingFacts(recording) }}</span>
    </div>
    <p v-if="!recording">
      {{ held ? figuresWords(held) : 'There is no sensor file on this run.' }}
      <RouterLink :to="dayTo">Back to the day</RouterLink>
    </p>
    <TraceView
      v-else
      :recording="recording"
      :drawable="drawable"
      :fault="fault"
      :sections="b.trail.sections"
      :targets="targets"
      :number="number"
      :moved="moved"
      :picking="picking"
      @pick="(t) => (picked = t)"
    >
      <template #tools>
        <button type="button" :aria-pressed="placing" @click="placing = !placing">Place sections</button>
        <button type="button" @click="filesOpen = true">{{ filesWords }}</button>
      </template>
      <template v-if="guessed" #notes>
        <p class="soft small note">
          Sections are placed by their share of the trail’s length, a guess: the file has no speed or
          distance.
        </p>
      </template>
      <template #below>
        <SectionPlacer
          v-if="placing && drawable"
          :main="drawable"
          :trail="b.trail"
          :others="others"
          :picked="picked"
          @picking="(on) => (picking = on)"
          @placed="placed"
        />
      </template>
      <template #figures>
        <FiguresOfRun
          :analysis="recording.analysis"
          :bike-id="b.bike.id"
          :run-id="runId"
          :trail-id="b.trail.id"
          :wrong-depths="moved.map((z) => z.end)"
        />
      </template>
      <template #files>
        <p class="small">
          <a :href="`${apiBase}/recordings/${recording.id}/original`" :download="recording.fileName"
            >The file as it came ({{ recording.fileName }})</a
          >
        </p>
        <p class="small">
          Cleaned and counted:
          <a :href="`${apiBase}/recordings/${recording.id}/channels.csv`" download>{{ 'channels as CSV' }}</a>
          {{ ' · ' }}
          <a :href="`${apiBase}/recordings/${recording.id}/metrics.csv`" download>{{ 'figures as CSV' }}</a>
          {{ ' · ' }}
          <a :href="`${apiBase}/recordings/${recording.id}/metrics.json`" download>{{ 'as JSON' }}</a>
        </p>
      </template>
    </TraceView>
    <FilesDialog
      v-if="recording"
      v-model:open="filesOpen"
      :recording="recording"
      :bundle="b"
      @changed="reload"
    />
  </div>
</template>

<style scoped>
.trace-page {
  padding: 0.9rem 1.1rem 2rem;
}
</style>
