<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import type { End } from '#contract/common'
import type { SuspensionUnit } from '#contract/unit'
import { leverageOf, wheelTravelMm } from '#core/linkage/leverage'
import { shownByGaugePsi, truePressurePsi } from '#core/spring/gauge'
import { startPressures } from '#core/spring/start'
import { useUnits } from '../../composables/useUnits.ts'
import { useBench } from '../../stores/bench.ts'
import { useGarage } from '../../stores/garage.ts'
import { forRider } from '#core/carry/ofAnotherRider'
import { sourceWords } from '../../support/benchWords.ts'
import { pressureFault } from '../../support/pressureFault.ts'
import GaugeForm from '../garage/GaugeForm.vue'
import EndMark from '../shell/EndMark.vue'
import ClickRail from '../day/ClickRail.vue'
import NumberField from '../shell/NumberField.vue'
import CoilVerdict from './CoilVerdict.vue'

/** What to pump or fit before the first reading, and where each number comes from. */
const bench = useBench()
const garage = useGarage()
const { say, units } = useUnits()
const gaugeOpen = ref(false)
/** What the pump is said to have brought it to, per end, as typed. */
const typed = ref<Record<End, number | null>>({ front: null, rear: null })

const mainOf = (u: SuspensionUnit) => {
  const a = u.adjusters.find((x) => x.kind === 'pressure' && x.role === 'main-pressure')
  return a?.kind === 'pressure' ? a : null
}
const gauges = computed(() => [
  { value: null, text: 'one without a name' },
  ...garage.gauges.map((g) => ({
    value: g.id,
    text:
      g.readsHighPsi === 0
        ? g.name
        : `${g.name}, shows ${say('pressure', Math.abs(g.readsHighPsi))} too ${g.readsHighPsi > 0 ? 'much' : 'little'}`,
  })),
])
const setGauge = (end: End, id: string | null) =>
  bench.set({ gaugeId: { ...bench.bench!.gaugeId, [end]: id } })

function offers(u: SuspensionUnit) {
  const b = bench.bike
  const main = mainOf(u)
  if (!b || !main) return []
  const posture = bench.bench!.posture[u.end]
  const lever = u.end === 'rear' ? leverageOf(b, u.strokeMm) : null
  const wheel = lever ? wheelTravelMm(u.strokeMm, lever) : b.rearWheelTravelMm
  const earlier = garage.currentSetup(b.id)?.positions.find((p) => p.adjusterId === main.id)?.value ?? null
  const computed =
    bench.massKg === null
      ? []
      : startPressures(
          u,
          {
            ridingMassKg: bench.massKg,
            bikeMassKg: b.massKg,
            eBike: b.eBike,
            frontSharePct: posture === 'seated' ? b.frontShareSeatedPct : b.frontShareReadyPct,
            posture,
          },
          earlier,
          u.end === 'rear' && wheel !== null ? wheel / u.strokeMm : null,
        ).map((s) => ({
          key: s.from + s.words,
          psi: s.psi,
          words: s.words,
          spread: s.spreadPsi,
          clamped: s.clamped,
        }))
  const written = garage.baselinesOf(b.id).flatMap((x) => {
    const held = forRider(x, [u], bench.massKg, units.value)
    const psi = held.positions.find((p) => p.adjusterId === main.id)?.value
    return psi === undefined
      ? []
      : [
          {
            key: x.id,
            psi: Math.round(psi),
            words: [`${x.name}, ${sourceWords[x.source]}, ${x.asOf}`, held.words].filter(Boolean).join('. '),
            spread: null,
            clamped: false,
          },
        ]
  })
  return [...computed, ...written]
}
const psiOf = (u: SuspensionUnit) => bench.positionOf(mainOf(u)!.id)
const isChosen = (u: SuspensionUnit, psi: number) => Math.round(psiOf(u) ?? -1) === psi
const offsetOf = (u: SuspensionUnit) => garage.gauge(bench.bench!.gaugeId[u.end])?.readsHighPsi ?? 0
/** The start that is chosen and that nobody has pumped yet. */
function estimated(u: SuspensionUnit) {
  const main = mainOf(u)
  const psi = psiOf(u)
  const known = main && bench.knownOf(main.id)
  return main && psi !== null && known?.how === 'assumed'
    ? { psi, source: known.source, shown: Math.round(shownByGaugePsi(psi, offsetOf(u))) }
    : null
}
/** A start becomes the estimate. Where somebody has pumped or read it, only the gauge field is filled: the number that is known stays until the pump has changed it. */
function choose(u: SuspensionUnit, o: { psi: number; words: string }) {
  const main = mainOf(u)!
  const how = bench.knownOf(main.id)?.how
  if (how === 'set' || how === 'read')
    typed.value = { ...typed.value, [u.end]: Math.round(shownByGaugePsi(o.psi, offsetOf(u))) }
  else bench.assume(u.end, main.id, o.psi, o.words)
}
const setFault = ref<Partial<Record<End, string>>>({})
const shownPsi = (u: SuspensionUnit) => typed.value[u.end] ?? estimated(u)?.shown ?? null
const setWords = (u: SuspensionUnit) =>
  shownPsi(u) === null ? 'I’ve set it' : `I’ve set ${say('pressure', shownPsi(u)!)}`
