<script setup lang="ts">
import { computed, ref } from 'vue'
import { usualRatioPerClick } from '#core/damper/clicks'
import { recoveryTimeS, shareLeft } from '#core/damper/recovery'
import { overshoot } from '#core/damper/row'
import { middleRatio, useOwnReturn } from '../../../composables/useOwnReturn.ts'
import LineFigure, { type FigureLine } from '../../shell/LineFigure.vue'
import RangeField from '../../shell/RangeField.vue'
import FigureFrame from './FigureFrame.vue'

/** Pushed down and let go: too fast, right, too slow, beside one's own click on one's own spring. */
const { numbers, own, at, most, step, omegaRadS, ratioAt, count, dialWords, taken } = useOwnReturn(7)
const click = ref(at)
/** Spring against the one that the middle click suits, %. */
const springPct = ref(100)
const shownS = 1

const omega = computed(() => omegaRadS * Math.sqrt(springPct.value / 100))
/** The same hole for the oil is a smaller ratio on a stiffer spring: ζ = c / (2·√(k·m)). */
const ratio = computed(() => ratioAt(click.value) / Math.sqrt(springPct.value / 100))
const points = (w: number, z: number) =>
  Array.from({ length: 91 }, (_, i) => {
    const t = (i / 90) * shownS
    return [t * 1000, 100 * shareLeft(t, w, z)] as [number, number]
  })
const lines = computed<FigureLine[]>(() => [
  { name: 'yours', colour: '--rear', width: 4, points: points(omega.value, ratio.value) },
  { name: 'too fast', colour: '--rust', dashed: true, points: points(omegaRadS, 0.2) },
  { name: 'right', colour: '--moss', dashed: true, points: points(omegaRadS, middleRatio) },
  { name: 'too slow', colour: '--sky', dashed: true, points: points(omegaRadS, 1.3) },
])
const tells = computed(() => {
  const z = ratio.value
  const past = Math.round(100 * overshoot(z))
  const back = Math.round(1000 * recoveryTimeS(omega.value, z))
  const feel =
    z < 0.45 ? 'too fast: it bounces on' : z > 0.8 ? 'too slow: it creeps' : 'it comes back once and rests'
  return `Damping ratio ${z.toFixed(2)}. Back by nine tenths in ${back} ms, swings past by ${past} %: ${feel}.`
})
</script>

<template>
  <FigureFrame title="Push it down, let go" :numbers="numbers">
    <LineFigure
      label="Depth that is left after the release, over time, for your click and three others"
      :lines="lines"
      x-name="ms since it was let go"
      y-name="% of the push left"
      :x-max="1000"
      :y-from="-60"
      :y-max="120"
      :say-x="(x) => `${x.toFixed(0)} ms`"
      :say-y="(y) => `${y.toFixed(0)} % left`"
    />
    <template #sliders>
      <RangeField v-model="click" :label="dialWords(click)" :min="0" :max="most" :step="step" />
      <RangeField
        v-model="springPct"
        :label="own ? `Spring ${springPct} % of what it is` : `Spring ${springPct} %`"
        :min="70"
        :max="150"
        :step="5"
      />
    </template>
    <template #tells>{{ tells }}</template>
    <template #taken>{{
      `${taken} Taken as ratio ${middleRatio} at click ${count(most / 2)}, and ${Math.round((usualRatioPerClick.low - 1) * 100)} % a click. Make the spring firmer and find the click that is right again.`.trim()
    }}</template>
  </FigureFrame>
</template>
