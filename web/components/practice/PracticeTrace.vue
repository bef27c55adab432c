<script setup lang="ts">
import { computed, shallowRef, watch } from 'vue'
import type { RouteLocationRaw } from 'vue-router'
import { rideHeightTargets, spaceOfDay } from '#core/adviser/history'
import { zeroMoved } from '#core/adviser/zeroMoved'
import { drawableOf, type DrawableRecording } from '../../composables/useRecording.ts'
import { usePractice } from '../../stores/practice.ts'
import { recordingFacts } from '../../support/figures.ts'
import BarSlots from '../shell/BarSlots.vue'
import TraceView from '../trace/TraceView.vue'
import RideFigures from './RideFigures.vue'

/** A ride of practice as its sensors kept it, looked at like any other. */
const props = defineProps<{
  number: number
  /** The same of the ride before and after; null: there is none. */
  before: RouteLocationRaw | null
  after: RouteLocationRaw | null
  back: RouteLocationRaw
}>()
const practice = usePractice()
const b = computed(() => practice.bundle!)
const drawable = shallowRef<DrawableRecording | null>(null)
const fault = shallowRef('')
watch(
  () => props.number,
  async (number, _, onCleanup) => {
    let isWanted = true
    onCleanup(() => (isWanted = false))
    drawable.value = null
    fault.value = ''
    try {
      const { recording, depthPct } = await practice.trace(number)
      if (isWanted) drawable.value = drawableOf(recording, depthPct)
    } catch (e) {
      if (isWanted)
        fault.value = `The sensors of this ride could not be read (${e instanceof Error ? e.message : String(e)}). What the rider says stands.`
    }
  },
  { immediate: true },
)
const recording = computed(() => drawable.value?.recording ?? null)
const targets = computed(() =>
  rideHeightTargets(spaceOfDay(b.value), recording.value?.analysis.rearAt ?? 'axle'),
)
const moved = computed(() => {
  const run = b.value.runs[props.number - 1]
  return run && recording.value ? zeroMoved({ run, ...recording.value }, spaceOfDay(b.value)) : []
})
/** Figures are worked out in their turn; this ride's are here already. */
const figuresBefore = computed(
  () => practice.recordings.find((r) => r.runId === b.value.runs[props.number - 2]?.id) ?? null,
)
</script>

<template>
  <BarSlots>
    <template #acts>
      <RouterLink class="btn bar-btn" :to="back">Back to practice</RouterLink>
      <RouterLink v-if="before" class="btn bar-btn" :to="before">{{ `Run ${number - 1}` }}</RouterLink>
      <RouterLink v-if="after" class="btn bar-btn" :to="after">{{ `Run ${number + 1}` }}</RouterLink>
    </template>
  </BarSlots>
  <div class="trace-page">
    <div class="page-head">
      <h1>{{ `Run ${number}, what the suspension did` }}</h1>
      <span v-if="recording" class="soft small num">{{ recordingFacts(recording) }}</span>
    </div>
    <p v-if="fault" class="caution" role="alert">{{ fault }}</p>
    <p v-else-if="!drawable || !recording" class="soft" role="status">The ride is being read …</p>
    <TraceView
      v-else
      :recording="recording"
      :drawable="drawable"
      fault=""
      :sections="b.trail.sections"
      :targets="targets"
      :number="number"
      :moved="moved"
    >
      <template #figures>
        <RideFigures :recording="recording" :before="figuresBefore" :number="number" fault="" :wrong="[]" />
      </template>
    </TraceView>
  </div>
</template>

<style scoped>
.trace-page {
  padding: 0.9rem 1.1rem 2rem;
}
</style>
