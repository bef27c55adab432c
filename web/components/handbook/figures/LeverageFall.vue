<script setup lang="ts">
import { computed, ref } from 'vue'
import { axlePct, linearLeverage, ratioAt, wheelTravelMm } from '#core/linkage/leverage'
import LineFigure, { type FigureLine } from '../../shell/LineFigure.vue'
import RangeField from '../../shell/RangeField.vue'
import FigureFrame from './FigureFrame.vue'

/** Leverage from start to end of the stroke: where the wheel is, and how hard the same shock holds it there. */
const start = ref(2.9)
const end = ref(2.4)
const strokeMm = 55
const sagPct = 30
const linkage = computed(() => linearLeverage(start.value, end.value, strokeMm))
const wheelPct = (pct: number) => axlePct(pct, strokeMm, linkage.value)
/** What the wheel feels of one and the same force of the shock, against the start. */
const holds = (pct: number) => start.value / ratioAt(linkage.value, (pct / 100) * strokeMm).ratio
const lines = computed<FigureLine[]>(() => [
  {
    name: 'yours',
    colour: '--rear',
    width: 4,
    points: Array.from({ length: 101 }, (_, i) => [i, wheelPct(i)] as [number, number]),
  },
  {
    name: 'the same ratio all along',
    colour: '--ink-soft',
    dashed: true,
    points: [
      [0, 0],
      [100, 100],
    ],
  },
])
const tells = computed(() => {
  const travel = Math.round(wheelTravelMm(strokeMm, linkage.value))
  const by = Math.round(100 * (holds(100) - 1))
  const deep =
    by === 0
      ? 'holds the wheel alike from start to end'
      : `holds the wheel ${Math.abs(by)} % ${by > 0 ? 'harder' : 'less'} at the end than at the start`
  return `${travel} mm at the wheel. ${sagPct} % of the stroke is ${wheelPct(sagPct).toFixed(1)} % of it; the same force of the shock ${deep}.`
})
</script>

<template>
  <FigureFrame title="Stroke and wheel">
    <LineFigure
      label="Share of the wheel travel over the share of the stroke"
      :lines="lines"
      x-name="% of the stroke"
      y-name="% of wheel travel"
      :x-max="100"
      :y-max="100"
      :marks="[{ axis: 'x', at: sagPct, name: 'sag' }]"
      :say-x="(x) => `${x.toFixed(0)} % of the stroke`"
      :say-y="(y) => `${y.toFixed(1)} % of wheel travel`"
    />
    <template #sliders>
      <RangeField
        v-model="start"
        :label="`Leverage at the start ${start.toFixed(2)}`"
        :min="2"
        :max="3.4"
        :step="0.05"
      />
      <RangeField v-model="end" :label="`at the end ${end.toFixed(2)}`" :min="2" :max="3.4" :step="0.05" />
    </template>
    <template #tells>{{ tells }}</template>
    <template #taken>{{ `An invented shock of ${strokeMm} mm; straight from start to end.` }}</template>
  </FigureFrame>
</template>
