<script setup lang="ts">
import { computed, ref } from 'vue'
import type { FeelWord } from '#contract/run'
import { isMeant, wordRules } from '#core/causes/words'

const props = defineProps<{ place: string; end: 'front' | 'rear' | 'both' | null }>()
const emit = defineEmits<{ pick: [word: FeelWord] }>()

const groups = [
  ['return', 'coming back'],
  ['bumps', 'bumps'],
  ['depth', 'travel'],
  ['support', 'holding up'],
  ['grip', 'grip'],
  ['pedalling', 'pedalling'],
  ['good', 'good'],
] as const
const search = ref('')
const shown = computed(() => {
  const needle = search.value.trim().toLowerCase()
  const words = Object.keys(wordRules) as FeelWord[]
  const fits = (w: FeelWord) => {
    const r = wordRules[w]
    const endFits =
      props.end === null || props.end === 'both' || r.usualEnd === null || r.usualEnd === props.end
    // Who types a word means it, whichever end it usually comes from.
    return needle === '' ? endFits : isMeant(w, needle)
  }
  return groups
    .map(([about, title]) => ({ title, words: words.filter((w) => wordRules[w].about === about && fits(w)) }))
    .filter((g) => g.words.length > 0)
})
</script>

<template>
  <div class="words" role="group" aria-label="Words for the feel">
    <div class="head">
      <b class="where" role="status">{{ place }}</b>
      <BFormInput
        v-model="search"
        type="search"
        size="sm"
        placeholder="find a word"
        aria-label="Find a word"
        class="find"
      />
    </div>
    <div class="groups">
      <div v-for="g in shown" :key="g.title" class="group">
        <span class="soft small">{{ g.title }}</span>
        <button v-for="w in g.words" :key="w" type="button" class="word" @click="emit('pick', w)">
          {{ wordRules[w].label }}
        </button>
      </div>
    </div>
  </div>
</template>

<style scoped>
.words {
  border-top: 1px dashed var(--line);
  padding-top: 0.5rem;
}
.head {
  display: flex;
  justify-content: space-between;
  align-items: center;
  gap: 0.6rem;
  margin-bottom: 0.35rem;
}
.where {
  font-size: 0.92rem;
}
.find {
  max-width: 150px;
}
.groups {
  display: flex;
  flex-wrap: wrap;
  gap: 0.3rem 1rem;
}
.group {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 0.3rem;
}
.word {
  border: 1px solid var(--line);
  background: var(--paper);
  color: var(--ink);
  border-radius: 10px;
  min-height: 40px;
  padding: 0 0.65rem;
}
.word:hover {
  border-color: var(--ink-soft);
}
@media (max-width: 720px) {
  .word {
    min-height: var(--touch);
  }
  .groups {
    display: grid;
  }
}
</style>
