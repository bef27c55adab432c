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
import type { TrailSection } from '#contract/trail'
import { viewOf } from '#core/signal/pyramid'
import type { AlignedPiece } from '#core/signal/align'
import type { DrawableRecording } from '../../composables/useRecording.ts'
import { token } from '../../support/chartTheme.ts'
import { durationWords } from '../../support/dates.ts'

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
  label: string
}>()
const emit = defineEmits<{
  read: [at: { timeS: number; front: number | null; rear: number | null } | null]
  /** A moment was tapped. */
  pick: [timeS: number]
}>()

const box = ref<HTMLElement>()
let chart: EChartsType | null = null
const durationS = () => props.main.recording.durationS

/** Points of one end for a window of time, mirrored for the rear: one lowest and one highest for every two pixels. */
function points(r: DrawableRecording, end: 'front' | 'rear', fromS: number, toS: number): [number, number][] {
  const channel = r[end]
  if (!channel) return []
  const rate = r.recording.sampleRateHz
  const columns = (box.value?.clientWidth ?? 1000) / 2
  const margin = (toS - fromS) * 0.02
  const v = viewOf(channel.depthPct, channel.pyramid, (fromS - margin) * rate, (toS + margin) * rate, columns)
  const sign = end === 'front' ? 1 : -1
  const out: [number, number][] = []
  for (let i = 0; i < v.at.length; i++) out.push([v.at[i] / rate, sign * v.value[i]])
  return out
}

/** The second recording on the clock of the first, piece by piece; a break between pieces stays a break. */
function otherPoints(
  r: DrawableRecording,
  end: 'front' | 'rear',
  fromS: number,
  toS: number,
): [number, number][] {
  if (!props.pieces) return points(r, end, fromS, toS)
  return props.pieces.flatMap(({ startS, endS, lagS }) => {
    const from = Math.max(fromS, startS)
    const to = Math.min(toS, endS)
    if (to <= from) return []
    const moved = points(r, end, from + lagS, to + lagS).map(([t, v]): [number, number] => [t - lagS, v])
    return [...moved.filter(([t]) => t >= from && t <= to), [to, NaN] as [number, number]]
  })
}

function seriesData(fromS: number, toS: number) {
  const list = (['front', 'rear'] as const).map((end) => ({
    id: `main-${end}`,
    data: points(props.main, end, fromS, toS),
  }))
  if (props.other)
    for (const end of ['front', 'rear'] as const)
      list.push({ id: `other-${end}`, data: otherPoints(props.other, end, fromS, toS) })
  return list
}

