<script lang="ts">
/** One line of a figure; colours and widths by token names, so that charts and page look alike. */
export interface FigureLine {
  name: string
  points: [number, number][]
  colour: string
  width?: number
  dashed?: boolean
  /** Fills below the line. */
  filled?: boolean
  /** Points alone, no line; as large as the width says. */
  dots?: boolean
  /** A point on every value of the line. */
  dotted?: boolean
}
/** A value to mark on an axis. */
export interface FigureMark {
  axis: 'x' | 'y'
  at: number
  name: string
}
</script>

<script setup lang="ts">
import { LineChart } from 'echarts/charts'
import { GridComponent, TooltipComponent } from 'echarts/components'
import { init, use, type EChartsType } from 'echarts/core'
import { CanvasRenderer } from 'echarts/renderers'
import { useResizeObserver } from '@vueuse/core'
import { onMounted, onUnmounted, ref, watch } from 'vue'
import { token } from '../../support/chartTheme.ts'
import { lineLayer, type Frame } from '../../support/lineLayer.ts'

use([LineChart, GridComponent, TooltipComponent, CanvasRenderer])

const props = defineProps<{
  label: string
  lines: FigureLine[]
  marks?: FigureMark[]
  xName: string
  yName: string
  xMax: number
  /** Left end; above 0 on a logarithmic axis, which is then meant. */
  xMin?: number
  /** Left end of a plain axis; 0 when left out. */
  xFrom?: number
  yMax?: number
  /** Lower end; 0 when left out. */
  yFrom?: number
  /** A value of either axis with its unit, for the read-out. */
  sayX: (x: number) => string
  sayY: (y: number) => string
}>()
const box = ref<HTMLElement>()
let chart: EChartsType | null = null
let layer: ReturnType<typeof lineLayer> | null = null

const room = { left: 58, right: 18, top: 14, bottom: 46 }
const markedDotPx = 11
const plainDotPx = 4

/** What the chart has drawn: its axes, and lines that nobody sees, for the read-out alone. */
let drawnKind = ''
let drawnRange = ''
/** The read-out knows other points than are drawn: it catches up when somebody points at it. */
let isBehind = false
let colours: { ink: string; soft: string; lines: string[] } | null = null

function draw() {
  if (!chart) return
  const kind = JSON.stringify([
    token('--ink'),
    props.lines.map(({ points: _, ...rest }) => rest),
    props.marks?.map((m) => m.axis),
    [props.xName, props.yName, props.xMin],
  ])
  const range = JSON.stringify([props.xMin, props.xFrom, props.xMax, props.yFrom, props.yMax])
  if (kind !== drawnKind) {
    colours = {
      ink: token('--ink'),
      soft: token('--ink-soft'),
      lines: props.lines.map((l) => token(l.colour)),
    }
    chart.setOption(axesAndLines(), { notMerge: true })
    isBehind = false
  } else if (range !== drawnRange || props.yMax === undefined) {
    chart.setOption({ ...ranges(), series: points() })
    isBehind = false
  } else isBehind = true
  drawnKind = kind
  drawnRange = range
  drawLines()
}

function catchUp() {
  if (isBehind) chart?.setOption({ series: points() })
  isBehind = false
}

/** Lines and marks where the axes have their values. */
function drawLines() {
  if (!chart || !colours) return
  const { lines, marks } = props
  const { x, y } = pixels(chart)
  const frame: Frame = {
    x: room.left,
    y: room.top,
    width: chart.getWidth() - room.left - room.right,
    height: chart.getHeight() - room.top - room.bottom,
  }
  const { ink, soft, lines: drawnIn } = colours
  layer ??= lineLayer(chart.getZr())
  layer.draw(
    drawnKind,
    frame,
    lines.map((l, i) => ({
      points: l.points.map(([a, b]): [number, number] => [x(a), y(b)]),
      colour: drawnIn[i],
      width: l.width ?? 2,
      dashed: l.dashed ?? false,
      filled: l.filled ?? false,
      dots: l.dots ?? false,
      dotPx: l.dotted ? markedDotPx : l.dots ? (l.width ?? plainDotPx) : 0,
    })),
    (marks ?? []).map((m) => ({
      across: m.axis,
      at: m.axis === 'x' ? x(m.at) : y(m.at),
      name: m.name,
    })),
    { ink, soft },
  )
}

