<script setup lang="ts">
import { computed, ref } from 'vue'
import { netPressurePsi, shockAir, strokeShareAt } from '#core/spring/air'
import { sagWindowPct } from '#core/spring/sag'
import SagRuler from '../../bench/SagRuler.vue'
import RangeField from '../../shell/RangeField.vue'
import FigureFrame from './FigureFrame.vue'
import { useUnits } from '../../../composables/useUnits.ts'

/** A rider on a shock: where the ring comes to stand, and how fine a millimetre is. */
const massKg = ref(88)
const pressurePsi = ref(165)
const strokeMm = 55
const targetPct = 30
const { say } = useUnits()
/** An invented shock that holds 80 kg at 30 % with 180 psi; twice the rider is twice the load. */
const known = { massKg: 80, pressurePsi: 180, sagPct: 30 }
const loadOfKnown = netPressurePsi(known.sagPct / 100, known.pressurePsi, shockAir)
const sagPct = computed(
  () => 100 * strokeShareAt((loadOfKnown * massKg.value) / known.massKg, pressurePsi.value, shockAir),
)
const tells = computed(() => {
  const mm = (sagPct.value / 100) * strokeMm
  const off = sagPct.value - targetPct
  const verdict =
    Math.abs(off) <= sagWindowPct(strokeMm)
      ? 'as near as a ring can be read'
      : off > 0
        ? 'deeper than the target: more pressure'
        : 'higher than the target: less pressure'
  return `${say('length', Math.round(mm))} of ${say('length', strokeMm)} is ${sagPct.value.toFixed(1)} %: ${verdict}.`
})
</script>

<template>
  <FigureFrame title="Where the ring comes to stand">
    <SagRuler end="rear" :stroke-mm="strokeMm" :target-pct="targetPct" :sag-pct="sagPct" />
    <template #sliders>
      <RangeField
        v-model="massKg"
        :label="`Rider with kit ${say('mass', massKg)}`"
        :min="45"
        :max="120"
        :step="1"
      />
      <RangeField
        v-model="pressurePsi"
        :label="`Pressure ${say('pressure', pressurePsi)}`"
        :min="90"
        :max="280"
        :step="1"
      />
    </template>
    <template #tells>{{ tells }}</template>
    <template #taken>{{
      `An invented shock that holds ${say('mass', known.massKg)} at ${known.sagPct} % with ${say('pressure', known.pressurePsi)}. Yours has its own numbers: read, pump, read again.`
    }}</template>
  </FigureFrame>
</template>
