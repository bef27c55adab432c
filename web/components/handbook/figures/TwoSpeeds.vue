<script setup lang="ts">
import { computed, ref } from 'vue'
import { usualRatioPerClick } from '#core/damper/clicks'
import { dampForceN } from '#core/damper/force'
import LineFigure, { type FigureLine } from '../../shell/LineFigure.vue'
import RangeField from '../../shell/RangeField.vue'
import FigureFrame from './FigureFrame.vue'

/** Two dials of one damper: which speeds of the shaft each of them is felt at. */
const low = ref(8)
const high = ref(5)
const middle = { low: 8, high: 5 }
const usual = { lowNsPerM: 900, highNsPerM: 320, kneeMS: 0.35 }
const fastest = 2
const slope = (l: number, h: number) => ({
  ...usual,
  lowNsPerM: usual.lowNsPerM * usualRatioPerClick.low ** (middle.low - l),
  highNsPerM: usual.highNsPerM * usualRatioPerClick.high ** (middle.high - h),
})
const curve = (l: number, h: number) =>
  Array.from({ length: 81 }, (_, i) => {
    const v = (fastest * i) / 80
    return [v, dampForceN(slope(l, h), v)] as [number, number]
  })
const lines = computed<FigureLine[]>(() => [
  { name: 'yours', colour: '--front', width: 4, points: curve(low.value, high.value) },
  { name: 'middle', colour: '--ink-soft', dashed: true, points: curve(middle.low, middle.high) },
])
const changed = (v: number) => {
  const by = dampForceN(slope(low.value, high.value), v) / dampForceN(slope(middle.low, middle.high), v) - 1
  const pct = Math.round(100 * by)
  return pct === 0 ? 'as before' : `${Math.abs(pct)} % ${pct > 0 ? 'firmer' : 'softer'}`
}
const tells = computed(
  () => `In a berm (0.2 m/s) ${changed(0.2)}; on a square edge (1.6 m/s) ${changed(1.6)}.`,
)
</script>

<template>
  <FigureFrame title="Two dials, two speeds">
    <LineFigure
      label="Damping force over the speed of the shaft, with your clicks and with both dials in the middle"
      :lines="lines"
      x-name="m/s of the shaft"
      y-name="N"
      :x-max="fastest"
      :y-max="1800"
      :say-x="(x) => `${x.toFixed(2)} m/s`"
      :say-y="(y) => `${y.toFixed(0)} N`"
    />
    <template #sliders>
      <RangeField
        v-model="low"
        :label="`Low-speed compression ${low} clicks from closed`"
        :min="0"
        :max="16"
        :step="1"
      />
      <RangeField
        v-model="high"
        :label="`High-speed compression ${high} clicks from closed`"
        :min="0"
        :max="10"
        :step="1"
      />
    </template>
    <template #tells>{{ tells }}</template>
    <template #taken>{{
      `An invented fork; the plates begin to bend at ${usual.kneeMS} m/s. What low speed adds is carried along at high speed; what high speed adds is not felt in a berm.`
    }}</template>
  </FigureFrame>
</template>
