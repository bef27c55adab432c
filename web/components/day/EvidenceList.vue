<script setup lang="ts">
import type { Evidence } from '#contract/proposal'

const props = defineProps<{ title: string; kind: 'for' | 'against'; lines: Evidence[]; dayId: string }>()
const most = 3
const runWords = (e: Evidence) =>
  e.runNumbers.length === 0
    ? ''
    : ` (${e.runNumbers.length === 1 ? 'run' : 'runs'} ${e.runNumbers.join(', ')})`
const bar = (e: Evidence) => `${Math.round(Math.min(1, Math.abs(e.weight) / 2.2) * 100)}%`
/** Where a line can be checked: the trace for a figure, the handbook for a word. */
function target(e: Evidence) {
  if (e.link.kind === 'metric' && e.link.runId)
    return { name: 'trace', params: { id: props.dayId, runId: e.link.runId } }
  if (e.link.kind === 'answer') return { name: 'handbook', params: { chapter: 'tables', page: 'questions' } }
  if (e.link.word) return { name: 'handbook', params: { chapter: 'feels', page: e.link.word } }
  return null
}
</script>

<template>
  <div class="evidence" :class="kind">
    <h2>{{ title }}</h2>
    <ul v-if="lines.length">
      <li v-for="e in lines.slice(0, most)" :key="e.text">
        <span class="bar"><i :style="{ width: bar(e) }"></i></span>
        <RouterLink v-if="target(e)" :to="target(e)!">{{ e.text }}{{ runWords(e) }}</RouterLink>
        <span v-else>{{ e.text }}{{ runWords(e) }}</span>
      </li>
    </ul>
    <p v-else class="soft small">Nothing so far.</p>
  </div>
</template>

<style scoped>
h2 {
  font-size: 0.92rem;
}
.for h2 {
  color: var(--moss);
}
.against h2 {
  color: var(--rust);
}
ul {
  list-style: none;
  margin: 0.3rem 0 0;
  padding: 0;
  display: grid;
  gap: 0.3rem;
}
li {
  display: grid;
  grid-template-columns: 44px 1fr;
  gap: 0.55rem;
  font-size: 0.9rem;
  line-height: 1.25;
}
li a {
  color: inherit;
  text-decoration-color: var(--line);
}
.bar {
  display: flex;
  justify-content: flex-end;
  padding-top: 0.35em;
}
.bar i {
  height: 8px;
  min-width: 6px;
  border-radius: 4px;
  background: var(--moss);
}
.against .bar i {
  background: var(--rust);
}
</style>
