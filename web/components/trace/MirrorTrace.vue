<script setup lang="ts">
import { LineChart } from 'echarts/charts'
import {
  DataZoomComponent,
  GridComponent,
  MarkAreaComponent,
  MarkLineComponent,
  MarkPointComponent,
  TooltipComponent,
} from 'echarts/components'
import { init, use, type EChartsType } from 'echarts/core'
import { CanvasRenderer } from 'echarts/renderers'
import { useResizeObserver } from '@vueuse/core'
import { onMounted, onUnmounted, ref, watch } from 'vue'
import type { End } from '#contract/common'
import type { TrailSection } from '#contract/trail'
import type { AlignedPiece } from '#core/signal/align'
import type { DrawableRecording } from '../../composables/useRecording.ts'
import { paintCourses } from '../../support/courseLayer.ts'
import { mirrorMarks, mirrorOption, plotInset, type MirrorView } from '../../support/mirrorOption.ts'

use([
  LineChart,
  GridComponent,
  TooltipComponent,
  DataZoomComponent,
  MarkAreaComponent,
  MarkLineComponent,
  MarkPointComponent,
  CanvasRenderer,
])

/** Front depth up, rear depth down from one centre line. A second recording is drawn as outlines over it. */
const props = defineProps<{
  main: DrawableRecording
  other?: DrawableRecording | null
  /** How the second lies under the first; without it both begin at 0. */
  pieces?: readonly AlignedPiece[] | null
  sections: TrailSection[]
  /** Ends of the first whose sensor's zero has moved. */
  wrongDepths?: readonly End[]
  label: string
}>()
const emit = defineEmits<{
  read: [at: { timeS: number; front: number | null; rear: number | null } | null]
  /** A moment was tapped. */
  pick: [timeS: number]
}>()

const box = ref<HTMLElement>()
const picture = ref<HTMLCanvasElement>()
let chart: EChartsType | null = null
const durationS = () => props.main.recording.durationS
const view = (): MirrorView => ({
  main: props.main,
  other: props.other ?? null,
  pieces: props.pieces ?? null,
  sections: props.sections,
  wrongDepths: props.wrongDepths ?? [],
  perS: named,
})

/** Width of a second for which the names of sections were fitted, px. */
let named = 0
let painted = ''
/** Paints the courses where the chart's axes are now. The chart also tells of frames in which they stayed. */
function paint() {
  if (!chart || !picture.value) return
  const [timeZero, depthZero] = chart.convertToPixel('grid', [0, 0])
  const [timeOne, depthHundred] = chart.convertToPixel('grid', [1, 100])
  const axes = {
    timeZero: timeZero - plotInset.left,
    perS: timeOne - timeZero,
    depthZero: depthZero - plotInset.top,
    perPct: (depthHundred - depthZero) / 100,
  }
  refit(axes.perS)
  const now = JSON.stringify([axes, picture.value.clientWidth, window.devicePixelRatio])
  if (now === painted) return
  painted = now
  paintCourses(picture.value, axes, view())
}
/** Names of sections stand where they fit; another zoom has other room. */
function refit(perS: number) {
  if (Math.abs(perS / named - 1) < 0.02) return
  named = perS
  // Not while the chart is still drawing.
  requestAnimationFrame(() => chart?.setOption(mirrorMarks(view())))
}
function draw() {
  painted = ''
  named ||= (box.value!.clientWidth - plotInset.left - plotInset.right) / durationS()
  chart?.setOption(mirrorOption(view()), { notMerge: true })
}
function readAt(e: { offsetX: number; offsetY: number }) {
  if (!chart?.containPixel('grid', [e.offsetX, e.offsetY])) return emit('read', null)
  const [timeS] = chart.convertFromPixel('grid', [e.offsetX, e.offsetY]) as [number, number]
  const at = (end: 'front' | 'rear') => {
    const v = props.main[end]?.depthPct[Math.round(timeS * props.main.recording.sampleRateHz)]
    return v === undefined || Number.isNaN(v) ? null : v
  }
  emit('read', { timeS, front: at('front'), rear: at('rear') })
}
function tapAt(e: { offsetX: number; offsetY: number }) {
  if (!chart?.containPixel('grid', [e.offsetX, e.offsetY])) return
  const [timeS] = chart.convertFromPixel('grid', [e.offsetX, e.offsetY]) as [number, number]
  emit('pick', Math.min(durationS(), Math.max(0, timeS)))
}
/** Brings a moment into view, for "jump to". */
function showAt(startS: number, endS: number) {
  const margin = Math.max(1, (endS - startS) * 0.5)
  chart?.dispatchAction({
    type: 'dataZoom',
    startValue: Math.max(0, startS - margin),
    endValue: Math.min(durationS(), endS + margin),
  })
}
defineExpose({ showAt })

let watcher: MutationObserver | null = null
onMounted(() => {
  chart = init(box.value!)
  chart.on('rendered', paint)
  chart.getZr().on('mousemove', readAt)
  chart.getZr().on('click', tapAt)
  chart.getZr().on('globalout', () => emit('read', null))
  draw()
  watcher = new MutationObserver(draw)
  watcher.observe(document.documentElement, { attributes: true, attributeFilter: ['data-bs-theme'] })
})
onUnmounted(() => {
  watcher?.disconnect()
  chart?.dispose()
  chart = null
})
useResizeObserver(box, () => chart?.resize())
watch(
  () => [props.main, props.other, props.pieces] as const,
  ([main], [before]) => {
    // Read again in the background it stays where somebody looks.
    const isSame = main.recording.id === before.recording.id
    const [seen] = isSame ? ((chart?.getOption().dataZoom ?? []) as { start: number; end: number }[]) : []
    draw()
    if (seen) chart?.dispatchAction({ type: 'dataZoom', start: seen.start, end: seen.end })
  },
)
</script>

<template>
  <div class="trace" role="img" :aria-label="label">
    <canvas
      ref="picture"
      :style="{
        left: `${plotInset.left}px`,
        top: `${plotInset.top}px`,
        width: `calc(100% - ${plotInset.left + plotInset.right}px)`,
        height: `calc(100% - ${plotInset.top + plotInset.bottom}px)`,
      }"
    />
    <div ref="box" class="over" />
  </div>
</template>

<style scoped>
.trace {
  position: relative;
  height: 340px;
  width: 100%;
}
.trace canvas,
.over {
  position: absolute;
}
.over {
  inset: 0;
  /* Sideways and two fingers are the trace's, up and down are the page's. */
  touch-action: pan-y;
}
@media (max-width: 720px) {
  .trace {
    height: 400px;
  }
}
</style>