/** From values to pixels, by two points of either axis. */
function pixels(of: EChartsType) {
  const scale = props.xMin ? Math.log : (v: number) => v
  const [x0, x1] = [props.xMin ?? props.xFrom ?? 0, props.xMax]
  const [y0, y1] = [props.yFrom ?? 0, props.yMax ?? 1]
  const at = (v: [number, number]) => of.convertToPixel({ gridIndex: 0 }, v)
  const [[left, bottom], [right, top]] = [at([x0, y0]), at([x1, y1])]
  const perX = (right - left) / (scale(x1) - scale(x0))
  const perY = (top - bottom) / (y1 - y0)
  return {
    x: (v: number) => left + perX * (scale(v) - scale(x0)),
    y: (v: number) => bottom + perY * (v - y0),
  }
}

const ranges = () => ({
  xAxis: { min: props.xMin ?? props.xFrom ?? 0, max: props.xMax },
  yAxis: { min: props.yFrom ?? 0, max: props.yMax },
})
const points = () => props.lines.map((l, i) => ({ id: `line-${i}`, data: l.points }))

function axesAndLines() {
  const { ink, soft, lines: drawnIn } = colours!
  const axis = {
    type: 'value' as const,
    nameLocation: 'middle' as const,
    nameTextStyle: { color: soft, fontSize: 13 },
    axisLine: { show: true, lineStyle: { color: soft } },
    splitLine: { lineStyle: { color: token('--line') } },
    axisLabel: { color: soft },
  }
  const range = ranges()
  return {
    animation: false,
    textStyle: { fontFamily: 'Atkinson Hyperlegible Next Variable', color: ink },
    grid: room,
    tooltip: {
      trigger: 'axis' as const,
      backgroundColor: token('--card'),
      borderColor: token('--line'),
      textStyle: { color: ink },
      formatter: (rows: unknown) => {
        const list = rows as { seriesName: string; value: [number, number] }[]
        return [
          props.sayX(list[0].value[0]),
          ...list.map((r) => `${r.seriesName}: ${props.sayY(r.value[1])}`),
        ].join('<br>')
      },
    },
    xAxis: {
      ...axis,
      ...range.xAxis,
      type: props.xMin ? ('log' as const) : ('value' as const),
      name: props.xName,
      nameGap: 28,
    },
    yAxis: { ...axis, ...range.yAxis, name: props.yName, nameGap: 40 },
    series: points().map((s, i) => ({
      ...s,
      type: 'line' as const,
      name: props.lines[i].name,
      symbol: 'circle',
      symbolSize: plainDotPx,
      showSymbol: false,
      lineStyle: { opacity: 0 },
      itemStyle: { color: drawnIn[i] },
    })),
  }
}
onMounted(() => {
  chart = init(box.value!)
  draw()
})
onUnmounted(() => chart?.dispose())
watch(() => [props.lines, props.marks, props.xMax, props.yMax], draw)
useResizeObserver(box, () => {
  chart?.resize()
  drawLines()
})
</script>

<template>
  <figure>
    <div
      ref="box"
      class="box"
      role="img"
      :aria-label="label"
      @pointerenter="catchUp"
      @pointermove.capture="catchUp"
      @pointerdown.capture="catchUp"
    ></div>
    <figcaption>
      <span v-for="l in lines" :key="l.name" class="key"
        ><i
          :style="{
            borderTop: `${l.width ?? 2}px ${l.dashed ? 'dashed' : 'solid'} var(${l.colour})`,
          }"
        ></i>
        {{ l.name }}</span
      >
    </figcaption>
  </figure>
</template>

<style scoped>
figure {
  margin: 0;
}
.box {
  height: 250px;
}
figcaption {
  display: flex;
  flex-wrap: wrap;
  gap: 0.2rem 1.1rem;
  font-size: 0.9rem;
}
.key {
  display: inline-flex;
  align-items: center;
  gap: 0.4rem;
}
.key i {
  display: inline-block;
  width: 26px;
  height: 0;
}
</style>