/** The only way to "set": somebody says what the gauge shows. */
function pumped(u: SuspensionUnit) {
  const main = mainOf(u)!
  const shown = shownPsi(u)
  const psi = shown === null || Number.isNaN(shown) ? null : truePressurePsi(shown, offsetOf(u))
  const wrong = pressureFault(psi, main, units.value)
  setFault.value = { ...setFault.value, [u.end]: wrong ?? undefined }
  if (wrong || psi === null) return
  bench.setPosition(u.end, main.id, psi)
  typed.value = { ...typed.value, [u.end]: null }
}
// The best source at hand is chosen to begin with, marked as what it is.
watch(
  () => bench.units.map((u) => [u.id, mainOf(u) && psiOf(u) === null ? (offers(u)[0]?.key ?? '') : '']),
  () => {
    for (const u of bench.units) {
      const main = mainOf(u)
      const best = main && bench.bench && psiOf(u) === null ? offers(u)[0] : undefined
      if (main && best) bench.assume(u.end, main.id, best.psi, best.words)
    }
  },
  { immediate: true },
)
const others = (u: SuspensionUnit) =>
  u.adjusters.filter(
    (a) =>
      (a.kind === 'pressure' && a.role !== 'main-pressure') ||
      a.kind === 'spacer' ||
      a.role === 'start-of-stroke',
  )
const first = computed(() => bench.bench!.spacerSchool === 'start-full')
</script>

<template>
  <div class="step two-up">
    <section v-for="u in bench.units" :key="u.id" class="half">
      <h2><EndMark :end="u.end" /> {{ u.end === 'front' ? 'Front' : 'Rear' }}, {{ u.name }}</h2>
      <template v-if="mainOf(u)">
        <p v-if="bench.massKg === null" class="caution">
          Without a riding weight only what was written down can be offered. Give it in the first step.
        </p>
        <ul class="offers num">
          <li v-for="o in offers(u)" :key="o.key">
            <b>{{ say('pressure', o.psi) }}</b>
            <span>
              {{ o.words }}
              <span v-if="o.spread" class="soft small">{{
                `± ${say('pressure', Math.round(o.spread))}`
              }}</span>
              <span v-if="o.clamped" class="soft small">at the unit’s limit</span>
            </span>
            <button
              type="button"
              class="btn btn-sm"
              :class="isChosen(u, o.psi) ? 'btn-primary' : 'btn-plain'"
              @click="choose(u, o)"
            >
              {{ isChosen(u, o.psi) ? 'Chosen' : 'Use this' }}
            </button>
          </li>
        </ul>
        <p v-if="estimated(u)" class="caution estimate">
          {{
            `${say('pressure', estimated(u)!.psi)} is an estimate: ${estimated(u)!.source}. Sag will correct it. Nobody has pumped it to that yet.`
          }}
        </p>
        <form class="set" @submit.prevent="pumped(u)">
          <NumberField
            :model-value="typed[u.end] ?? estimated(u)?.shown ?? null"
            label="The gauge shows now"
            quantity="pressure"
            :hint="`most: ${say('pressure', mainOf(u)!.maxPsi)}`"
            :fault="setFault[u.end] ?? null"
            @update:model-value="(v) => (typed = { ...typed, [u.end]: v })"
          />
          <BButton type="submit" variant="primary">{{ setWords(u) }}</BButton>
        </form>
        <div class="gauge">
          <label class="form-label" :for="`gauge-${u.end}`">Gauge on the pump</label>
          <BFormSelect
            :id="`gauge-${u.end}`"
            :model-value="bench.bench!.gaugeId[u.end]"
            :options="gauges"
            @update:model-value="(v) => setGauge(u.end, v as string | null)"
          />
          <BButton variant="plain" @click="gaugeOpen = true">New gauge</BButton>
        </div>
        <ClickRail
          v-for="a in others(u)"
          :key="a.id"
          :end="u.end"
          :adjuster="a"
          :value="bench.positionOf(a.id)"
          :known="bench.knownOf(a.id)"
          @choose="(v) => bench.setPosition(u.end, a.id, v)"
        />
        <p v-if="first && others(u).some((a) => a.kind === 'spacer')" class="soft">
          Start full: put in all spacers that are allowed now, and take them out one by one in “End of the
          stroke”.
        </p>
      </template>
      <CoilVerdict v-else-if="u.spring === 'coil'" :end="u.end" />
      <p v-else class="soft">This unit has no pressure to set; add one to it in the garage.</p>
    </section>
    <p v-if="bench.units.some((u) => offers(u).some((o) => o.words.startsWith('1:1')))" class="soft small">
      “One to one” means two things: kg = psi for some forks, lb = psi for many shocks. That is a factor of
      2.2; each line says which.
    </p>
    <GaugeForm v-model:open="gaugeOpen" :editing="null" />
  </div>
</template>

<style scoped>
.set {
  display: flex;
  flex-wrap: wrap;
  gap: 0.8rem;
  margin: 0.5rem 0;
}
/* Beside the field, not beside its label or its hint. */
.set .btn {
  align-self: start;
  margin-top: 1.55rem;
}
.estimate {
  margin: 0.4rem 0;
}
.step {
  display: grid;
  gap: 1.2rem;
}
p {
  margin: 0.3rem 0;
}
.offers {
  list-style: none;
  padding: 0;
  margin: 0.3rem 0 0.6rem;
}
.offers li {
  display: grid;
  grid-template-columns: 5rem 1fr auto;
  gap: 0 0.8rem;
  align-items: center;
  border-bottom: 1px solid var(--line);
  padding: 0.2rem 0;
}
.offers .small {
  display: block;
}
.gauge {
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
  gap: 0 0.8rem;
  align-items: center;
}
.gauge .form-label {
  grid-column: 1 / -1;
}
</style>
