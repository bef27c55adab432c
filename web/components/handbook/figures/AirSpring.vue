<script setup lang="ts">
import { computed, ref } from 'vue'
import { forkAir, netPressurePsi, strokeShareAt } from '#core/spring/air'
import { energyToBottom, forceCurve } from '#core/spring/spacers'
import { useUnits } from '../../../composables/useUnits.ts'
import LineFigure, { type FigureLine } from '../../shell/LineFigure.vue'
import RangeField from '../../shell/RangeField.vue'
import FigureFrame from './FigureFrame.vue'

/** Pressure moves the whole curve, a spacer its end: force over travel, and what both do to sag and to the last hit. */
const { say } = useUnits()
const pressurePsi = ref(75)
const spacers = ref(0)
const first = { pressurePsi: 75, spacers: 0, sagPct: 20 }
const loadPsi = netPressurePsi(first.sagPct / 100, first.pressurePsi, forkAir, { spacers: first.spacers })
const curve = (psi: number, n: number) =>
  Array.from(forceCurve(psi, n, loadPsi, forkAir), (y, i) => [i, y] as [number, number])
const lines = computed<FigureLine[]>(() => [
  { name: 'yours', colour: '--front', width: 4, points: curve(pressurePsi.value, spacers.value) },
  { name: 'as it came', colour: '--ink-soft', dashed: true, points: curve(first.pressurePsi, first.spacers) },
])
const energy = (psi: number, n: number) => energyToBottom(psi, n, loadPsi, forkAir)
const tells = computed(() => {
  const sag = 100 * strokeShareAt(loadPsi, pressurePsi.value, forkAir, { spacers: spacers.value })
  const more = Math.round(
    100 * (energy(pressurePsi.value, spacers.value) / energy(first.pressurePsi, first.spacers) - 1),
  )
  const last =
    more === 0 ? 'as much as it did' : `${Math.abs(more)} % ${more > 0 ? 'more' : 'less'} than it did`
  return `Sag ${sag.toFixed(0)} %, it was ${first.sagPct} %. To bottom it takes ${last}.`
})
</script>

<template>
  <FigureFrame title="More air, or a spacer">
    <LineFigure
      label="Force over the travel, with your pressure and spacers and as it came"
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
        :min="55"
        :max="100"
        :step="1"
      />
      <RangeField
        v-model="spacers"
        :label="`${spacers} ${spacers === 1 ? 'spacer' : 'spacers'}`"
        :min="0"
        :max="4"
        :step="1"
      />
    </template>
    <template #tells>{{ tells }}</template>
    <template #taken
      >An invented 150 mm fork, quick strokes. Find a pressure and spacers with the same sag that take a fifth
      more to bottom.</template
    >
  </FigureFrame>
</template>
