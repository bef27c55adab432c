<script setup lang="ts">
import type { DaySummary } from '#contract/endpoints'
import { dayWords, shortDayWords } from '../../support/dates.ts'
import { ratingWords, runsWords } from '../../support/dayWords.ts'

/** A day in a line, the rider first. */
defineProps<{
  day: DaySummary
  /** What is next on it; null where that is not asked. */
  next?: string | null
}>()
const emit = defineEmits<{ remove: [] }>()
</script>

<template>
  <li class="row" :class="{ open: !day.settled }">
    <RouterLink :to="{ name: 'day', params: { id: day.id } }" class="into">
      <b class="rider">{{ day.riderName }}</b>
      <span class="bike">{{ day.bikeName }}</span>
      <span class="trail">{{ day.trailName }}</span>
      <span class="date soft num">{{ shortDayWords(day.date) }}</span>
      <span class="facts num">{{ `${runsWords(day)}, ${ratingWords(day)}` }}</span>
      <!-- Its place is kept while it is worked out: nothing may move under a finger. -->
      <span v-if="next !== undefined" class="next"
        >Next: <b>{{ next ?? '…' }}</b></span
      >
    </RouterLink>
    <span class="state" :class="{ settled: day.settled }">{{ day.settled ? 'settled' : 'open' }}</span>
    <button
      type="button"
      class="btn btn-sm away"
      :aria-label="`Remove ${day.riderName} on ${day.trailName}, ${dayWords(day.date)}`"
      @click="emit('remove')"
    >
      Remove
    </button>
  </li>
</template>

<style scoped>
.row {
  display: flex;
  align-items: center;
  gap: 0.5rem;
  border-bottom: 1px solid var(--line);
}
.into {
  flex: 1;
  min-width: 0;
  display: grid;
  grid-template-columns: 0.8fr 1.1fr 1.2fr 0.7fr 2.2fr;
  gap: 0 0.9rem;
  align-items: baseline;
  padding: 0.55rem 0.3rem;
  color: inherit;
  text-decoration: none;
}
.into:hover .rider {
  text-decoration: underline;
}
.into > span:not(.next, .facts) {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.next {
  grid-column: 1 / -1;
  min-height: 1.5em;
}
.state {
  border-radius: 8px;
  padding: 0.1rem 0.6rem;
  background: var(--sun-soft);
  color: var(--sun-ink);
  font-size: 0.88rem;
}
.state.settled {
  background: var(--front-soft);
  color: var(--ink);
}
.away {
  color: var(--ink-soft);
}
@media (max-width: 720px) {
  .into {
    grid-template-columns: auto minmax(0, 1fr) auto;
    gap: 0 0.6rem;
    padding: 0.45rem 0.3rem;
  }
  .bike {
    grid-column: 2 / 4;
  }
  .trail {
    grid-column: 1 / 3;
  }
  .facts {
    grid-column: 1 / -1;
  }
  /* A day is removed from its own page there. */
  .away {
    display: none;
  }
  .facts {
    font-size: 0.88rem;
  }
  .state {
    display: none;
  }
}
</style>
