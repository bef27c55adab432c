<script setup lang="ts">
import { ref } from 'vue'
import type { Import } from '#contract/bundle'
import { bundleWords, takenWords } from '../../support/bundleWords.ts'
import { dateTimeWords } from '../../support/dates.ts'

/** Bundles that were brought in, newest first; taking one back is asked about in its row. */
defineProps<{ imports: readonly Import[]; busy: boolean }>()
const emit = defineEmits<{ back: [id: string] }>()
const asked = ref('')
function answer(id: string) {
  asked.value = ''
  emit('back', id)
}
</script>

<template>
  <section v-if="imports.length" class="card-paper" aria-labelledby="brought-title">
    <h2 id="brought-title">Brought in</h2>
    <ol aria-label="Bundles that were brought in">
      <li v-for="i in imports" :key="i.id">
        <div class="of">
          <b class="num">{{ dateTimeWords(i.at) }}</b>
          <span>{{ bundleWords(i.head) }}</span>
          <span class="soft small num">{{ takenWords(i) }}</span>
        </div>
        <div v-if="asked === i.id" class="sure" role="group" :aria-label="`Take ${dateTimeWords(i.at)} back`">
          <p>
            What came with it goes, and what it replaced is as it was. Where something of it was changed or
            used since, nothing is taken back.
          </p>
          <BButton variant="danger" :disabled="busy" @click="answer(i.id)">Take it back now</BButton>
          <button type="button" class="btn btn-plain" @click="asked = ''">Leave it</button>
        </div>
        <button
          v-else
          type="button"
          class="btn btn-plain"
          :disabled="busy"
          :aria-label="`Take back what was brought in on ${dateTimeWords(i.at)} …`"
          @click="asked = i.id"
        >
          Take back …
        </button>
      </li>
    </ol>
  </section>
</template>

<style scoped>
section {
  padding: 1rem 1.2rem;
}
ol {
  list-style: none;
  margin: 0.4rem 0 0;
  padding: 0;
}
li {
  display: flex;
  flex-wrap: wrap;
  justify-content: space-between;
  gap: 0.5rem 1rem;
  align-items: center;
  padding: 0.6rem 0;
  border-bottom: 1px solid var(--line);
}
.of {
  display: flex;
  flex-wrap: wrap;
  gap: 0 0.9rem;
  align-items: baseline;
  flex: 1 1 20rem;
}
.sure {
  display: flex;
  flex-wrap: wrap;
  gap: 0.5rem;
  flex-basis: 100%;
  padding: 0.6rem 0.8rem;
  border-left: 4px solid var(--rust);
}
.sure p {
  flex-basis: 100%;
  margin: 0;
}
</style>
