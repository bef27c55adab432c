import type { EChartsCoreOption } from 'echarts/core'
import type { End } from '#contract/common'
import type { AlignedPiece } from '#core/signal/align'
import type { TrailSection } from '#contract/trail'
import type { DrawableRecording } from '../composables/useRecording.ts'
import { believedEvents } from './believedEvents.ts'
import { token } from './chartTheme.ts'
import { durationWords } from './dates.ts'

const ends = ['front', 'rear'] as const
/** Shortest part of the time axis that is shown, in % of all of it. */
const minSpanPct = 0.2

/** What a mirror trace shows. */
export interface MirrorView {
  main: DrawableRecording
  other: DrawableRecording | null
  /** How the second lies under the first; without it both begin at 0. */
  pieces: readonly AlignedPiece[] | null
  sections: readonly TrailSection[]
  /** Ends of the first whose sensor's zero has moved: nothing told from their depths stands over the courses. */
  wrongDepths: readonly End[]
  /** Width of a second in view, CSS px: names of sections stand where they fit. */
  perS: number
}

/** Room around the plot, CSS px. */
export const plotInset = { left: 46, right: 24, top: 30, bottom: 46 }

/** What lies over the courses: axes, names of sections, ride heights and worst moments. */
export function mirrorOption(view: MirrorView): EChartsCoreOption {
  const { main } = view
  const ink = token('--ink')
  const soft = token('--ink-soft')
  return {
    animation: false,
    textStyle: { fontFamily: 'Atkinson Hyperlegible Next Variable', color: ink },
    // Fixed, for the courses lie under it.
    grid: { ...plotInset, outerBoundsMode: 'none' },
    tooltip: {
      trigger: 'axis',
      showContent: false,
      // A layer of its own: the pointer moves without the courses being drawn again.
      axisPointer: { type: 'line', lineStyle: { color: ink }, zlevel: 1 },
    },
    xAxis: {
      type: 'value',
      min: 0,
      max: main.recording.durationS,
      // Parts of a second are ticked only when they are seen.
      axisLabel: { color: soft, formatter: (v: number) => durationWords(v, Number.isInteger(v) ? 0 : 1) },
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
      { type: 'inside', filterMode: 'none', minSpan: minSpanPct, throttle: 0 },
      {
        type: 'slider',
        filterMode: 'none',
        minSpan: minSpanPct,
        throttle: 0,
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
    series: [{ id: 'marks', type: 'line', data: [], ...marks(view) }],
  }
}

/** What stands over the courses at this zoom. */
export const mirrorMarks = (view: MirrorView) => ({
  series: [{ id: 'marks', ...marks(view) }],
})

/** Sections, trains, ride heights, centre line and bottom-outs of the first recording. */
function marks({ main, sections, wrongDepths, perS }: MirrorView) {
  const ink = token('--ink')
  const a = main.recording.analysis
  const nameOf = (id: string | null) => sections.find((s) => s.id === id)?.name ?? ''
  const bottomOuts = believedEvents(a.events, wrongDepths).filter((e) => e.kind.endsWith('bottom-out'))
  const trains = a.events.filter((e) => e.kind === 'train' && e.value > 0.5)
  return {
    markArea: {
      silent: true,
      label: { position: 'top', distance: 4, color: ink, fontSize: 12 },
      data: [
        ...a.sections.map((s) => [
          {
            name: nameOf(s.sectionId),
            xAxis: s.startS,
            itemStyle: { color: 'transparent' },
            label: { width: Math.max(1, (s.endS - s.startS) * perS - 4), overflow: 'truncate' },
          },
          { xAxis: s.endS },
        ]),
        ...trains.map((e) => [
          { xAxis: e.startS, yAxis: e.end === 'front' ? 99 : -99, itemStyle: { color: token('--sun') } },
          { xAxis: e.endS, yAxis: e.end === 'front' ? 96 : -96 },
        ]),
      ],
    },
    markLine: {
      silent: true,
      symbol: 'none',
      lineStyle: { type: 'dashed', width: 1 },
      data: [
        ...ends.flatMap((end) => {
          const rides = a.whole[end]?.rideHeightPct
          if (rides === undefined || wrongDepths.includes(end)) return []
          const color = token(`--${end}`)
          return [
            {
              yAxis: end === 'front' ? rides : -rides,
              lineStyle: { color },
              label: {
                formatter: `${end} rides at ${rides.toFixed(0)} %`,
                position: end === 'front' ? 'insideStartTop' : 'insideStartBottom',
                color,
                backgroundColor: token('--card'),
                padding: [1, 4],
                borderRadius: 4,
              },
            },
          ]
        }),
        { yAxis: 0, lineStyle: { color: ink, type: 'solid', width: 1.6 }, label: { show: false } },
      ],
    },
    markPoint: {
      symbol: 'triangle',
      symbolSize: 11,
      label: { show: false },
      itemStyle: { color: token('--rust') },
      data: bottomOuts.map((e) => ({
        xAxis: e.startS,
        yAxis: e.end === 'front' ? 95 : -95,
        symbolRotate: e.end === 'front' ? 180 : 0,
      })),
    },
  }
}
