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
import { LineChart, ScatterChart } from 'echarts/charts'
import { GridComponent, MarkLineComponent, TooltipComponent } from 'echarts/components'
import { init, use, type EChartsType } from 'echarts/core'
import { CanvasRenderer } from 'echarts/renderers'
import { useResizeObserver } from '@vueuse/core'
import { onMounted, onUnmounted, ref, watch } from 'vue'
import { token } from '../../support/chartTheme.ts'

use([LineChart, ScatterChart, GridComponent, MarkLineComponent, TooltipComponent, CanvasRenderer])

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

/** What is drawn besides the numbers; as long as it stays, only numbers are put in: the whole figure takes several times as long. */
let drawn = ''

function draw() {
  if (!chart) return
  const kind = JSON.stringify([
    token('--ink'),
    props.lines.map(({ points: _, ...rest }) => rest),
    props.marks?.map((m) => m.axis),
    [props.xName, props.yName, props.xMin],
  ])
  if (kind === drawn) chart.setOption(numbers())
  else chart.setOption(whole(), { notMerge: true })
  drawn = kind
}

/** The numbers of the figure, laid over what is drawn of it. */
const numbers = () => ({
  xAxis: { min: props.xMin ?? props.xFrom ?? 0, max: props.xMax },
  yAxis: { min: props.yFrom ?? 0, max: props.yMax },
  series: props.lines.map((l, i) => ({
    id: `line-${i}`,
    data: l.points,
    ...(i === 0 && props.marks?.length ? { markLine: { data: marked() } } : {}),
  })),
})
const marked = () =>
  (props.marks ?? []).map((m) => ({ name: m.name, [m.axis === 'x' ? 'xAxis' : 'yAxis']: m.at }))

function whole() {
  const soft = token('--ink-soft')
  const axis = {
    type: 'value' as const,
    nameLocation: 'middle' as const,
    nameTextStyle: { color: soft, fontSize: 13 },
    axisLine: { show: true, lineStyle: { color: soft } },
    splitLine: { lineStyle: { color: token('--line') } },
    axisLabel: { color: soft },
  }
  const put = numbers()
  return {
    animation: false,
    textStyle: { fontFamily: 'Atkinson Hyperlegible Next Variable', color: token('--ink') },
    grid: { left: 58, right: 18, top: 14, bottom: 46 },
    tooltip: {
      trigger: 'axis' as const,
      backgroundColor: token('--card'),
      borderColor: token('--line'),
      textStyle: { color: token('--ink') },
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
      ...put.xAxis,
      type: props.xMin ? ('log' as const) : ('value' as const),
      name: props.xName,
      nameGap: 28,
    },
    yAxis: { ...axis, ...put.yAxis, name: props.yName, nameGap: 40 },
    series: props.lines.map((l, i) => ({
      ...put.series[i],
      type: l.dots ? ('scatter' as const) : ('line' as const),
      symbol: 'circle',
      symbolSize: l.dotted ? 11 : l.dots ? (l.width ?? 4) : 4,
      name: l.name,
      showSymbol: l.dotted ?? false,
      lineStyle: { color: token(l.colour), width: l.width ?? 2, type: l.dashed ? 'dashed' : 'solid' },
      itemStyle: { color: token(l.colour) },
      areaStyle: l.filled ? { color: token(l.colour), opacity: 0.12 } : undefined,
      markLine:
        i === 0 && props.marks?.length
          ? {
              symbol: 'none',
              silent: true,
              animation: false,
              lineStyle: { color: soft, type: 'dotted' as const },
              label: { color: token('--ink'), position: 'insideEndTop' as const, formatter: '{b}' },
              data: marked(),
            }
          : undefined,
    })),
  }
}
onMounted(() => {
  chart = init(box.value!)
  draw()
})
onUnmounted(() => chart?.dispose())
watch(() => [props.lines, props.marks, props.xMax, props.yMax], draw)
useResizeObserver(box, () => chart?.resize())
</script>

<template>
  <figure>
    <div ref="box" class="box" role="img" :aria-label="label"></div>
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
