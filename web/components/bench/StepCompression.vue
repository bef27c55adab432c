<script setup lang="ts">
import { computed } from 'vue'
import type { Adjuster } from '#contract/adjuster'
import { countBaseWords } from '#core/adjusters/count'
import { adjusterRange, clampToRange } from '#core/adjusters/range'
import { useBench } from '../../stores/bench.ts'
import ClickRail from '../day/ClickRail.vue'
import EndMark from '../shell/EndMark.vue'

/** Compression open, or at the maker's middle, to be judged on the trail. */
const bench = useBench()
const parts = computed(() =>
  bench.units
    .map((u) => ({
      u,
      dials: u.adjusters.filter((a) => a.role.includes('compression') || a.kind === 'lever'),
    }))
    .filter((x) => x.dials.length),
)
const openAt = (a: Adjuster) => (a.kind === 'lever' ? 0 : adjusterRange(a).max)
const middleOf = (a: Adjuster) => {
  const r = adjusterRange(a)
  return a.kind === 'lever' ? 0 : clampToRange(a, (r.min + r.max) / 2)
}
function all(where: (a: Adjuster) => number) {
  for (const { u, dials } of parts.value) for (const a of dials) bench.setPosition(u.end, a.id, where(a))
}
</script>

<template>
  <div class="step two-up">
    <p>
      Open first, judge, then firmer: low-speed against dive, squat and wallow, high-speed last and least.
      Levers open for descents. Butter-soft over kerb cracks is not yet good on the trail.
      <RouterLink to="/handbook/differ/compression">What compression is for</RouterLink>
    </p>
    <div class="acts">
      <BButton variant="plain" @click="all(openAt)">All open</BButton>
      <BButton variant="plain" @click="all(middleOf)">The middle of each dial</BButton>
    </div>
    <section v-for="p in parts" :key="p.u.id" class="half">
      <h2><EndMark :end="p.u.end" /> {{ p.u.end === 'front' ? 'Front' : 'Rear' }}, {{ p.u.name }}</h2>
      <ClickRail
        v-for="a in p.dials"
        :key="a.id"
        :end="p.u.end"
        :adjuster="a"
        :value="bench.positionOf(a.id)"
        :known="bench.knownOf(a.id)"
        :detail="countBaseWords(a)"
        @choose="(v) => bench.setPosition(p.u.end, a.id, v)"
      />
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
.acts {
  display: flex;
  gap: 0.5rem;
  flex-wrap: wrap;
}
</style>
