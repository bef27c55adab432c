<script setup lang="ts">
import type { AskedQuestion } from '#contract/question'
import { questionRules } from '#core/causes/questions'

defineProps<{ question: AskedQuestion; busy: boolean; asLook: boolean }>()
const emit = defineEmits<{ answer: [answer: string] }>()
</script>

<template>
  <div class="taps" role="group" :aria-label="questionRules[question.id].ask">
    <p v-if="asLook" class="ask">{{ questionRules[question.id].ask }}</p>
    <button
      v-for="a in question.answers"
      :key="a.id"
      type="button"
      class="tap"
      :disabled="busy"
      @click="emit('answer', a.id)"
    >
      <b>{{ a.label }}</b>
      <span class="soft small">→ {{ a.leadsTo }}</span>
    </button>
  </div>
</template>

<style scoped>
.taps {
  display: grid;
  gap: 0.5rem;
  margin: 0.6rem 0;
}
.ask {
  margin: 0;
  font-weight: 600;
}
.tap {
  display: grid;
  gap: 0.1rem;
  text-align: left;
  min-height: 56px;
  padding: 0.45rem 0.8rem;
  border: 1.5px solid var(--line);
  border-left: 6px solid var(--sun);
  border-radius: 4px 16px 16px 4px;
  background: var(--card);
  color: var(--ink);
}
.tap:last-child {
  border-left-color: var(--line);
}
.tap:hover {
  background: var(--paper-deep);
}
</style>
