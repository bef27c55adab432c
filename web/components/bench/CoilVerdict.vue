<script setup lang="ts">
import { computed, toRef } from 'vue'
import type { End } from '#contract/common'
import { countBaseWords } from '#core/adjusters/count'
import {
  axleLoadFromSagN,
  checkPreload,
  chooseCoil,
  standardRatesNear,
  wantedRateNPerMm,
  type CoilSpring,
  type CoilUnit,
} from '#core/spring/coil'
import { InputError } from '#core/errors'
import { axleLoadN } from '#core/spring/load'
import { useSagStep } from '../../composables/useSagStep.ts'
import { useShelf } from '../../composables/useShelf.ts'
import { useUnits } from '../../composables/useUnits.ts'
import { useBench } from '../../stores/bench.ts'
import { useGarage } from '../../stores/garage.ts'
import { useNotices } from '../../stores/notices.ts'
import ClickRail from '../day/ClickRail.vue'

/** Which coil, and how many turns of preload; from weight before the first reading, from the reading after it. */
const props = defineProps<{ end: End }>()
const bench = useBench()
const garage = useGarage()
const notices = useNotices()
const { say } = useUnits()
const { unit, last, sagPct, inWindow, leverage, wheelMm } = useSagStep(toRef(props, 'end'))

const rateDial = computed(() => {
  const a = unit.value.adjusters.find((x) => x.kind === 'spring-rate')
  return a?.kind === 'spring-rate' ? a : null
})
const collar = computed(() => {
  const a = unit.value.adjusters.find((x) => x.kind === 'turn' && x.role === 'preload')
  return a?.kind === 'turn' ? a : null
})
const shape = computed<CoilUnit>(() => ({
  strokeMm: unit.value.strokeMm,
  pitchMm: unit.value.preloadPitchMm,
  leverage: leverage.value,
  meanLeverage:
    props.end === 'front' ? 1 : wheelMm.value === null ? 2.6 : wheelMm.value / unit.value.strokeMm,
}))
/** Springs on the shelf that are long enough for this unit. */
const shelf = computed(() =>
  garage.stock.flatMap((s) =>
    s.kind === 'spring' && s.count > 0 && (s.strokeMm === null || s.strokeMm >= unit.value.strokeMm)
      ? [s]
      : [],
  ),
)
const same = (a: number, b: number) => Math.abs(a - b) < 0.05
const springOf = (rateNPerMm: number): CoilSpring => ({
  rateNPerMm,
  ratePoints: shelf.value.find((s) => same(s.rateNPerMm, rateNPerMm))?.ratePoints ?? null,
})
const { offerFor } = useShelf()
const load = computed(() => {
  const r = last.value
  if (r && r.springRateNPerMm !== null)
    return {
      newtons: axleLoadFromSagN(springOf(r.springRateNPerMm), r.preloadTurns ?? 0, r.sagMm, shape.value),
      from: 'from the last reading',
    }
  const b = bench.bike
  if (!b || bench.massKg === null) return null
  const posture = bench.bench!.posture[props.end]
  return {
    newtons: axleLoadN(props.end, {
      ridingMassKg: bench.massKg,
      bikeMassKg: b.massKg,
      eBike: b.eBike,
      frontSharePct: posture === 'seated' ? b.frontShareSeatedPct : b.frontShareReadyPct,
      posture,
    }),
    from: 'from the riding weight, a first guess',
  }
})
const target = computed(() => unit.value.sagTargetPct)
const wanted = computed(() => load.value && wantedRateNPerMm(load.value.newtons, target.value, shape.value))
const owned = computed(() => [
  ...new Set([...(rateDial.value?.ratesNPerMm ?? []), ...shelf.value.map((s) => s.rateNPerMm)]),
])
const choices = computed(() => {
  if (!load.value || wanted.value === null) return []
  const springs = [
    ...new Set([...owned.value, ...standardRatesNear(wanted.value)].map((r) => Math.round(r * 100) / 100)),
  ]
  return chooseCoil(springs.map(springOf), load.value.newtons, target.value, shape.value)
    .slice(0, 6)
    .sort((a, b) => a.spring.rateNPerMm - b.spring.rateNPerMm)
    .map((c) => ({
      ...c,
      owned: owned.value.some((r) => same(r, c.spring.rateNPerMm)),
      shelf: offerFor(
        { rateNPerMm: c.spring.rateNPerMm, strokeMm: unit.value.strokeMm },
        bench.bike?.riderId ?? null,
      ),
    }))
})
const fitted = computed(() => (rateDial.value ? bench.positionOf(rateDial.value.id) : null))
const turnsNow = computed(() =>
  collar.value && bench.positionOf(collar.value.id) !== null
    ? collar.value.turns - bench.positionOf(collar.value.id)!
    : 0,
)
async function take(c: (typeof choices.value)[number]) {
  const dial = rateDial.value
  if (!dial) return
  const rate = c.spring.rateNPerMm
  // A spring from the shelf becomes one that this unit has.
  if (!dial.ratesNPerMm.some((r) => same(r, rate))) {
    const ratesNPerMm = [...dial.ratesNPerMm, rate].sort((a, b) => a - b)
    const adjusters = unit.value.adjusters.map((a) => (a.id === dial.id ? { ...dial, ratesNPerMm } : a))
    if (!(await notices.attempt(() => garage.saveUnit({ ...unit.value, adjusters })))) return
  }
  bench.setPosition(props.end, dial.id, rate)
  if (collar.value)
    bench.setPosition(props.end, collar.value.id, Math.max(0, collar.value.turns - c.preloadTurns))
}
const tooMuchPreload = computed(() => {
  try {
    checkPreload(turnsNow.value)
    return null
  } catch (e) {
    if (e instanceof InputError) return e.message
    throw e
  }
})
const nowWords = computed(() =>
  sagPct.value === null
    ? null
    : `Sag ${sagPct.value.toFixed(1)} %: ${inWindow.value ? 'inside the window' : sagPct.value > target.value ? 'too deep' : 'too shallow'}`,
)
</script>

