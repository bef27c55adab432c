<script setup lang="ts">
import { computed } from 'vue'
import type { DrillGroup } from '#core/practice/drill'
import { drillGroups, drills } from '#core/practice/drills'
import { readDraft } from '../../support/drafts.ts'
import { lastSeedKey } from '../../support/practiceWords.ts'

/** All drills, from easy to hard. */
const groups = computed(() =>
  (Object.keys(drillGroups) as DrillGroup[]).map((key) => ({
    key,
    name: drillGroups[key],
    drills: drills
      .filter((d) => d.group === key)
      .map((d) => ({ ...d, seed: readDraft<number>(lastSeedKey(d.key)) ?? 1 })),
  })),
)
const coachSeed = computed(() => readDraft<number>(lastSeedKey('coach')) ?? 1)
</script>

<template>
  <div class="groups">
    <section v-for="g in groups" :key="g.key" :class="g.key" :aria-labelledby="`drills-${g.key}`">
      <h2 :id="`drills-${g.key}`">{{ g.name }}</h2>
      <ul>
        <li v-for="d in g.drills" :key="d.key">
          <RouterLink class="drill" :to="{ name: 'practice', params: { drill: d.key, seed: d.seed } }">
            <b>{{ d.title }}</b>
            <span>{{ d.before }}</span>
            <span v-if="d.seed > 1" class="soft small num">{{ `rider ${d.seed}` }}</span>
          </RouterLink>
        </li>
      </ul>
    </section>
    <section aria-labelledby="drills-coach">
      <h2 id="drills-coach">In the tent</h2>
      <ul>
        <li>
          <RouterLink class="drill" :to="{ name: 'practice', params: { drill: 'coach', seed: coachSeed } }">
            <b>Three at once, by the clock</b>
            <span
              >Each wants something else, and the track is open for 75 minutes. What is done with one takes
              time from the others.</span
            >
          </RouterLink>
        </li>
      </ul>
    </section>
    <section aria-labelledby="drills-bench">
      <h2 id="drills-bench">On the bench</h2>
      <ul>
        <li>
          <RouterLink class="drill" :to="{ name: 'practice', params: { drill: 'bench', seed: 1 } }">
            <b>Ring, count, stopwatch</b>
            <span>Sag from readings, per cent and millimetres, three ways to count, rebound by hand.</span>
          </RouterLink>
        </li>
      </ul>
    </section>
  </div>
</template>

<style scoped>
.groups {
  columns: 3 300px;
  column-gap: 1.4rem;
}
section {
  break-inside: avoid;
  margin-bottom: 1.2rem;
}
ul {
  list-style: none;
  margin: 0.4rem 0 0;
  padding: 0;
  display: grid;
  gap: 0.45rem;
}
.drill {
  display: grid;
  gap: 0.1rem;
  padding: 0.55rem 0.8rem;
  border: 1px solid var(--line);
  border-left: 5px solid var(--line);
  border-radius: var(--radius);
  background: var(--card);
  color: inherit;
  text-decoration: none;
}
.drill:hover {
  border-left-color: var(--moss);
}
.first .drill {
  border-left-color: var(--sun);
  background: var(--sun-soft);
  color: var(--sun-ink);
}
.drill span {
  font-size: 0.92rem;
}
</style>
