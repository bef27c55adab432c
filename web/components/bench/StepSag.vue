<script setup lang="ts">
import { computed, toRef } from 'vue'
import type { Posture } from '#contract/bench'
import type { End } from '#contract/common'
import { inTheWay, readingRules } from '#core/bench/preparation'
import { adjusterRange } from '#core/adjusters/range'
import { useSagStep } from '../../composables/useSagStep.ts'
import { useUnits } from '../../composables/useUnits.ts'
import { useBench } from '../../stores/bench.ts'
import { postureWords } from '../../support/benchWords.ts'
import { optionsOf } from '../../support/words.ts'
import AirVerdict from './AirVerdict.vue'
import ChoiceRow from './ChoiceRow.vue'
import CoilVerdict from './CoilVerdict.vue'
import HandsFree from './HandsFree.vue'
import ReadingList from './ReadingList.vue'
import SagReadingForm from './SagReadingForm.vue'
import SagRuler from './SagRuler.vue'

/** Sag of one end alone. */
const props = defineProps<{ end: End }>()
const bench = useBench()
const { say } = useUnits()
const { unit, sagPct, solution, inWindow, windowPct, last } = useSagStep(toRef(props, 'end'))
const posture = computed({
  get: () => bench.bench!.posture[props.end],
  set: (p: Posture) => bench.set({ posture: { ...bench.bench!.posture, [props.end]: p } }),
})
const obstacles = computed(() => inTheWay(bench.bench!, unit.value))
function openThem() {
  for (const a of unit.value.adjusters) {
    if (a.kind === 'lever') bench.setPosition(props.end, a.id, 0)
    else if (a.role.includes('compression')) bench.setPosition(props.end, a.id, adjusterRange(a).max)
  }
}
const timerSteps = [
  { words: 'Get on, all kit on, wheels free to roll', seconds: 8 },
  { words: 'Bounce a few times', seconds: 5 },
  { words: 'Settle in the posture and hold still', seconds: 6 },
  { words: 'Push the ring to the wiper', seconds: 6 },
  { words: 'Get off gently, then read', seconds: 5 },
]
const targetMm = computed(() => (unit.value.sagTargetPct / 100) * unit.value.strokeMm)
</script>

<template>
  <div class="step two-up">
    <p class="num target">
      {{
        `Target ${unit.sagTargetPct} % = ${say('length', targetMm)} of ${say('length', unit.strokeMm)}; right within ± ${windowPct.toFixed(1)} %, that is ± ${say('length', (windowPct / 100) * unit.strokeMm)}`
      }}
    </p>
    <SagRuler
      :end="end"
      :stroke-mm="unit.strokeMm"
      :target-pct="unit.sagTargetPct"
      :sag-pct="sagPct"
      :expected-pct="inWindow || !solution ? null : solution.expectedSagPct"
      :expected-spread-pct="solution?.expectedSpreadPct ?? null"
    />
    <div v-if="obstacles.length" class="caution" role="alert">
      <span>{{
        `${obstacles.join('; ')}. Open it before reading sag: closed compression makes sag look smaller. Readings taken like this are kept and do not count.`
      }}</span>
      <BButton variant="plain" @click="openThem">I’ve opened it</BButton>
    </div>
    <AirVerdict v-if="unit.spring === 'air'" :end="end" class="half" />
    <CoilVerdict v-else :end="end" class="half" />
    <section class="card-paper panel half" aria-labelledby="new-reading">
      <h2 id="new-reading">{{ last ? 'Another reading' : 'First reading' }}</h2>
      <details :open="!last">
        <summary>How to read it</summary>
        <ul class="rules">
          <li v-for="r in readingRules" :key="r">{{ r }}</li>
        </ul>
        <HandsFree title="Count me through it" :steps="timerSteps" />
      </details>
      <ChoiceRow
        v-model="posture"
        label="Posture, the same every time"
        :options="optionsOf(postureWords)"
        handbook="differ/posture"
      />
      <SagReadingForm :key="end" :end="end" :together="false" />
    </section>
    <ReadingList :end="end" :together="false" />
  </div>
</template>

<style scoped>
.step {
  display: grid;
  gap: 0.9rem;
}
.target {
  font-size: 1.1rem;
  font-weight: 650;
  margin: 0;
}
.panel {
  padding: 0.8rem 1rem 1rem;
  display: grid;
  gap: 0.6rem;
}
.rules {
  margin: 0;
  padding-left: 1.2rem;
}
.caution {
  flex-wrap: wrap;
  margin: 0;
  align-items: center;
}
</style>
