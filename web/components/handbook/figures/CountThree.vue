<script setup lang="ts">
import { computed, ref } from 'vue'
import type { Adjuster, CountBase } from '#contract/adjuster'
import type { End } from '#contract/common'
import { countBaseWords, toCount } from '#core/adjusters/count'
import { ownRebound } from '#core/setup/ownNumbers'
import { useOwnNumbers } from '../../../composables/useOwnNumbers.ts'
import ClickRail from '../../day/ClickRail.vue'
import FigureFrame from './FigureFrame.vue'

/** One dial, three counts: what each number is while the dial is turned. */
const numbers = useOwnNumbers(({ now, unitAt }) => {
  const end: End = unitAt('rear') ? 'rear' : 'front'
  const found = ownRebound(unitAt(end), now)
  return typeof found === 'string' ? found : { ...found, end }
})
const invented: { adjuster: Adjuster & { kind: 'click' }; value: number; end: End } = {
  adjuster: {
    id: 'figure',
    alias: null,
    tool: 'hand',
    kind: 'click',
    role: 'rebound',
    clicks: 14,
    step: 1,
    countBase: 'closed-0',
  },
  value: 5,
  end: 'rear',
}
const { adjuster, value, end } = numbers.own ?? invented
const at = ref(value)
const dial = (countBase: CountBase): Adjuster => ({ ...adjuster, countBase })
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
  <FigureFrame title="One dial, three counts" :numbers="numbers">
    <ClickRail :end="end" :adjuster="dial('closed-0')" :value="at" @choose="(v) => (at = v)" />
    <dl>
      <div v-for="c in counts" :key="c.base">
        <dt>{{ c.words }}</dt>
        <dd class="num">{{ c.count }}</dd>
      </div>
    </dl>
    <template #tells>{{ tells }}</template>
    <template v-if="numbers.own" #taken>{{
      `The ${end} rebound of this bike, counted ${countBaseWords(adjuster) || 'from closed'} there. Turning it here turns nothing on the bike.`
    }}</template>
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
