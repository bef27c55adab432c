<script setup lang="ts">
import { computed, ref } from 'vue'
import { netPressurePsi, shockAir, strokeShareAt } from '#core/spring/air'
import { ownAir } from '#core/setup/ownNumbers'
import { sagWindowPct } from '#core/spring/sag'
import SagRuler from '../../bench/SagRuler.vue'
import RangeField from '../../shell/RangeField.vue'
import FigureFrame from './FigureFrame.vue'
import { useOwnNumbers } from '../../../composables/useOwnNumbers.ts'
import { useUnits } from '../../../composables/useUnits.ts'

/** A rider on a shock: where the ring comes to stand, and how fine a millimetre is. */
const { say } = useUnits()
const numbers = useOwnNumbers(({ now, unitAt }) => {
  const air = ownAir(unitAt('rear'), now)
  if (typeof air === 'string') return air
  return air.sagPct === null ? 'sag' : { ...air, sagPct: air.sagPct }
})
const { own } = numbers
/** An invented shock that holds 80 kg at 30 % with 180 psi. */
const invented = { massKg: 80, pressurePsi: 180, sagPct: 30, shape: shockAir, spacers: 0 }
const known = own ?? invented
const strokeMm = own?.strokeMm ?? 55
const targetPct = own?.sagTargetPct ?? 30
/** Load against the one it was read with, %; a rider's weight is nobody else's business. */
const loadPct = ref(own ? 100 : 110)
const pressurePsi = ref(own?.pressurePsi ?? 165)
const least = own ? Math.max(own.leastPsi, Math.round(own.pressurePsi * 0.6)) : 90
const most = own ? Math.min(own.mostPsi, Math.round(own.pressurePsi * 1.5)) : 280
const { spacers } = known
/** Twice the rider is twice the load. */
const loadOfKnown = netPressurePsi(known.sagPct / 100, known.pressurePsi, known.shape, { spacers })
const sagPct = computed(
  () => 100 * strokeShareAt((loadOfKnown * loadPct.value) / 100, pressurePsi.value, known.shape, { spacers }),
)
const loadWords = computed(() =>
  own
    ? `Load ${loadPct.value} % of what it was read with`
    : `Rider with kit ${say('mass', (invented.massKg * loadPct.value) / 100)}`,
)
const taken = computed(() =>
  own
    ? `The shock of this bike, with ${say('pressure', own.pressurePsi)} and the ${own.sagPct.toFixed(0)} % that were read at it.${own.ownShape ? '' : ' Its chambers are not noted: usual ones are taken.'} Read, pump, read again: the ring has the last word.`
    : `An invented shock that holds ${say('mass', invented.massKg)} at ${invented.sagPct} % with ${say('pressure', invented.pressurePsi)}. Yours has its own numbers: read, pump, read again.`,
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
  <FigureFrame title="Where the ring comes to stand" :numbers="numbers">
    <SagRuler end="rear" :stroke-mm="strokeMm" :target-pct="targetPct" :sag-pct="sagPct" />
    <template #sliders>
      <RangeField v-model="loadPct" :label="loadWords" :min="60" :max="150" :step="1" />
      <RangeField
        v-model="pressurePsi"
        :label="`Pressure ${say('pressure', pressurePsi)}`"
        :min="least"
        :max="most"
        :step="1"
      />
    </template>
    <template #tells>{{ tells }}</template>
    <template #taken>{{ taken }}</template>
  </FigureFrame>
</template>
