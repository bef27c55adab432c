<script setup lang="ts">
import { computed } from 'vue'
import { adjusterRange } from '#core/adjusters/range'
import { preparationChecks } from '#core/bench/preparation'
import { useBench } from '../../stores/bench.ts'

/** What to look at before the first reading. */
const bench = useBench()
const checks = computed(() => preparationChecks(bench.units))
type Answer = 'right' | 'out' | null
const answerOf = (key: string): Answer =>
  bench.bench!.checks.includes(key) ? 'right' : bench.bench!.checksOut.includes(key) ? 'out' : null
/** A second tap on an answer takes it back. */
function say(key: string, answer: Exclude<Answer, null>) {
  const now = answerOf(key) === answer ? null : answer
  const without = (list: readonly string[]) => list.filter((k) => k !== key)
  const { checks, checksOut } = bench.bench!
  bench.set({
    checks: now === 'right' ? [...without(checks), key] : without(checks),
    checksOut: now === 'out' ? [...without(checksOut), key] : without(checksOut),
  })
  if (now === 'right' && key === 'levers-open') open((a) => a.kind === 'lever')
  if (now === 'right' && key === 'compression-open') open((a) => a.role.includes('compression'))
}
const unsound = computed(() => answerOf('sound') === 'out')
/** What is ticked as open stands open. */
function open(which: (a: (typeof bench.units)[number]['adjusters'][number]) => boolean) {
  for (const u of bench.units)
    for (const a of u.adjusters)
      if (which(a)) bench.setPosition(u.end, a.id, a.kind === 'lever' ? 0 : adjusterRange(a).max)
}
</script>

<template>
  <div>
    <p v-if="unsound" class="caution" role="alert">
      Do not ride it. Oil, play, clanks or a unit that won’t return belong to a workshop before anything is
      set.
    </p>
    <ul class="checks">
      <li v-for="c in checks" :key="c.key">
        <span class="words"
          ><b>{{ c.words }}</b
          ><span class="soft small">{{ c.more }}</span></span
        >
        <span class="choice" role="group" :aria-label="c.words">
          <button type="button" :aria-pressed="answerOf(c.key) === 'right'" @click="say(c.key, 'right')">
            Looked at, right
          </button>
          <button
            type="button"
            class="out"
            :aria-pressed="answerOf(c.key) === 'out'"
            @click="say(c.key, 'out')"
          >
            That is out
          </button>
        </span>
      </li>
    </ul>
  </div>
</template>

<style scoped>
.checks {
  list-style: none;
  padding: 0;
  margin: 0;
}
li {
  display: flex;
  flex-wrap: wrap;
  justify-content: space-between;
  gap: 0.4rem 1rem;
  align-items: center;
  min-height: 56px;
  border-bottom: 1px solid var(--line);
  padding: 0.4rem 0;
}
.words {
  flex: 1 1 280px;
}
b,
.small {
  display: block;
}
b {
  font-weight: 600;
}
.choice button {
  min-height: 44px;
  white-space: nowrap;
}
.out[aria-pressed='true'] {
  background: var(--rust);
  border-color: var(--rust);
}
</style>
