<script setup lang="ts">
import type { DayPlan } from '#contract/dayPlan'
import IconDrop from '~icons/lucide/x'

/** What is planned for after the next run, how it came, and the way to do it or to drop it. */
defineProps<{
  plans: readonly { kept: DayPlan; text: string; state: string; line: string; holds: boolean }[]
}>()
const emit = defineEmits<{ do: [kept: DayPlan, line: string]; drop: [kept: DayPlan] }>()
</script>

<template>
  <ul class="plans" aria-label="Planned">
    <li v-for="p in plans" :key="p.kept.id" :class="{ holds: p.holds }">
      <span>
        <b>{{ p.state || 'Waits for the next run' }}</b>
        <span>{{ p.text }}</span>
      </span>
      <button v-if="p.holds" type="button" class="btn btn-sun btn-sm" @click="emit('do', p.kept, p.line)">
        Do it …
      </button>
      <button
        type="button"
        class="btn btn-plain btn-sm"
        :aria-label="`Drop the plan: ${p.text}`"
        title="Drop it"
        @click="emit('drop', p.kept)"
      >
        <IconDrop aria-hidden="true" />
      </button>
    </li>
  </ul>
</template>

<style scoped>
.plans {
  list-style: none;
  margin: 0 0 8px;
  padding: 0;
  display: grid;
  gap: 8px;
}
li {
  display: flex;
  align-items: center;
  gap: 8px;
  padding: 0.3rem 0.5rem 0.3rem 0.9rem;
  border: 1px dashed var(--ink-soft);
  border-radius: 10px;
}
li.holds {
  border: 2px solid var(--sun);
  background: var(--sun-soft);
}
li > span {
  display: grid;
  flex: 1;
}
b::first-letter {
  text-transform: uppercase;
}
.btn {
  min-height: var(--touch);
  min-width: var(--touch);
}
</style>
