<script setup lang="ts">
import { computed, ref } from 'vue'
import { usualRatioPerClick } from '#core/damper/clicks'
import type { End } from '#contract/common'
import { countBaseWords, toCount } from '#core/adjusters/count'
import { dampForceN } from '#core/damper/force'
import { ownCompression, type OwnDial } from '#core/setup/ownNumbers'
import { useOwnNumbers } from '../../../composables/useOwnNumbers.ts'
import LineFigure, { type FigureLine } from '../../shell/LineFigure.vue'
import RangeField from '../../shell/RangeField.vue'
import FigureFrame from './FigureFrame.vue'

/** Two dials of one damper: which speeds of the shaft each of them is felt at. */
const numbers = useOwnNumbers(({ now, unitAt }) => {
  const end = (['front', 'rear'] as End[]).find((e) => typeof ownCompression(unitAt(e), now) !== 'string')
  const found = ownCompression(unitAt(end ?? 'front'), now)
  return typeof found === 'string' ? found : { ...found, end: end! }
})
const { own } = numbers
/** What both curves are held against: where they stand on the bike, or the middle of invented dials. */
const middle = { low: own?.low.value ?? 8, high: own?.high.value ?? 5 }
const before = own ? 'as it stands' : 'middle'
const low = ref(middle.low)
const high = ref(middle.high)
const counted = (dial: OwnDial | undefined, click: number) =>
  dial
    ? `${toCount(dial.adjuster, click)} clicks ${countBaseWords(dial.adjuster)}`
    : `${click} clicks from closed`
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
  { name: before, colour: '--ink-soft', dashed: true, points: curve(middle.low, middle.high) },
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
  <FigureFrame title="Two dials, two speeds" :numbers="numbers">
    <LineFigure
      label="Damping force over the speed of the shaft, with your clicks and with both dials as they were"
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
        :label="`Low-speed compression ${counted(own?.low, low)}`"
        :min="0"
        :max="own?.low.adjuster.clicks ?? 16"
        :step="own?.low.adjuster.step ?? 1"
      />
      <RangeField
        v-model="high"
        :label="`High-speed compression ${counted(own?.high, high)}`"
        :min="0"
        :max="own?.high.adjuster.clicks ?? 10"
        :step="own?.high.adjuster.step ?? 1"
      />
    </template>
    <template #tells>{{ tells }}</template>
    <template #taken>{{
      `${own ? `The two dials of the ${own.end} of this bike, from where they were counted to stand; what they damp there is taken as usual` : 'An invented fork'}; the plates begin to bend at ${usual.kneeMS} m/s. What low speed adds is carried along at high speed; what high speed adds is not felt in a berm.`
    }}</template>
  </FigureFrame>
</template>
