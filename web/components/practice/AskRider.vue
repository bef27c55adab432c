<script setup lang="ts">
import type { End } from '#contract/common'
import type { Askable, Lookable } from '../../support/practiceWords.ts'

/** What costs no run: questions to the rider, sag by the ring, counts and gauge. */
defineProps<{
  questions: readonly Askable[]
  /** Ends whose sag can be read, with what was read on these settings. */
  sags: readonly { end: End; pct: number | null; targetPct: number }[]
  looks: readonly Lookable[]
}>()
const emit = defineEmits<{ ask: [q: Askable]; read: [end: End]; look: [id: string] }>()
const capital = (text: string) => text.charAt(0).toUpperCase() + text.slice(1)
</script>

<template>
  <section class="card-paper free" aria-labelledby="free-title">
    <h2 id="free-title">Costs no run</h2>
    <ul>
      <li v-for="q in questions" :key="`${q.id} ${q.end}`">
        <button v-if="q.answer === null" type="button" class="btn btn-plain" @click="emit('ask', q)">
          {{ `Ask${q.end ? `, ${q.end}` : ''}: ${q.ask}` }}
        </button>
        <p v-else>
          <span class="soft">{{ q.ask }}</span> <q>{{ q.answer }}</q>
        </p>
      </li>
      <li v-for="s in sags" :key="s.end" class="sag">
        <button type="button" class="btn btn-plain" @click="emit('read', s.end)">
          {{ `Read sag, ${s.end}${s.pct === null ? '' : ' again'}` }}
        </button>
        <span v-if="s.pct !== null" class="num" role="status">{{
          `${s.pct} % of the stroke, target ${s.targetPct} %`
        }}</span>
      </li>
    </ul>
    <details v-if="looks.length">
      <summary>Count to the stop, or put the gauge on</summary>
      <ul>
        <li v-for="l in looks" :key="l.id" class="sag">
          <button type="button" class="btn btn-plain" @click="emit('look', l.id)">
            {{ capital(l.label) }}
          </button>
          <span v-if="l.said !== null" class="num" role="status">{{ l.said }}</span>
        </li>
      </ul>
    </details>
  </section>
</template>

<style scoped>
.card-paper {
  padding: 0.8rem 1rem;
}
ul {
  list-style: none;
  margin: 0.4rem 0 0;
  padding: 0;
  display: grid;
  gap: 0.4rem;
}
li .btn {
  text-align: left;
}
p {
  margin: 0;
}
q {
  font-weight: 650;
}
.sag {
  display: flex;
  flex-wrap: wrap;
  gap: 0.3rem 0.8rem;
  align-items: center;
}
</style>
