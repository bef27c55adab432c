<script setup lang="ts">
import { computed } from 'vue'
import { adjusterName } from '#core/adjusters/words'
import { countBaseWords } from '#core/adjusters/count'
import { useUnits } from '../../composables/useUnits.ts'
import type { StartEstimate } from '../../support/firstBike.ts'
import EndMark from '../shell/EndMark.vue'

/** One number to start with: an estimate until somebody says that it is on the bike. */
const props = defineProps<{ estimate: StartEstimate; set: boolean }>()
const emit = defineEmits<{ set: [] }>()
const { positionWords, say } = useUnits()
const e = computed(() => props.estimate)
const name = computed(
  () => `${e.value.end === 'front' ? 'Fork' : 'Shock'} ${adjusterName(e.value.adjuster).toLowerCase()}`,
)
const spread = computed(() =>
  e.value.adjuster.kind === 'pressure'
    ? say('pressure', e.value.spread)
    : `${Math.round(e.value.spread)} clicks`,
)
const value = computed(() =>
  `${positionWords(e.value.adjuster, e.value.value)} ${countBaseWords(e.value.adjuster)}`.trim(),
)
</script>

<template>
  <li>
    <span class="what"><EndMark :end="e.end" /> {{ name }}</span>
    <b class="num value">{{ `about ${value}` }}</b>
    <span class="soft small">{{ `Estimate, ±${spread}: ${e.words}.` }}</span>
    <button
      type="button"
      class="btn btn-plain"
      :aria-pressed="set"
      :aria-label="`I’ve set ${name} to ${value}`"
      @click="emit('set')"
    >
      {{ set ? '✓ It is on the bike' : 'I’ve set it' }}
    </button>
  </li>
</template>

<style scoped>
li {
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
  gap: 0.1rem 1rem;
  align-items: center;
  padding: 0.6rem 0;
  border-bottom: 1px solid var(--line);
}
.value {
  font-size: 1.15rem;
}
.btn[aria-pressed='true'] {
  background: var(--front-soft);
  color: var(--ink);
}
</style>
