<script setup lang="ts">
import { computed, ref } from 'vue'
import { netPressurePsi, pressureForLoadPsi, shockAir } from '#core/spring/air'
import { useUnits } from '../../../composables/useUnits.ts'
import LineFigure, { type FigureLine } from '../../shell/LineFigure.vue'
import RangeField from '../../shell/RangeField.vue'
import FigureFrame from './FigureFrame.vue'

/** What the small chamber below the piston does to the start of the stroke, at the same sag. */
const { say } = useUnits()
const sharePct = ref(45)
const sagPct = 30
/** Load on the piston area of an invented shock. */
const loadPsi = 120
const most = 60
const small = 15
/** Where the start of the stroke is looked at, %. */
const early = 20
const shape = (pct: number) => ({ ...shockAir, negativeShare: pct / 100 })
const pressure = (pct: number) => pressureForLoadPsi(loadPsi, sagPct / 100, shape(pct))
const at = (u: number, pct: number) => netPressurePsi(u, pressure(pct), shape(pct)) / loadPsi
const curve = (pct: number) =>
  Array.from({ length: most + 1 }, (_, i) => [i, at(i / 100, pct)] as [number, number])
const lines = computed<FigureLine[]>(() => [
  { name: 'yours', colour: '--rear', width: 4, points: curve(sharePct.value) },
  { name: 'small', colour: '--rust', dashed: true, points: curve(small) },
])
const tells = computed(() => {
  const holds = (pct: number) => Math.round(100 * at(early / 100, pct))
  return `A fifth of the stroke in it holds ${holds(sharePct.value)} % of the rider’s weight, with a small one ${holds(small)} %. ${say('pressure', Math.round(pressure(sharePct.value)))} for ${sagPct} % sag.`
})
</script>

<template>
  <FigureFrame title="The chamber that pulls it in">
    <LineFigure
      label="Force over the first part of the stroke, for your negative chamber and a small one, at the same sag"
      :lines="lines"
      x-name="% of stroke"
      y-name="× the rider’s weight"
      :x-max="most"
      :y-max="2"
      :marks="[{ axis: 'x', at: sagPct, name: 'sag' }]"
      :say-x="(x) => `${x.toFixed(0)} % of stroke`"
      :say-y="(y) => `${y.toFixed(2)} ×`"
    />
    <template #sliders>
      <RangeField
        v-model="sharePct"
        :label="`Negative chamber ${sharePct} % of the room the stroke takes`"
        :min="15"
        :max="80"
        :step="5"
      />
    </template>
    <template #tells>{{ tells }}</template>
    <template #taken
      >An invented shock, slow strokes, both chambers equalised. A small one pulls hard and soon lets go:
      sucked in a little, then a hump. A larger one pulls on through the stroke: an even start, and more
      pressure for the same sag.</template
    >
  </FigureFrame>
</template>
