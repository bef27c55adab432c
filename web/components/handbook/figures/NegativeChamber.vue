<script setup lang="ts">
import { computed, ref } from 'vue'
import { netPressurePsi, pressureForLoadPsi, shockAir } from '#core/spring/air'
import { ownAir } from '#core/setup/ownNumbers'
import { useOwnNumbers } from '../../../composables/useOwnNumbers.ts'
import { useUnits } from '../../../composables/useUnits.ts'
import LineFigure, { type FigureLine } from '../../shell/LineFigure.vue'
import RangeField from '../../shell/RangeField.vue'
import FigureFrame from './FigureFrame.vue'

/** What the small chamber below the piston does to the start of the stroke, at the same sag. */
const { say } = useUnits()
const numbers = useOwnNumbers(({ now, unitAt }) => {
  const air = ownAir(unitAt('rear'), now)
  if (typeof air === 'string') return air
  if (air.sagPct === null) return 'sag'
  return air.ownShape ? { ...air, sagPct: air.sagPct } : 'chambers'
})
const { own } = numbers
const sagPct = own?.sagPct ?? 30
const ownShape = own?.shape ?? shockAir
const spacers = own?.spacers ?? 0
const foundPct = Math.round(100 * ownShape.negativeShare)
const sharePct = ref(foundPct)
/** Steps that start from where it is. */
const stepPct = 5
const least = Math.min(foundPct, 10 + (foundPct % stepPct || stepPct))
const widest = Math.max(80, foundPct)
/** Load on the piston area. */
const loadPsi = own ? netPressurePsi(sagPct / 100, own.pressurePsi, ownShape, { spacers }) : 120
const most = 60
const small = 15
/** Where the start of the stroke is looked at, %. */
const early = 20
const shape = (pct: number) => ({ ...ownShape, negativeShare: pct / 100 })
const pressure = (pct: number) => pressureForLoadPsi(loadPsi, sagPct / 100, shape(pct), { spacers })
/** Share of the load that it holds at a share of the stroke, at the pressure of the same sag. */
function holder(pct: number): (u: number) => number {
  const psi = pressure(pct)
  return (u) => netPressurePsi(u, psi, shape(pct), { spacers }) / loadPsi
}
function curve(pct: number) {
  const at = holder(pct)
  return Array.from({ length: most + 1 }, (_, i) => [i, at(i / 100)] as [number, number])
}
const smallOnes = curve(small)
const lines = computed<FigureLine[]>(() => [
  { name: 'yours', colour: '--rear', width: 4, points: curve(sharePct.value) },
  { name: 'small', colour: '--rust', dashed: true, points: smallOnes },
])
const tells = computed(() => {
  const holds = (pct: number) => Math.round(100 * holder(pct)(early / 100))
  return `A fifth of the stroke in it holds ${holds(sharePct.value)} % of the rider’s weight, with a small one ${holds(small)} %. ${say('pressure', Math.round(pressure(sharePct.value)))} for ${sagPct.toFixed(0)} % sag.`
})
</script>

<template>
  <FigureFrame title="The chamber that pulls it in" :numbers="numbers">
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
        :min="least"
        :max="widest"
        :step="stepPct"
      />
    </template>
    <template #tells>{{ tells }}</template>
    <template #taken>{{
      `${own ? 'The shock of this bike' : 'An invented shock'}, slow strokes, both chambers equalised. A small one pulls hard and soon lets go: sucked in a little, then a hump. A larger one pulls on through the stroke: an even start, and more pressure for the same sag.`
    }}</template>
  </FigureFrame>
</template>
