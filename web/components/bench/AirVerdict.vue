<script setup lang="ts">
import { computed, toRef } from 'vue'
import type { End } from '#contract/common'
import { useSagStep } from '../../composables/useSagStep.ts'
import { useUnits } from '../../composables/useUnits.ts'
import { useBench } from '../../stores/bench.ts'

/** Where an air unit stands, and the pressure to set next with what to expect of it. */
const props = defineProps<{ end: End }>()
const bench = useBench()
const { say, sayDifference } = useUnits()
const s = useSagStep(toRef(props, 'end'))
const { main, gauge, last, sagPct, offPct, inWindow, solution, judged, repeats, pressurePsi } = s

/** Less than this no gauge shows. */
const noticedPsi = 0.5

const nowWords = computed(() => {
  if (sagPct.value === null || offPct.value === null) return null
  const where = inWindow.value ? 'inside the window' : offPct.value > 0 ? 'too deep' : 'too shallow'
  const of = repeats.value.length > 1 ? `mean of ${repeats.value.length}` : 'one reading'
  const at = repeats.value.at(-1)?.pressurePsi ?? 0
  return `Sag ${sagPct.value.toFixed(1)} %, ${say('length', (sagPct.value / 100) * s.unit.value.strokeMm)}, at ${say('pressure', at)}, ${of}: ${where}`
})
/** There are readings, and none of them counts as it stands now. */
const unread = computed(() => last.value !== null && repeats.value.length === 0)
const next = computed(() => {
  const x = solution.value
  if (!x || inWindow.value || judged.value?.again || Math.abs(x.pressurePsi - (pressurePsi.value ?? 0)) < 0.5)
    return null
  const psi = Math.round(x.pressurePsi)
  const by = psi - Math.round(pressurePsi.value ?? psi)
  return {
    psi,
    title: `Set ${say('pressure', psi)}`,
    spread: `± ${sayDifference('pressure', Math.max(1, Math.round(x.spreadPsi)))}`,
    by: `${sayDifference('pressure', Math.abs(by))} ${by > 0 ? 'firmer' : 'softer'}`,
    expect: `It should stand at ${x.expectedSagPct.toFixed(1)} % (± ${Math.max(0.5, x.expectedSpreadPct).toFixed(1)}).`,
  }
})
const onTheGauge = computed(() => {
  const x = next.value
  if (!x || !gauge.value || gauge.value.readsHighPsi === 0) return null
  return `The gauge “${gauge.value.name}” should show ${say('pressure', s.onGauge(x.psi))}.`
})
/** What the number rests on, where it would be another one up a mountain. */
const height = computed(() => {
  const by = s.byHeightPsi.value
  if (by === null || !next.value || Math.abs(by) < noticedPsi) return null
  return `Worked out for sea level, since nobody said how high it is here: at ${say('altitude', s.farUpM)} it would be about ${sayDifference('pressure', Math.round(Math.abs(by)))} ${by > 0 ? 'firmer' : 'softer'}. Say the altitude in the first step.`
})
const reconnect = computed(() => {
  const now = pressurePsi.value
  if (now === null || !next.value) return null
  const loss = s.reconnectLossPsi(now)
  return `Putting the pump on fills its hose: expect about ${sayDifference('pressure', Math.max(1, Math.round(loss)))} less. Bring it back to ${say('pressure', s.onGauge(now))} first, then go to the new pressure.`
})
const clamp = computed(() => {
  const x = solution.value
  if (!x?.clampedBy || !main.value || inWindow.value) return null
  return x.clampedBy === 'max'
    ? `The target would need more than the ${say('pressure', main.value.maxPsi)} this unit may have. At its most it stands at ${x.expectedSagPct.toFixed(0)} %: accept that sag, or ask a workshop for another unit or air can. Spacers change little at sag.`
    : `The target would need less than the ${say('pressure', main.value.minPsi)} this unit works with. At its least it stands at ${x.expectedSagPct.toFixed(0)} %: accept that, take out spacers, or ask a workshop about a lighter tune.`
})
function take() {
  if (next.value && main.value) bench.setPosition(props.end, main.value.id, next.value.psi)
}
</script>

<template>
  <div v-if="last" class="verdict" :class="{ good: inWindow }">
    <p v-if="nowWords" class="now num">{{ nowWords }}</p>
    <p v-if="unread && pressurePsi !== null">
      {{ `Sag is unread at ${say('pressure', pressurePsi)}, in this posture, on this gauge: read it there.` }}
    </p>
    <p v-if="judged?.again" class="again">
      The readings differ by more than a ring can be off, so they give no number yet: take one more, the same
      way.
    </p>
    <template v-if="inWindow">
      <p v-if="repeats.length < 2">Take one more reading to be sure; two that agree are a baseline.</p>
      <p v-else>Two readings agree. From now on the pressure is the reference, not the sag.</p>
    </template>
    <template v-else-if="next">
      <p class="next num">
        <b>{{ next.title }}</b> <span class="soft">{{ `${next.spread} · ${next.by}` }}</span>
      </p>
      <p>{{ next.expect }} {{ onTheGauge }}</p>
      <p v-if="height" class="soft small">{{ height }}</p>
      <p v-if="reconnect" class="soft small">{{ reconnect }}</p>
      <p class="soft small">
        Cycle it ten times through a quarter of its travel after changing the pressure.
      </p>
      <BButton variant="sun" @click="take">{{ `I’ve set ${say('pressure', next.psi)}` }}</BButton>
    </template>
    <p v-if="clamp" class="caution">{{ clamp }}</p>
    <p v-if="solution?.fitted" class="soft small">
      The readings reach far enough apart to fit this unit’s negative chamber; the answer uses it.
    </p>
    <p v-if="!main" class="soft">
      This unit has no pressure to set yet: add one to it in the first step, then read again.
    </p>
    <p v-else-if="!solution" class="soft small">
      None of the readings counts in the present posture and on this gauge; read once so.
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
.next b {
  font: 700 1.6rem var(--head-font);
}
.again {
  color: var(--rust);
  font-weight: 600;
}
</style>
