<script setup lang="ts">
import { computed } from 'vue'
import type { HourLine } from '#contract/hour'
import { useUnits } from '../../composables/useUnits.ts'
import { clockWords } from '../../support/dates.ts'
import { hourWords } from '../../support/hourWords.ts'

/** The lines that were noted before, the latest first, each to be taken out again. */
const props = defineProps<{ hours: readonly HourLine[] }>()
const emit = defineEmits<{ remove: [line: HourLine] }>()
const { units } = useUnits()
const before = computed(() =>
  [...props.hours].reverse().map((h) => ({ h, words: `${clockWords(h.at)}: ${hourWords(h, units.value)}` })),
)
</script>

<template>
  <ul v-if="before.length" class="wide num" aria-label="Noted before">
    <li v-for="b in before" :key="b.h.id">
      <span>{{ b.words }}</span>
      <button type="button" class="btn btn-sm soft" @click="emit('remove', b.h)">Remove</button>
    </li>
  </ul>
</template>

<style scoped>
ul {
  list-style: none;
  margin: 0;
  padding: 0;
  max-height: 220px;
  overflow-y: auto;
}
li {
  display: flex;
  justify-content: space-between;
  align-items: center;
  border-bottom: 1px solid var(--line);
}
</style>
