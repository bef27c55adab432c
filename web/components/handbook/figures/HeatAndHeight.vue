<script setup lang="ts">
import { computed, ref } from 'vue'
import { forkAir, netPressurePsi, strokeShareAt } from '#core/spring/air'
import { ownAir } from '#core/setup/ownNumbers'
import { ambientPa, gaugeElsewherePsi, sameSagElsewherePsi, type Weather } from '#core/spring/weather'
import { toChosen } from '#core/units/choice'
import { useOwnNumbers } from '../../../composables/useOwnNumbers.ts'
import LineFigure, { type FigureLine } from '../../shell/LineFigure.vue'
import RangeField from '../../shell/RangeField.vue'
import FigureFrame from './FigureFrame.vue'
import { useUnits } from '../../../composables/useUnits.ts'

/** A fork that nobody opened is carried elsewhere: what the gauge shows there, and how deep it sits. */
const { say, units } = useUnits()
const asRead = (q: 'pressure' | 'temperature', canonical: number) => toChosen(q, canonical, units.value)
const numbers = useOwnNumbers(({ now, unitAt }) => ownAir(unitAt('front'), now))
const { own } = numbers
const shape = own?.shape ?? forkAir
const spacers = own?.spacers ?? 0
const home: Weather = own?.at ?? { tempC: 20, altitudeM: 500 }
const set = {
  pressurePsi: own?.pressurePsi ?? 80,
  sagPct: own ? (own.sagPct ?? own.sagTargetPct) : 20,
}
const tempC = ref(home.tempC)
const altitudeM = ref(home.altitudeM)
const there = computed<Weather>(() => ({ tempC: tempC.value, altitudeM: altitudeM.value }))
const loadPsi = netPressurePsi(set.sagPct / 100, set.pressurePsi, shape, {
  spacers,
  ambientPa: ambientPa(home.altitudeM),
})
const shown = computed(() => gaugeElsewherePsi(set.pressurePsi, home, there.value))
const sagPct = computed(
  () =>
    100 *
    strokeShareAt(loadPsi, shown.value, shape, { spacers, ambientPa: ambientPa(there.value.altitudeM) }),
)
const right = computed(() =>
  sameSagElsewherePsi(set.pressurePsi, set.sagPct, shape, spacers, home, there.value),
)
const point = (t: number, psi: number): [number, number] => [
  asRead('temperature', t),
  asRead('pressure', psi),
]
const [coldest, hottest] = [Math.min(-10, Math.floor(home.tempC)), Math.max(40, Math.ceil(home.tempC))]
/** Steps that start from where it was set. */
const [stepM, highest] = [500, Math.max(3000, home.altitudeM)]
const lowest = home.altitudeM < 0 ? home.altitudeM : home.altitudeM % stepM
/** What the gauge shows at most and at least, anywhere that can be slid to, psi. */
const corners = [coldest, hottest].flatMap((t) =>
  [lowest, highest].map((h) => gaugeElsewherePsi(set.pressurePsi, home, { tempC: t, altitudeM: h })),
)
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
    `The gauge shows ${say('pressure', Math.round(shown.value))} there, and it sits at ${sagPct.value.toFixed(1)} % in place of ${set.sagPct.toFixed(0)} %. For the same sag there: ${say('pressure', Math.round(right.value))}.`,
)
const taken = computed(() => {
  const whose = own ? 'The fork of this bike' : 'An invented fork'
  const where = `${say('temperature', home.tempC)} and ${say('altitude', home.altitudeM)}`
  const noted = own && !own.at ? ' (nobody noted the air and the height it was set in: these are taken)' : ''
  const sag =
    own && own.sagPct === null ? ' Nobody has read sag at this pressure: its target is taken for it.' : ''
  return `${whose}, set to ${say('pressure', set.pressurePsi)} at ${where}${noted}.${sag} The oil is not in it: warm oil damps less, and that is felt first.`
})
</script>

<template>
  <FigureFrame title="Carried elsewhere, never opened" :numbers="numbers">
    <LineFigure
      label="What the gauge shows over the temperature, there and at home"
      :lines="lines"
      :x-name="units.temperature"
      :y-name="units.pressure"
      :x-from="asRead('temperature', coldest)"
      :x-max="asRead('temperature', hottest)"
      :y-from="Math.floor(asRead('pressure', Math.min(...corners)))"
      :y-max="Math.ceil(asRead('pressure', Math.max(...corners)))"
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
        :min="lowest"
        :max="highest"
        :step="stepM"
      />
    </template>
    <template #tells>{{ tells }}</template>
    <template #taken>{{ taken }}</template>
  </FigureFrame>
</template>
