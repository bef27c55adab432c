<script setup lang="ts">
import { computed, defineAsyncComponent, ref } from 'vue'
import { v7 as uuid } from 'uuid'
import type { Adjuster } from '#contract/adjuster'
import type { ReboundOutcome } from '#contract/bench'
import type { SuspensionUnit } from '#contract/unit'
import { countBaseWords } from '#core/adjusters/count'
import { reboundAdvice } from '#core/bench/reboundBench'
import { effectWord, turnSign } from '#core/adjusters/words'
import { startClicks } from '#core/damper/startClicks'
import { useUnits } from '../../composables/useUnits.ts'
import { useBench } from '../../stores/bench.ts'
import { useGarage } from '../../stores/garage.ts'
import { outcomeWords } from '../../support/benchWords.ts'
import ClickRail from '../day/ClickRail.vue'
import RecountDialog from '../garage/RecountDialog.vue'
import EndMark from '../shell/EndMark.vue'

const PackingFigure = defineAsyncComponent(() => import('./PackingFigure.vue'))
type Dial = Extract<Adjuster, { kind: 'click' | 'turn' }>

/** Where to begin with rebound, and what the unit does when pushed. */
const bench = useBench()
const garage = useGarage()
const { positionWords, distanceWords } = useUnits()
const chartFor = ref<string | null>(null)
const recounting = ref<{ unit: SuspensionUnit; dial: Extract<Adjuster, { kind: 'click' }> } | null>(null)
const recountOpen = ref(false)

const dials = computed(() =>
  bench.units.flatMap((u) =>
    u.adjusters
      .filter((a): a is Dial => (a.kind === 'click' || a.kind === 'turn') && a.role.includes('rebound'))
      .map((dial) => {
        const now = bench.positionOf(dial.id)
        const main = u.adjusters.find((a) => a.role === 'main-pressure')
        const psi = main ? bench.positionOf(main.id) : null
        const since = bench.bench!.reboundTests.filter((t) => t.adjusterId === dial.id)
        const held = bench.bike ? garage.currentSetup(bench.bike.id) : undefined
        const earlier = held?.positions.find((p) => p.adjusterId === dial.id)?.value ?? null
        const starts =
          bench.massKg === null || !bench.rider
            ? []
            : startClicks(u, dial, { ridingMassKg: bench.massKg, level: bench.rider.level }, psi, earlier)
        return {
          u,
          dial,
          now,
          starts,
          // High-speed rebound shows on the trail, not in a push.
          tested: dial.role !== 'high-speed-rebound',
          // Where nobody has counted the dial, there is nothing to advise from.
          advice: now === null ? null : reboundAdvice(since, dial, now, bench.rider?.level ?? 'intermediate'),
          tests: since,
        }
      }),
  ),
)
const outcomes: ReboundOutcome[] = ['creeps', 'settles', 'cycles']
function saw(d: (typeof dials.value)[number], outcome: ReboundOutcome) {
  if (d.now === null) return
  bench.set({
    reboundTests: [
      ...bench.bench!.reboundTests,
      {
        id: uuid(),
        end: d.u.end,
        at: new Date().toISOString(),
        adjusterId: d.dial.id,
        value: d.now,
        outcome,
      },
    ],
  })
}
const forget = (id: string) =>
  bench.set({ reboundTests: bench.bench!.reboundTests.filter((t) => t.adjusterId !== id) })
function recount(u: SuspensionUnit, dial: Dial) {
  if (dial.kind !== 'click') return
  recounting.value = { unit: u, dial }
  recountOpen.value = true
}
const moveWords = (d: (typeof dials.value)[number]) =>
  d.now === null || d.advice === null
    ? ''
    : `${distanceWords(d.dial, d.now, d.advice.to)} ${effectWord(d.dial, d.now, d.advice.to)} ${turnSign(d.dial, d.now, d.advice.to) ?? ''}: ${positionWords(d.dial, d.advice.to)} ${countBaseWords(d.dial)}`
/** Where the advice would have it, while it is elsewhere. */
const wished = (d: (typeof dials.value)[number]) =>
  d.advice && (d.advice.kind === 'move' || d.advice.kind === 'good') && d.advice.to !== d.now
    ? d.advice.to
    : null
</script>

