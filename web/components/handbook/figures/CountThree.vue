<script setup lang="ts">
import { computed, ref } from 'vue'
import type { Adjuster, CountBase } from '#contract/adjuster'
import { countBaseWords, toCount } from '#core/adjusters/count'
import ClickRail from '../../day/ClickRail.vue'
import FigureFrame from './FigureFrame.vue'

/** One dial, three counts: what each number is while the dial is turned. */
const at = ref(5)
const dial = (countBase: CountBase): Adjuster => ({
  id: 'figure',
  alias: null,
  tool: 'hand',
  kind: 'click',
  role: 'rebound',
  clicks: 14,
  step: 1,
  countBase,
})
const bases = ['closed-0', 'closed-1', 'open'] as const
const counts = computed(() =>
  bases.map((b) => ({
    base: b,
    words: countBaseWords(dial(b)) || 'from closed',
    count: toCount(dial(b), at.value),
  })),
)
const tells = computed(
  () =>
    `The same place is ${counts.value.map((c) => `${c.count} ${c.words}`).join(', ')}. Who says “${counts.value[2].count}” and means another count is ${Math.abs(counts.value[2].count - counts.value[0].count)} clicks off.`,
)
</script>

<template>
  <FigureFrame title="One dial, three counts">
    <ClickRail end="rear" :adjuster="dial('closed-0')" :value="at" @choose="(v) => (at = v)" />
    <dl>
      <div v-for="c in counts" :key="c.base">
        <dt>{{ c.words }}</dt>
        <dd class="num">{{ c.count }}</dd>
      </div>
    </dl>
    <template #tells>{{ tells }}</template>
  </FigureFrame>
</template>

<style scoped>
dl {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(120px, 1fr));
  gap: 0.5rem;
  margin: 0;
}
dd {
  margin: 0;
  font: 700 1.8rem var(--head-font);
}
</style>
