<script setup lang="ts">
import { computed } from 'vue'
import { adjusterRange } from '#core/adjusters/range'
import { preparationChecks } from '#core/bench/preparation'
import { useBench } from '../../stores/bench.ts'

/** What to look at before the first reading. */
const bench = useBench()
const checks = computed(() => preparationChecks(bench.units))
const ticked = (key: string) => bench.bench!.checks.includes(key)
function tick(key: string) {
  const list = bench.bench!.checks
  bench.set({ checks: ticked(key) ? list.filter((k) => k !== key) : [...list, key] })
  if (key === 'levers-open' && !list.includes(key)) open((a) => a.kind === 'lever')
  if (key === 'compression-open' && !list.includes(key)) open((a) => a.role.includes('compression'))
}
/** What is ticked as open stands open. */
function open(which: (a: (typeof bench.units)[number]['adjusters'][number]) => boolean) {
  for (const u of bench.units)
    for (const a of u.adjusters)
      if (which(a)) bench.setPosition(u.end, a.id, a.kind === 'lever' ? 0 : adjusterRange(a).max)
}
</script>

<template>
  <ul class="checks">
    <li v-for="c in checks" :key="c.key">
      <label>
        <input type="checkbox" class="form-check-input" :checked="ticked(c.key)" @change="tick(c.key)" />
        <span
          ><b>{{ c.words }}</b
          ><span class="soft small">{{ c.more }}</span></span
        >
      </label>
    </li>
  </ul>
</template>

<style scoped>
.checks {
  list-style: none;
  padding: 0;
  margin: 0;
}
label {
  display: grid;
  grid-template-columns: auto 1fr;
  gap: 0.8rem;
  align-items: center;
  min-height: 56px;
  border-bottom: 1px solid var(--line);
  padding: 0.3rem 0;
}
input {
  width: 1.6rem;
  height: 1.6rem;
  margin: 0;
}
b,
.small {
  display: block;
}
b {
  font-weight: 600;
}
</style>
