<script setup lang="ts">
import { computed, ref } from 'vue'
import { axlePct, linearLeverage, ratioAt, wheelTravelMm } from '#core/linkage/leverage'
import { ownLeverage } from '#core/setup/ownNumbers'
import { useOwnNumbers } from '../../../composables/useOwnNumbers.ts'
import LineFigure, { type FigureLine } from '../../shell/LineFigure.vue'
import RangeField from '../../shell/RangeField.vue'
import FigureFrame from './FigureFrame.vue'

/** Leverage from start to end of the stroke: where the wheel is, and how hard the same shock holds it there. */
const numbers = useOwnNumbers(({ bike, unitAt }) => {
  const shock = unitAt('rear')
  const found = ownLeverage(bike, shock)
  return typeof found === 'string' ? found : { ...found, sagPct: shock?.sagTargetPct ?? 30 }
})
const { own } = numbers
const strokeMm = own?.strokeMm ?? 55
const sagPct = own?.sagPct ?? 30
/** As finely as it can be slid. */
const ratio = (at: number) => Math.round(20 * ratioAt(own!.leverage, at).ratio) / 20
const start = ref(own ? ratio(0) : 2.9)
const end = ref(own ? ratio(strokeMm) : 2.4)
/** A curve with points between is drawn as it was noted. */
const curve = own && own.leverage.ratio.length > 2 ? own.leverage : null
const least = Math.min(2, start.value, end.value)
const most = Math.max(3.4, start.value, end.value)
const linkage = computed(() => linearLeverage(start.value, end.value, strokeMm))
const wheelPct = (pct: number) => axlePct(pct, strokeMm, linkage.value)
/** What the wheel feels of one and the same force of the shock, against the start. */
const holds = (pct: number) => start.value / ratioAt(linkage.value, (pct / 100) * strokeMm).ratio
const share = (of: (pct: number) => number) =>
  Array.from({ length: 101 }, (_, i) => [i, of(i)] as [number, number])
const lines = computed<FigureLine[]>(() => [
  ...(curve
    ? [
        {
          name: 'as noted',
          colour: '--pine',
          width: 2,
          points: share((i) => axlePct(i, strokeMm, curve)),
        },
      ]
    : []),
  {
    name: 'yours',
    colour: '--rear',
    width: 4,
    points: share(wheelPct),
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
  <FigureFrame title="Stroke and wheel" :numbers="numbers">
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
        :min="least"
        :max="most"
        :step="0.05"
      />
      <RangeField
        v-model="end"
        :label="`at the end ${end.toFixed(2)}`"
        :min="least"
        :max="most"
        :step="0.05"
      />
    </template>
    <template #tells>{{ tells }}</template>
    <template #taken>{{
      `${own ? 'The shock of this bike' : 'An invented shock'}, ${strokeMm} mm; straight from start to end${curve ? ', beside the curve that was noted' : ''}.`
    }}</template>
  </FigureFrame>
</template>
