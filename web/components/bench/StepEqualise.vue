<script setup lang="ts">
import { computed } from 'vue'
import type { EqualiseSchool } from '#contract/bench'
import { equalisedKey } from '#core/bench/evidence'
import { equaliseStages } from '#core/bench/schools'
import { useUnits } from '../../composables/useUnits.ts'
import { useBench } from '../../stores/bench.ts'
import { equaliseWords } from '../../support/benchWords.ts'
import { optionsOf } from '../../support/words.ts'
import EndMark from '../shell/EndMark.vue'
import ChoiceRow from './ChoiceRow.vue'
import HandsFree from './HandsFree.vue'

/** Getting positive and negative chamber to one pressure, counted. */
const bench = useBench()
const { say } = useUnits()
const school = computed({
  get: () => bench.bench!.equaliseSchool,
  set: (equaliseSchool: EqualiseSchool) => bench.set({ equaliseSchool }),
})
const secondsPerCycle = 2
const ticked = (key: string) => bench.bench!.checks.includes(key)
function tick(key: string) {
  const { checks } = bench.bench!
  bench.set({ checks: ticked(key) ? checks.filter((k) => k !== key) : [...checks, key] })
}
const cards = computed(() =>
  bench.units.flatMap((u) => {
    const main = u.adjusters.find((a) => a.kind === 'pressure' && a.role === 'main-pressure')
    const psi = main ? bench.positionOf(main.id) : null
    if (psi === null || psi <= 0) return []
    const stages = equaliseStages(school.value, Math.round(psi))
    return [
      {
        unit: u,
        stages,
        steps: [
          ...stages.flatMap((s) => [
            {
              words: `Pump to ${say('pressure', s.psi)}${s.pumpOn ? ', leave the pump on' : ', pump off'}`,
              seconds: 25,
            },
            {
              words: `Slow cycles to ${s.depthPct} % of the travel`,
              seconds: s.cycles * secondsPerCycle,
              count: s.cycles,
            },
          ]),
          { words: `Read the gauge and top up to ${say('pressure', Math.round(psi))}`, seconds: 20 },
        ],
      },
    ]
  }),
)
</script>

<template>
  <div class="step two-up">
    <ChoiceRow v-model="school" label="How" :options="optionsOf(equaliseWords)" handbook="differ/equalise" />
    <p class="soft">The unit’s own manual goes before all of them.</p>
    <p v-if="!cards.length" class="soft">Choose a pressure in “Start pressure or spring” first.</p>
    <section v-for="c in cards" :key="c.unit.id" class="card-paper card half">
      <h2>
        <EndMark :end="c.unit.end" /> {{ c.unit.end === 'front' ? 'Front' : 'Rear' }}, {{ c.unit.name }}
      </h2>
      <ol class="num">
        <li v-for="s in c.stages" :key="s.psi">
          {{
            `${say('pressure', s.psi)}: ${s.cycles} slow cycles to ${s.depthPct} % of the travel, pump ${s.pumpOn ? 'on' : 'off'}`
          }}
        </li>
        <li>Read the gauge, top up: the negative chamber took some.</li>
      </ol>
      <HandsFree
        :title="`Count me through it, ${c.unit.end === 'front' ? 'front' : 'rear'}`"
        :steps="c.steps"
      />
      <label class="tick">
        <input
          type="checkbox"
          class="form-check-input"
          :checked="ticked(equalisedKey(c.unit.end))"
          @change="tick(equalisedKey(c.unit.end))"
        />
        {{ `The ${c.unit.end} was cycled and topped up` }}
      </label>
    </section>
  </div>
</template>

<style scoped>
.step {
  display: grid;
  gap: 0.8rem;
}
p {
  margin: 0;
}
.card {
  padding: 0.8rem 1rem;
}
ol {
  margin: 0.4rem 0 0.6rem;
}
.tick {
  display: flex;
  gap: 0.7rem;
  align-items: center;
  min-height: 48px;
}
</style>