<template>
  <div class="step two-up">
    <p>
      <b>Rear:</b> roll off a kerb, seated. <b>Front:</b> push down hard and let go; the wheel should come
      back quickly without leaving the ground. As fast as it goes without kicking.
      <RouterLink to="/handbook/differ/rebound-start">Where to begin, and why</RouterLink>
    </p>
    <section v-for="d in dials" :key="d.dial.id" class="card-paper card half">
      <header>
        <h2><EndMark :end="d.u.end" /> {{ d.u.end === 'front' ? 'Front' : 'Rear' }}, {{ d.u.name }}</h2>
        <button
          v-if="d.dial.kind === 'click'"
          type="button"
          class="btn btn-sm btn-plain"
          @click="recount(d.u, d.dial)"
        >
          Recount the dial
        </button>
      </header>
      <ClickRail
        :end="d.u.end"
        :adjuster="d.dial"
        :value="d.now"
        :known="bench.knownOf(d.dial.id)"
        :ghost="wished(d)"
        :detail="countBaseWords(d.dial)"
        @choose="(v) => bench.setPosition(d.u.end, d.dial.id, v)"
      />
      <div v-if="!d.tests.length && d.starts.length" class="starts num">
        <span class="soft">Begin at</span>
        <button
          v-for="s in d.starts"
          :key="s.from + s.words"
          type="button"
          class="btn btn-sm btn-plain"
          @click="bench.setPosition(d.u.end, d.dial.id, s.value)"
        >
          {{ `${positionWords(d.dial, s.value)} ± ${Math.round(s.spread)}` }}
          <span class="soft">{{ s.words }}</span>
        </button>
      </div>
      <template v-if="d.tested">
        <p v-if="d.now === null" class="caution">
          Count the dial first: close it gently to the stop, counting; then tap where it stood, and open it
          again by the same count.
        </p>
        <div v-else class="choice outcomes" role="group" :aria-label="`What the ${d.u.end} did`">
          <button v-for="o in outcomes" :key="o" type="button" @click="saw(d, o)">
            {{ outcomeWords[o] }}
          </button>
        </div>
        <p v-if="d.advice" role="status" class="advice" :class="d.advice.kind">{{ d.advice.words }}</p>
        <div v-if="wished(d) !== null" class="next">
          <b class="num">{{ moveWords(d) }}</b>
          <BButton variant="sun" @click="bench.setPosition(d.u.end, d.dial.id, wished(d)!)"
            >I’ve turned it there</BButton
          >
        </div>
        <p v-if="d.tests.length" class="soft small num">
          {{
            d.tests.map((t) => `${positionWords(d.dial, t.value)}: ${outcomeWords[t.outcome]}`).join(' · ')
          }}
          <button type="button" class="btn btn-sm" @click="forget(d.dial.id)">Test anew</button>
        </p>
        <button
          type="button"
          class="btn btn-sm btn-plain"
          :aria-expanded="chartFor === d.dial.id"
          @click="chartFor = chartFor === d.dial.id ? null : d.dial.id"
        >
          {{ chartFor === d.dial.id ? 'Hide the packing chart' : 'Recovery and packing chart' }}
        </button>
        <PackingFigure v-if="chartFor === d.dial.id" :end="d.u.end" :dial="d.dial" />
      </template>
      <p v-else class="soft">
        A push does not reach high speed: leave it where the maker has it and judge it on the trail.
      </p>
    </section>
    <RecountDialog
      v-if="recounting"
      v-model:open="recountOpen"
      :unit="recounting.unit"
      :dial="recounting.dial"
      @counted="
        (stoodAt) =>
          recounting && bench.read(recounting.unit.end, recounting.dial.id, stoodAt, 'counted to the stop')
      "
    />
  </div>
</template>

<style scoped>
.step {
  display: grid;
  gap: 0.9rem;
}
p {
  margin: 0;
}
.card {
  padding: 0.8rem 1rem 1rem;
  display: grid;
  gap: 0.6rem;
  justify-items: start;
}
.card > header,
.card > .rail,
.card > .packing {
  width: 100%;
}
header {
  display: flex;
  justify-content: space-between;
  gap: 0.6rem;
  flex-wrap: wrap;
}
.starts {
  display: grid;
  gap: 0.3rem;
  justify-items: start;
}
.starts .btn {
  text-align: left;
  justify-content: start;
  flex-wrap: wrap;
  gap: 0 0.5rem;
}
.advice.good {
  font-weight: 650;
  color: var(--moss);
}
.advice.out-of-range {
  color: var(--rust);
  font-weight: 600;
}
.next {
  display: flex;
  flex-wrap: wrap;
  gap: 0.5rem 1rem;
  align-items: center;
  font-size: 1.1rem;
}
</style>
