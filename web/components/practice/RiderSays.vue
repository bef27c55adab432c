<script setup lang="ts">
import { computed } from 'vue'
import type { Feel, FeelWord, Run } from '#contract/run'
import type { TrailSection } from '#contract/trail'
import { wordRules } from '#core/causes/words'
import { useUnits } from '../../composables/useUnits.ts'
import EndMark from '../shell/EndMark.vue'
import { mindWords } from '../../support/words.ts'

/** What the rider of practice says of a run, and what was read on the bike afterwards. */
const props = defineProps<{
  run: Run
  number: number
  said: Pick<Feel, 'rating' | 'marks'>
  /** As people talk, not in the words of the strip: whoever listens finds the word for it. */
  asPeopleTalk: boolean
  sections: readonly TrailSection[]
  strokesMm: { front: number | null; rear: number | null }
}>()
const { say } = useUnits()
/** One of the ways to say it, the same each time this run is looked at. */
function talked(word: FeelWord, place: number): string {
  const { aliases } = wordRules[word]
  return aliases[(3 * props.number + place) % aliases.length]
}
const words = computed(() =>
  props.said.marks.map((m, i) => ({
    id: m.id,
    end: m.end,
    words: props.asPeopleTalk ? talked(m.word, i) : wordRules[m.word].label,
    where: props.sections.find((s) => s.id === m.sectionId)?.name ?? 'whole run',
    strength: { 1: 'a little', 2: '', 3: 'strong' }[m.strength],
  })),
)
const rings = computed(() =>
  (['front', 'rear'] as const).flatMap((end) => {
    const mm = end === 'front' ? props.run.ringFrontMm : props.run.ringRearMm
    const stroke = props.strokesMm[end]
    return mm === null || stroke === null
      ? []
      : [{ end, words: `${mm} of ${stroke} mm`, share: Math.round((100 * mm) / stroke) }]
  }),
)
</script>

<template>
  <section class="card-paper says" aria-labelledby="says-title">
    <header>
      <h2 id="says-title">{{ `Run ${number}, the rider says` }}</h2>
      <span v-if="run.mind !== 'normal'" class="mind">{{ mindWords[run.mind] }}</span>
      <span v-if="run.airTempC !== null" class="soft num">{{ say('temperature', run.airTempC) }}</span>
    </header>
    <div class="body">
      <p class="rating">
        <b class="num">{{ said.rating }}</b> <span class="soft small">of 10</span>
      </p>
      <ul v-if="words.length">
        <li v-for="m in words" :key="m.id">
          <EndMark v-if="m.end !== 'both'" :end="m.end" small />
          <q>{{ m.words }}</q>
          <span class="soft">{{
            `${m.where}${m.end === 'both' ? '' : `, ${m.end}`}${m.strength ? `, ${m.strength}` : ''}`
          }}</span>
        </li>
      </ul>
      <p v-else class="soft">Says nothing more. That proves nothing either way.</p>
      <p class="rings soft small">
        <span v-for="r in rings" :key="r.end"
          ><EndMark :end="r.end" small /> {{ `Ring ${r.end} ${r.words}, ${r.share} %` }}</span
        >
      </p>
    </div>
  </section>
</template>

<style scoped>
.card-paper {
  padding: 0.8rem 1rem;
}
header {
  display: flex;
  flex-wrap: wrap;
  justify-content: space-between;
  align-items: baseline;
  gap: 0 0.8rem;
}
.mind {
  color: var(--sun-ink);
  font-weight: 650;
}
.body {
  display: grid;
  grid-template-columns: auto minmax(0, 1fr);
  gap: 0.2rem 1.1rem;
  align-items: center;
}
.rating {
  margin: 0;
}
.rating b {
  font: 700 2.4rem var(--head-font);
}
ul {
  list-style: none;
  margin: 0;
  padding: 0;
}
q {
  font-weight: 650;
  margin-right: 0.5rem;
}
.body > p {
  margin: 0;
}
.rings {
  grid-column: 1 / -1;
  display: flex;
  flex-wrap: wrap;
  gap: 0 1.2rem;
}
</style>
