<script setup lang="ts">
import { computed, ref } from 'vue'
import { forkAir, netPressurePsi, strokeShareAt } from '#core/spring/air'
import { ownAir } from '#core/setup/ownNumbers'
import { energyToBottom, forceCurve } from '#core/spring/spacers'
import { useOwnNumbers } from '../../../composables/useOwnNumbers.ts'
import { useUnits } from '../../../composables/useUnits.ts'
import LineFigure, { type FigureLine } from '../../shell/LineFigure.vue'
import RangeField from '../../shell/RangeField.vue'
import FigureFrame from './FigureFrame.vue'

/** Pressure moves the whole curve, a spacer its end: force over travel, and what both do to sag and to the last hit. */
const { say } = useUnits()
const numbers = useOwnNumbers(({ now, unitAt }) => ownAir(unitAt('front'), now))
const { own } = numbers
const shape = own?.shape ?? forkAir
const first = {
  pressurePsi: own?.pressurePsi ?? 75,
  spacers: own?.spacers ?? 0,
  sagPct: own ? (own.sagPct ?? own.sagTargetPct) : 20,
}
const pressurePsi = ref(first.pressurePsi)
const spacers = ref(first.spacers)
/** A third either way, where the unit takes it. */
const least = own ? Math.max(own.leastPsi, Math.round(first.pressurePsi * 0.7)) : 55
const most = own ? Math.min(own.mostPsi, Math.round(first.pressurePsi * 1.3)) : 100
const mostSpacers = own ? own.mostSpacers : 4
const loadPsi = netPressurePsi(first.sagPct / 100, first.pressurePsi, shape, { spacers: first.spacers })
const curve = (psi: number, n: number) =>
  Array.from(forceCurve(psi, n, loadPsi, shape), (y, i) => [i, y] as [number, number])
const before = own ? 'as it stands' : 'as it came'
const lines = computed<FigureLine[]>(() => [
  { name: 'yours', colour: '--front', width: 4, points: curve(pressurePsi.value, spacers.value) },
  { name: before, colour: '--ink-soft', dashed: true, points: curve(first.pressurePsi, first.spacers) },
])
const energy = (psi: number, n: number) => energyToBottom(psi, n, loadPsi, shape)
const tells = computed(() => {
  const sag = 100 * strokeShareAt(loadPsi, pressurePsi.value, shape, { spacers: spacers.value })
  const more = Math.round(
    100 * (energy(pressurePsi.value, spacers.value) / energy(first.pressurePsi, first.spacers) - 1),
  )
  const last =
    more === 0 ? 'as much as it did' : `${Math.abs(more)} % ${more > 0 ? 'more' : 'less'} than it did`
  return `Sag ${sag.toFixed(0)} %, it was ${first.sagPct.toFixed(0)} %. To bottom it takes ${last}.`
})
const taken = computed(() => {
  if (!own)
    return 'An invented 150 mm fork, quick strokes. Find a pressure and spacers with the same sag that take a fifth more to bottom.'
  const sag =
    own.sagPct === null
      ? 'Nobody has read sag at this pressure: its target is taken for it.'
      : 'With the sag that was read at this pressure.'
  const chambers = own.ownShape ? '' : ' Its chambers are not noted: usual ones are taken.'
  return `The fork of this bike, quick strokes. ${sag}${chambers} Nothing is turned here.`
})
</script>

<template>
  <FigureFrame title="More air, or a spacer" :numbers="numbers">
    <LineFigure
      :label="`Force over the travel, with your pressure and spacers and ${before}`"
      :lines="lines"
      x-name="% of travel"
      y-name="× the rider’s weight"
      :x-max="100"
      :y-max="8"
      :say-x="(x) => `${x.toFixed(0)} % of travel`"
      :say-y="(y) => `${y.toFixed(1)} ×`"
    />
    <template #sliders>
      <RangeField
        v-model="pressurePsi"
        :label="`Pressure ${say('pressure', pressurePsi)}`"
        :min="least"
        :max="most"
        :step="1"
      />
      <RangeField
        v-if="mostSpacers > 0"
        v-model="spacers"
        :label="`${spacers} ${spacers === 1 ? 'spacer' : 'spacers'}`"
        :min="0"
        :max="mostSpacers"
        :step="1"
      />
    </template>
    <template #tells>{{ tells }}</template>
    <template #taken>{{ taken }}</template>
  </FigureFrame>
</template>