<template>
  <div class="verdict" :class="{ good: inWindow }">
    <p v-if="nowWords" class="now num">{{ nowWords }}</p>
    <p v-if="load && wanted" class="num">
      {{ `${target} % without preload would take ${say('springRate', wanted)}, ${load.from}.` }}
    </p>
    <p v-else>Give the riding weight in the first step, or read once with the spring that is in.</p>
    <div v-if="choices.length" class="scroll">
      <table class="num">
        <thead>
          <tr>
            <th scope="col">Spring</th>
            <th scope="col">Preload</th>
            <th scope="col">Sag</th>
            <td></td>
          </tr>
        </thead>
        <tbody>
          <tr v-for="c in choices" :key="c.spring.rateNPerMm" :class="{ meets: c.meets }">
            <th scope="row">
              {{ say('springRate', c.spring.rateNPerMm) }}
              <small class="soft">{{ c.shelf ?? (c.owned ? 'owned' : '') }}</small>
            </th>
            <td>{{ `${c.preloadTurns} ${c.preloadTurns === 1 ? 'turn' : 'turns'}` }}</td>
            <td>{{ `${c.sagPct.toFixed(1)} %` }}</td>
            <td>
              <button
                v-if="c.owned && !(fitted === c.spring.rateNPerMm && turnsNow === c.preloadTurns)"
                type="button"
                class="btn btn-sm btn-plain"
                @click="take(c)"
              >
                It is in now
              </button>
              <span v-else-if="c.owned" class="soft small">in now</span>
            </td>
          </tr>
        </tbody>
      </table>
    </div>
    <template v-for="a in [rateDial, collar]" :key="a?.id ?? 'none'">
      <ClickRail
        v-if="a"
        :end="end"
        :adjuster="a"
        :value="bench.positionOf(a.id)"
        :known="bench.knownOf(a.id)"
        :detail="countBaseWords(a)"
        @choose="(v) => bench.setPosition(end, a.id, v)"
      />
    </template>
    <p v-if="tooMuchPreload" class="caution" role="alert">{{ tooMuchPreload }}</p>
    <p class="soft small">
      Two turns of preload at most; beyond that another spring. Preload does not make a spring firmer, it only
      lifts the bike.
    </p>
  </div>
</template>

<style scoped>
.verdict {
  border-left: 6px solid var(--sun);
  padding: 0.2rem 0 0.2rem 1rem;
}
.verdict.good {
  border-color: var(--moss);
}
p {
  margin: 0 0 0.4rem;
}
.now {
  font-weight: 650;
  font-size: 1.1rem;
}
.scroll {
  overflow-x: auto;
}
table {
  border-collapse: collapse;
}
th,
td {
  text-align: left;
  padding: 0.3rem 1rem 0.3rem 0;
  border-bottom: 1px solid var(--line);
  font-weight: 400;
}
thead th {
  font-weight: 600;
}
.meets th,
.meets td {
  font-weight: 650;
}
</style>
