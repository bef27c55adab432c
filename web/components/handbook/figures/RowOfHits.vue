<script setup lang="ts">
import { computed, ref } from 'vue'
import { recoveryTimeS } from '#core/damper/recovery'
import { rowOfHits } from '#core/damper/row'
import { useOwnReturn } from '../../../composables/useOwnReturn.ts'
import LineFigure, { type FigureLine } from '../../shell/LineFigure.vue'
import RangeField from '../../shell/RangeField.vue'
import FigureFrame from './FigureFrame.vue'

/** A row of bumps: click, speed, spacing and height, and whether it is back before the next one. */
const { numbers, at, most, step, omegaRadS, ratioAt, dialWords, taken } = useOwnReturn(4)
const click = ref(at)
const speedKmh = ref(32)
const spacingM = ref(1.2)
const addedPct = ref(22)
const hits = 8
const kmhPerMs = 3.6
/** Sunk by so much of the travel it feels harsh and low; by less than so much nobody could tell. */
const [harshPct, hardlyPct] = [10, 2]

const ratio = computed(() => ratioAt(click.value))
const gapS = computed(() => spacingM.value / (speedKmh.value / kmhPerMs))
const row = computed(() => rowOfHits(hits, addedPct.value, gapS.value, omegaRadS, ratio.value))
const lines = computed<FigureLine[]>(() => [
  {
    name: 'depth',
    colour: '--rear',
    width: 3,
    filled: true,
    points: row.value.map(([t, d]) => [t * 1000, d]),
  },
])
/** The axis ends at half a second: a step of a slider seldom moves it. */
const axisStepMs = 500
const wholeMs = computed(() => Math.ceil((hits * gapS.value * 1000) / axisStepMs) * axisStepMs)
const sunk = computed(() => row.value[row.value.length - 1][1])
const tells = computed(() => {
  const gap = Math.round(1000 * gapS.value)
  const back = Math.round(1000 * recoveryTimeS(omegaRadS, ratio.value))
  const end =
    sunk.value >= harshPct
      ? `the next one would begin ${Math.round(sunk.value)} % deep. That is packing: it feels harsh, and it is too slow`
      : sunk.value >= hardlyPct
        ? `the next one would begin ${Math.round(sunk.value)} % deep: it keeps up, just`
        : 'it is back before the next one'
  return `A hit every ${gap} ms, back by nine tenths in ${back} ms: ${end}.`
})
</script>

<template>
  <FigureFrame title="A row of bumps" :numbers="numbers">
    <LineFigure
      :label="`Depth over time along ${hits} hits`"
      :lines="lines"
      x-name="ms"
      y-name="% of travel"
      :x-max="wholeMs"
      :y-max="100"
      :say-x="(x) => `after ${x.toFixed(0)} ms`"
      :say-y="(y) => `${y.toFixed(0)} % deep`"
    />
    <template #sliders>
      <RangeField v-model="click" :label="dialWords(click)" :min="0" :max="most" :step="step" />
      <RangeField v-model="speedKmh" :label="`${speedKmh} km/h`" :min="8" :max="50" :step="1" />
      <RangeField
        v-model="spacingM"
        :label="`bumps ${spacingM.toFixed(1)} m apart`"
        :min="0.4"
        :max="3"
        :step="0.1"
      />
      <RangeField v-model="addedPct" :label="`each ${addedPct} % of travel`" :min="5" :max="50" :step="1" />
    </template>
    <template #tells>{{ tells }}</template>
    <template #taken>{{
      taken
        ? `${taken} The middle of the dial is taken as right. A free return between hits; trail runs tell the truth.`
        : 'A free return between hits, on a spring with usual sag; trail runs tell the truth.'
    }}</template>
  </FigureFrame>
</template>
