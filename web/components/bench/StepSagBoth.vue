<script setup lang="ts">
import { computed, ref } from 'vue'
import type { End } from '#contract/common'
import { balanceNow, targetInPosture } from '#core/bench/balance'
import { sagNow } from '#core/bench/sagNow'
import { useBench } from '../../stores/bench.ts'
import EndMark from '../shell/EndMark.vue'
import ReadingList from './ReadingList.vue'
import SagReadingForm from './SagReadingForm.vue'
import SagRuler from './SagRuler.vue'

/** Both ends carrying the rider at once, and how they stand to each other. */
const bench = useBench()
const end = ref<End>('front')
const ends: End[] = ['front', 'rear']
const sagOf = (e: End) => sagNow(bench.bench!, bench.unit(e)!, true).pct
const balance = computed(() => balanceNow(bench.bench!, bench.units, bench.benchRider.shares))
/** The target of an end as it stands in the ready position, where the reading is taken. */
function targetOf(e: End): number {
  const u = bench.unit(e)!
  const main = u.adjusters.find((a) => a.role === 'main-pressure')
  const spacer = u.adjusters.find((a) => a.kind === 'spacer')
  const target = targetInPosture(
    u,
    u.sagTargetPct,
    bench.bench!.posture[e],
    'ready',
    bench.benchRider.shares,
    main ? bench.positionOf(main.id) : null,
    (spacer && bench.positionOf(spacer.id)) ?? 0,
  )
  return Math.round(target * 10) / 10
}
</script>

<template>
  <div class="step two-up">
    <p>
      Set each end alone first. Now settle once in the ready position, push both rings, get off, and read
      both. The targets are those of the ready position: less of you stands on the rear than seated. A
      balanced bike that is a little wrong still rides better than an unbalanced one.
    </p>
    <div v-for="e in ends" :key="e" class="half">
      <h2><EndMark :end="e" /> {{ e === 'front' ? 'Front' : 'Rear' }}</h2>
      <SagRuler :end="e" :stroke-mm="bench.unit(e)!.strokeMm" :target-pct="targetOf(e)" :sag-pct="sagOf(e)" />
    </div>
    <p v-if="balance" class="balance" :class="balance.verdict" role="status">
      <b class="num">{{ `${balance.leanPoints > 0 ? '+' : ''}${balance.leanPoints.toFixed(1)} points` }}</b>
      {{ balance.words }}
    </p>
    <section class="card-paper panel">
      <span class="choice" role="group" aria-label="Which end is read">
        <button v-for="e in ends" :key="e" type="button" :aria-pressed="end === e" @click="end = e">
          {{ e === 'front' ? 'Front' : 'Rear' }}
        </button>
      </span>
      <SagReadingForm :key="end" :end="end" together />
    </section>
    <ReadingList v-for="e in ends" :key="e" :end="e" together />
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
.balance {
  border-left: 6px solid var(--sun);
  padding-left: 1rem;
}
.balance.balanced {
  border-color: var(--moss);
}
.panel {
  padding: 0.8rem 1rem 1rem;
  display: grid;
  gap: 0.6rem;
}
</style>
