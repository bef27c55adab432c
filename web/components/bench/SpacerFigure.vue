<script setup lang="ts">
import { computed, ref, toRef } from 'vue'
import type { End } from '#contract/common'
import { InputError } from '#core/errors'
import { netPressurePsi } from '#core/spring/air'
import { energyCurve, forceCurve, spacerCases } from '#core/spring/spacers'
import { unitAir } from '#core/spring/unitSpring'
import { useSagStep } from '../../composables/useSagStep.ts'
import { useUnits } from '../../composables/useUnits.ts'
import { useBench } from '../../stores/bench.ts'
import { useGarage } from '../../stores/garage.ts'
import LineFigure, { type FigureLine } from '../shell/LineFigure.vue'

/** What one spacer less or more does, at the same sag: force or energy over the travel. */
const props = defineProps<{ end: End }>()
const bench = useBench()
const { say, sayDifference } = useUnits()
const { unit, main, spacerDial, spacers, pressurePsi, sagPct, modelSpacers } = useSagStep(toRef(props, 'end'))
const garage = useGarage()
const onShelf = computed(() =>
  garage.stock
    .filter((s) => s.kind === 'spacer' && (s.unitId === null || s.unitId === unit.value.id))
    .reduce((n, s) => n + s.count, 0),
)
const what = ref<'force' | 'energy'>('force')
const shape = computed(() => unitAir(unit.value).shape)
const sag = computed(() => sagPct.value ?? unit.value.sagTargetPct)
const cases = computed(() => {
  const psi = pressurePsi.value
  // Nobody has looked how many are in: there is nothing to compare with.
  if (psi === null || psi <= 0 || !spacerDial.value || spacers.value === null) return []
  try {
    return spacerCases(
      { sagPct: sag.value, pressurePsi: psi, spacers: spacers.value },
      spacerDial.value.maxCount,
      shape.value,
    )
  } catch (e) {
    if (e instanceof InputError) return []
    throw e
  }
})
const load = computed(() =>
  netPressurePsi(sag.value / 100, pressurePsi.value ?? 1, shape.value, { spacers: modelSpacers.value }),
)
const lines = computed<FigureLine[]>(() =>
  cases.value.map((c) => {
    const force = forceCurve(c.pressurePsi, c.spacers, load.value, shape.value)
    const y = what.value === 'force' ? force : energyCurve(force)
    const d = c.spacers - modelSpacers.value
    return {
      name: `${c.spacers} ${c.spacers === 1 ? 'spacer' : 'spacers'}${d === 0 ? ', as now' : ''}`,
      colour: d === 0 ? (props.end === 'front' ? '--front' : '--rear') : d < 0 ? '--sky' : '--rust',
      width: d === 0 ? 3 : 2,
      dashed: d !== 0,
      points: Array.from(y, (v, i) => [i, v] as [number, number]),
    }
  }),
)
const rows = computed(() =>
  cases.value
    .filter((c) => c.spacers !== spacers.value)
    .map((c) => ({
      n: c.spacers,
      psi: Math.round(c.pressurePsi),
      words: `${say('pressure', c.pressurePsi)} for the same sag (${signed(c.pressurePsi - (pressurePsi.value ?? 0))}); ${Math.abs(Math.round(100 * (c.energyRatio - 1)))} % ${c.energyRatio > 1 ? 'more' : 'less'} to bottom; ends at ${c.endRatio.toFixed(1)} × the load at sag`,
    })),
)
const signed = (psi: number) =>
  `${psi >= 0 ? '+' : '−'}${sayDifference('pressure', Math.abs(Math.round(psi)))}`
/** Spacer and pressure belong together: one linked move. */
function take(n: number, psi: number) {
  if (spacerDial.value) bench.setPosition(props.end, spacerDial.value.id, n)
  if (main.value) bench.setPosition(props.end, main.value.id, psi)
}
</script>

<template>
  <section v-if="lines.length" class="spacers">
    <span class="choice" role="group" aria-label="What the curves show">
      <button type="button" :aria-pressed="what === 'force'" @click="what = 'force'">force</button>
      <button type="button" :aria-pressed="what === 'energy'" @click="what = 'energy'">energy</button>
    </span>
    <LineFigure
      :label="`${what === 'force' ? 'Force' : 'Energy taken up'} over travel with one spacer less and more, ${end}`"
      :lines="lines"
      :marks="[{ axis: 'x', at: sag, name: 'sag' }]"
      x-name="% of travel"
      :y-name="what === 'force' ? 'force, × load at sag' : 'energy, × load × travel'"
      :x-max="100"
      :say-x="(x) => `${x.toFixed(0)} % of travel`"
      :say-y="(y) => `${y.toFixed(2)} ×`"
    />
    <ul class="num">
      <li v-for="r in rows" :key="r.n">
        <span
          ><b>{{ `${r.n} ${r.n === 1 ? 'spacer' : 'spacers'}` }}</b
          >{{ ` ${r.words}` }}</span
        >
        <BButton variant="plain" @click="take(r.n, r.psi)">{{
          `I’ve put it in, at ${say('pressure', r.psi)}`
        }}</BButton>
      </li>
    </ul>
    <p v-if="onShelf" class="soft small num">{{ `On the shelf for it: ${onShelf}.` }}</p>
    <p class="soft small">
      An estimate with standard values for moving air, without friction; figures of the unit are
      {{ unitAir(unit).own ? 'its own' : 'the usual ones' }}.
    </p>
  </section>
</template>

<style scoped>
.spacers {
  display: grid;
  gap: 0.4rem;
}
ul {
  list-style: none;
  padding: 0;
  margin: 0;
}
li {
  display: flex;
  flex-wrap: wrap;
  justify-content: space-between;
  align-items: center;
  gap: 0.3rem 1rem;
  border-bottom: 1px solid var(--line);
  padding: 0.25rem 0;
}
li span {
  flex: 1 1 260px;
}
p {
  margin: 0;
}
</style>
