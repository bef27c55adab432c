<script setup lang="ts">
import type { Review } from '#core/practice/review/review'
import { standingWords } from '../../support/practiceWords.ts'

/** What each run of a day could have told, and how it was ended. */
defineProps<{ review: Review }>()
</script>

<template>
  <ul>
    <li v-for="m in review.remarks" :key="m.runs[0]">
      <b class="num">{{ `run ${m.runs.join(', ')}` }}</b>
      <span>{{ m.says }}</span>
      <b class="standing" :class="m.standing">{{ standingWords[m.standing] }}</b>
    </li>
    <li>
      <b>the end</b>
      <span>{{ review.ending.says }}</span>
      <b class="standing" :class="review.ending.standing">{{ standingWords[review.ending.standing] }}</b>
    </li>
  </ul>
</template>

<style scoped>
ul {
  list-style: none;
  padding: 0;
  margin: 0.4rem 0 1rem;
}
li {
  display: grid;
  grid-template-columns: 64px minmax(0, 1fr) auto;
  gap: 0.2rem 0.8rem;
  padding: 0.55rem 0;
  border-top: 1px solid var(--line);
}
.standing {
  white-space: nowrap;
}
.standing.well-done,
.standing.found {
  color: color-mix(in srgb, var(--moss) 65%, var(--ink));
}
.standing.open,
.standing.missed {
  color: var(--rust);
}
</style>
