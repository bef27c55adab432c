<script setup lang="ts">
import { computed } from 'vue'
import type { DayKnowledge } from '#core/adviser/summary'
import { shortDayWords } from '../../support/dates.ts'

const props = defineProps<{
  remembered: DayKnowledge['remembered']
  /** Judged on its own, by choice. */
  alone: boolean
  /** They could not be fetched. */
  failed: boolean
  past: boolean
}>()
const emit = defineEmits<{ alone: [yes: boolean] }>()
const from = computed(() => props.remembered?.dates.map(shortDayWords).join(', ') ?? '')
</script>

<template>
  <section v-if="remembered || alone || failed" class="earlier" aria-labelledby="earlier-title">
    <h2 id="earlier-title">From earlier days</h2>
    <p v-if="alone" class="soft small">This day is judged on its own.</p>
    <p v-else-if="failed" class="soft small">
      Earlier days could not be fetched, so this one is judged on its own.
    </p>
    <template v-else-if="remembered">
      <p class="soft small">{{ from }}</p>
      <ul>
        <li v-for="w in remembered.words" :key="w">{{ w }}</li>
      </ul>
    </template>
    <button v-if="!failed && !past" type="button" class="btn btn-plain" @click="emit('alone', !alone)">
      {{ alone ? 'Start from earlier days' : 'Judge this day on its own' }}
    </button>
  </section>
</template>

<style scoped>
.earlier {
  margin-top: 1rem;
  padding-top: 0.7rem;
  border-top: 1px solid var(--line);
}
ul {
  margin: 0.3rem 0 0.6rem;
  padding-left: 1.1rem;
  font-size: 0.9rem;
}
li {
  margin-bottom: 0.25rem;
}
p {
  margin: 0.2rem 0;
}
</style>
