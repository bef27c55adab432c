<script setup lang="ts">
import { computed, ref } from 'vue'
import { forkAir, netPressurePsi, strokeShareAt } from '#core/spring/air'
import { ambientPa, gaugeElsewherePsi, sameSagElsewherePsi, type Weather } from '#core/spring/weather'
import { toChosen } from '#core/units/choice'
import LineFigure, { type FigureLine } from '../../shell/LineFigure.vue'
import RangeField from '../../shell/RangeField.vue'
import FigureFrame from './FigureFrame.vue'
import { useUnits } from '../../../composables/useUnits.ts'

/** A fork that nobody opened is carried elsewhere: what the gauge shows there, and how deep it sits. */
const { say, units } = useUnits()
const asRead = (q: 'pressure' | 'temperature', canonical: number) => toChosen(q, canonical, units.value)
const home: Weather = { tempC: 20, altitudeM: 500 }
const set = { pressurePsi: 80, sagPct: 20 }
const tempC = ref(20)
const altitudeM = ref(500)
const there = computed<Weather>(() => ({ tempC: tempC.value, altitudeM: altitudeM.value }))
const loadPsi = netPressurePsi(set.sagPct / 100, set.pressurePsi, forkAir, {
  ambientPa: ambientPa(home.altitudeM),
})
const shown = computed(() => gaugeElsewherePsi(set.pressurePsi, home, there.value))
const sagPct = computed(
  () => 100 * strokeShareAt(loadPsi, shown.value, forkAir, { ambientPa: ambientPa(there.value.altitudeM) }),
)
const right = computed(() => sameSagElsewherePsi(set.pressurePsi, set.sagPct, forkAir, 0, home, there.value))
const point = (t: number, psi: number): [number, number] => [
  asRead('temperature', t),
  asRead('pressure', psi),
]
const [coldest, hottest] = [-10, 40]
const over = (w: (t: number) => Weather) =>
  Array.from({ length: hottest - coldest + 1 }, (_, i) => {
    const t = coldest + i
    return point(t, gaugeElsewherePsi(set.pressurePsi, home, w(t)))
  })
const lines = computed<FigureLine[]>(() => [
  {
    name: 'there',
    colour: '--front',
    width: 4,
    points: over((t) => ({ tempC: t, altitudeM: altitudeM.value })),
  },
  {
    name: 'at home',
    colour: '--ink-soft',
    dashed: true,
    points: over((t) => ({ tempC: t, altitudeM: home.altitudeM })),
  },
  { name: 'now', colour: '--sun', dots: true, width: 15, points: [point(tempC.value, shown.value)] },
])
const tells = computed(
  () =>
    `The gauge shows ${say('pressure', Math.round(shown.value))} there, and it sits at ${sagPct.value.toFixed(1)} % in place of ${set.sagPct} %. For the same sag there: ${say('pressure', Math.round(right.value))}.`,
)
</script>

<template>
  <FigureFrame title="Carried elsewhere, never opened">
    <LineFigure
      label="What the gauge shows over the temperature, there and at home"
      :lines="lines"
      :x-name="units.temperature"
      :y-name="units.pressure"
      :x-from="asRead('temperature', coldest)"
      :x-max="asRead('temperature', hottest)"
      :y-from="Math.floor(asRead('pressure', 65))"
      :y-max="Math.ceil(asRead('pressure', 95))"
      :say-x="(x) => `${x.toFixed(0)} ${units.temperature}`"
      :say-y="(y) => `${y.toFixed(1)} ${units.pressure}`"
    />
    <template #sliders>
      <RangeField
        v-model="tempC"
        :label="`It is ${say('temperature', tempC)} there`"
        :min="coldest"
        :max="hottest"
        :step="1"
      />
      <RangeField
        v-model="altitudeM"
        :label="`At ${say('altitude', altitudeM)}`"
        :min="0"
        :max="3000"
        :step="500"
      />
    </template>
    <template #tells>{{ tells }}</template>
    <template #taken>{{
      `An invented fork, set to ${say('pressure', set.pressurePsi)} at ${say('temperature', home.tempC)} and ${say('altitude', home.altitudeM)}. The oil is not in it: warm oil damps less, and that is felt first.`
    }}</template>
  </FigureFrame>
</template>
