<script setup lang="ts">
import { computed, ref } from 'vue'
import type { FeelWord } from '#contract/run'
import { wordRules } from '#core/causes/words'
import { wordsFor } from '../../support/wordsFor.ts'
import { vRoving } from '../../support/roving.ts'

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
  const needle = search.value.trim()
  const meant = needle === '' ? [] : wordsFor(needle)
  const words = Object.keys(wordRules) as FeelWord[]
  const fits = (w: FeelWord) => {
    const r = wordRules[w]
    const endFits =
      props.end === null || props.end === 'both' || r.usualEnd === null || r.usualEnd === props.end
    // Who types a word means it, whichever end it usually comes from.
    return needle === '' ? endFits : meant.includes(w)
  }
  return groups
    .map(([about, title]) => ({ title, words: words.filter((w) => wordRules[w].about === about && fits(w)) }))
    .filter((g) => g.words.length > 0)
})
</script>

<template>
  <div class="words" role="group" aria-label="Words for the feel">
    <div class="head">
      <slot name="lead" />
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
    <div v-roving class="groups">
      <div v-for="g in shown" :key="g.title" class="group">
        <span class="soft small">{{ g.title }}</span>
        <button v-for="w in g.words" :key="w" type="button" class="word" @click="emit('pick', w)">
          {{ wordRules[w].label }}
        </button>
      </div>
    </div>
    <p v-if="!shown.length" class="soft small" role="status">
      No word of that kind here. Take the nearest, or write it in the note as it was said.
    </p>
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
  flex: 1;
  font-size: 0.92rem;
  line-height: 1.2;
}
.find {
  max-width: 130px;
}
.groups {
  display: flex;
  flex-wrap: wrap;
  gap: 8px 1rem;
}
.group {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 8px;
}
.word {
  border: 1px solid var(--line);
  background: var(--paper);
  color: var(--ink);
  border-radius: 10px;
  min-height: var(--touch);
  min-width: var(--touch);
  padding: 0 0.65rem;
}
.word:hover {
  border-color: var(--ink-soft);
}
@media (max-width: 480px) {
  /* What is found by typing comes last: the words themselves are nearer to a thumb. */
  .words {
    display: flex;
    flex-wrap: wrap;
    align-items: center;
    gap: 8px;
  }
  .head {
    display: contents;
  }
  .groups {
    order: 1;
  }
  .find {
    order: 2;
    max-width: none;
  }
}
@media (max-width: 720px) {
  /* The words flow on without their headings: more of them are in reach of a thumb. */
  .group {
    display: contents;
  }
  .group .soft {
    display: none;
  }
  .groups {
    gap: 8px;
  }
}
</style>
