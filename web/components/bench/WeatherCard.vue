<script setup lang="ts">
import { computed, ref } from 'vue'
import { InputError } from '#core/errors'
import { clicksForTemperature } from '#core/damper/oil'
import { gaugeElsewherePsi, sameSagElsewherePsi, weatherOfBoth } from '#core/spring/weather'
import { unitAir } from '#core/spring/unitSpring'
import { useUnits } from '../../composables/useUnits.ts'
import { useBench } from '../../stores/bench.ts'
import EndMark from '../shell/EndMark.vue'
import NumberField from '../shell/NumberField.vue'

/** The same air somewhere else: what the gauge will show there, and what to set there for the same sag. */
const bench = useBench()
const { say } = useUnits()
const tempC = ref<number | null>(null)
const altitudeM = ref<number | null>(null)
const said = computed(() => bench.airNow())
const weather = computed(() =>
  // A field with something else than a number in it says so itself.
  Number.isNaN(tempC.value) || Number.isNaN(altitudeM.value)
    ? null
    : weatherOfBoth(said.value, { airTempC: tempC.value, altitudeM: altitudeM.value }),
)
const rows = computed(() => {
  if (!weather.value) return []
  const { from, to } = weather.value
  return bench.units.flatMap((u) => {
    const main = u.adjusters.find((a) => a.role === 'main-pressure')
    const spacer = u.adjusters.find((a) => a.kind === 'spacer')
    const psi = main ? bench.positionOf(main.id) : null
    if (!psi) return []
    try {
      const readPct = bench.sagNowPct(u.end)
      return [
        {
          u,
          // At another sag the same height asks for a little more or less: what nobody has read is told.
          assumed:
            readPct === null ? `, if it stands at its ${u.sagTargetPct} %: nobody has read its sag` : '',
          reads: gaugeElsewherePsi(psi, from, to),
          set: sameSagElsewherePsi(
            psi,
            readPct ?? u.sagTargetPct,
            unitAir(u).shape,
            spacer ? (bench.positionOf(spacer.id) ?? 0) : 0,
            from,
            to,
          ),
        },
      ]
    } catch (e) {
      if (e instanceof InputError) return []
      throw e
    }
  })
})
const clicks = computed(() =>
  weather.value
    ? Math.round(clicksForTemperature(weather.value.from.tempC, weather.value.to.tempC) * 2) / 2
    : 0,
)
</script>

<template>
  <section class="weather">
    <h2>The same bike somewhere else</h2>
    <p v-if="said.airTempC === null" class="soft">Say today’s temperature here in the first step.</p>
    <p v-else-if="said.altitudeM === null" class="soft">
      Nobody has said how high it is here: only the warmth is counted.
    </p>
    <div class="field-grid">
      <NumberField v-model="tempC" label="Air there" quantity="temperature" />
      <NumberField v-model="altitudeM" label="Altitude there" quantity="altitude" />
    </div>
    <p v-if="said.airTempC !== null && tempC === null" class="soft">
      Say how warm it is there, and how high, and it is reckoned over.
    </p>
    <ul v-if="rows.length" class="num">
      <li v-for="r in rows" :key="r.u.id">
        <EndMark :end="r.u.end" />
        {{
          `${r.u.end === 'front' ? 'Front' : 'Rear'}: untouched it will read ${say('pressure', r.reads)}; set ${say('pressure', r.set)} for the same sag${r.assumed}.`
        }}
      </li>
    </ul>
    <p v-if="Math.abs(clicks) >= 0.5" class="num">
      {{
        `The oil gets ${clicks > 0 ? 'thinner' : 'thicker'}: about ${Math.abs(clicks)} ${Math.abs(clicks) === 1 ? 'click' : 'clicks'} on each dial there, ${clicks > 0 ? 'rebound slower, compression firmer' : 'rebound faster, compression softer'}.`
      }}
    </p>
    <p class="soft small">
      On a hot day riders say the spring went soft. It did not: the air gained pressure, the oil got thin.
    </p>
  </section>
</template>

<style scoped>
.weather {
  display: grid;
  gap: 0.5rem;
}
ul {
  list-style: none;
  padding: 0;
  margin: 0;
}
p {
  margin: 0;
}
</style>