function draw() {
  if (!chart) return
  const ink = token('--ink')
  const soft = token('--ink-soft')
  const a = props.main.recording.analysis
  const nameOf = (id: string | null) => props.sections.find((s) => s.id === id)?.name ?? ''
  const events = a.events.filter((e) => e.kind.endsWith('bottom-out'))
  const ride = (end: 'front' | 'rear') => a.whole[end]?.rideHeightPct
  const trains = a.events.filter((e) => e.kind === 'train' && e.value > 0.5)
  const style = (end: 'front' | 'rear') => ({ color: token(`--${end}`), width: 1.2 })
  chart.setOption(
    {
      animation: false,
      textStyle: { fontFamily: 'Atkinson Hyperlegible Next Variable', color: ink },
      grid: { left: 46, right: 12, top: 30, bottom: 46 },
      tooltip: {
        trigger: 'axis',
        showContent: false,
        axisPointer: { type: 'line', lineStyle: { color: ink } },
      },
      xAxis: {
        type: 'value',
        min: 0,
        max: durationS(),
        axisLabel: { color: soft, formatter: (v: number) => durationWords(v) },
        splitLine: { show: false },
        axisLine: { lineStyle: { color: soft } },
      },
      yAxis: {
        type: 'value',
        min: -100,
        max: 100,
        interval: 50,
        axisLabel: {
          color: soft,
          formatter: (v: number) => (Math.abs(v) % 50 === 0 ? `${Math.abs(v)} %` : ''),
        },
        splitLine: { lineStyle: { color: token('--line') } },
      },
      dataZoom: [
        { type: 'inside', filterMode: 'none', minSpan: 0.2 },
        {
          type: 'slider',
          filterMode: 'none',
          height: 20,
          bottom: 6,
          brushSelect: false,
          borderColor: token('--line'),
          fillerColor: 'rgba(237,179,63,0.25)',
          showDataShadow: false,
          labelFormatter: (v: number) => durationWords(v),
          textStyle: { color: soft },
          handleStyle: { color: token('--card'), borderColor: soft },
        },
      ],
      series: [
        {
          id: 'main-front',
          type: 'line',
          symbol: 'none',
          lineStyle: style('front'),
          itemStyle: { color: token('--front') },
          areaStyle: { color: token('--front'), opacity: 0.3, origin: 0 },
          markArea: {
            silent: true,
            label: { position: 'top', distance: 4, color: ink, fontSize: 12 },
            data: a.sections.map((s, i) => [
              {
                name: nameOf(s.sectionId),
                xAxis: s.startS,
                itemStyle: { color: i % 2 ? token('--paper-deep') : 'transparent', opacity: 0.7 },
              },
              { xAxis: s.endS },
            ]),
          },
          markLine: {
            silent: true,
            symbol: 'none',
            lineStyle: { type: 'dashed', width: 1 },
            data: [
              ...(ride('front') === undefined
                ? []
                : [
                    {
                      yAxis: ride('front'),
                      lineStyle: { color: token('--front') },
                      label: {
                        formatter: `front rides at ${ride('front')!.toFixed(0)} %`,
                        position: 'insideStartTop',
                        color: token('--front'),
                      },
                    },
                  ]),
              ...(ride('rear') === undefined
                ? []
                : [
                    {
                      yAxis: -ride('rear')!,
                      lineStyle: { color: token('--rear') },
                      label: {
                        formatter: `rear rides at ${ride('rear')!.toFixed(0)} %`,
                        position: 'insideStartBottom',
                        color: token('--rear'),
                      },
                    },
                  ]),
              { yAxis: 0, lineStyle: { color: ink, type: 'solid', width: 1.6 }, label: { show: false } },
            ],
          },
          markPoint: {
            symbol: 'triangle',
            symbolSize: 11,
            label: { show: false },
            itemStyle: { color: token('--rust') },
            data: events.map((e) => ({
              xAxis: e.startS,
              yAxis: e.end === 'front' ? 95 : -95,
              symbolRotate: e.end === 'front' ? 180 : 0,
            })),
          },
        },
        {
          id: 'main-rear',
          type: 'line',
          symbol: 'none',
          lineStyle: style('rear'),
          itemStyle: { color: token('--rear') },
          areaStyle: { color: token('--rear'), opacity: 0.28, origin: 0 },
          markArea: {
            silent: true,
            data: trains.map((e) => [
              { xAxis: e.startS, yAxis: e.end === 'front' ? 99 : -99, itemStyle: { color: token('--sun') } },
              { xAxis: e.endS, yAxis: e.end === 'front' ? 96 : -96 },
            ]),
          },
        },
        {
          id: 'other-front',
          type: 'line',
          symbol: 'none',
          lineStyle: { color: ink, width: 1, opacity: 0.75 },
          data: [],
        },
        {
          id: 'other-rear',
          type: 'line',
          symbol: 'none',
          lineStyle: { color: ink, width: 1, opacity: 0.75 },
          data: [],
        },
      ],
    },
    { notMerge: true },
  )
  chart.setOption({ series: seriesData(0, durationS()) })
}

let frame = 0
function rezoom() {
  // One redraw a frame, whatever the wheel does.
  if (frame) return
  frame = requestAnimationFrame(() => {
    frame = 0
    const zoom = (chart?.getOption() as { dataZoom?: { start: number; end: number }[] })?.dataZoom?.[0]
    if (!zoom || !chart) return
    chart.setOption({ series: seriesData((zoom.start / 100) * durationS(), (zoom.end / 100) * durationS()) })
  })
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
  chart.on('datazoom', rezoom)
  chart.getZr().on('mousemove', readAt)
  chart.getZr().on('click', tapAt)
  chart.getZr().on('globalout', () => emit('read', null))
  draw()
  watcher = new MutationObserver(draw)
  watcher.observe(document.documentElement, { attributes: true, attributeFilter: ['data-bs-theme'] })
})
onUnmounted(() => {
  watcher?.disconnect()
  cancelAnimationFrame(frame)
  chart?.dispose()
})
useResizeObserver(box, () => {
  chart?.resize()
  rezoom()
})
watch(() => [props.main, props.other, props.pieces], draw)
</script>

<template><div ref="box" class="trace" role="img" :aria-label="label"></div></template>

<style scoped>
.trace {
  height: 340px;
  width: 100%;
}
</style>
