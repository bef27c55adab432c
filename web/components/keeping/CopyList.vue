<script setup lang="ts">
import { ref } from 'vue'
import type { SafeCopy } from '#contract/data'
import { apiBase } from '../../api/client.ts'
import { countWords, reasonWords, sizeWords } from '../../support/dataWords.ts'
import { dateTimeWords } from '../../support/dates.ts'

/** Safe copies, newest first; putting one back or removing it is asked about in its row. */
defineProps<{ copies: readonly SafeCopy[]; busy: boolean; canPutBack: boolean }>()
const emit = defineEmits<{ back: [copy: SafeCopy]; remove: [copy: SafeCopy] }>()
const asked = ref<{ name: string; what: 'back' | 'remove' } | null>(null)
const isAsked = (c: SafeCopy, what: 'back' | 'remove') =>
  asked.value?.name === c.name && asked.value.what === what
function answer(c: SafeCopy, what: 'back' | 'remove') {
  asked.value = null
  if (what === 'back') emit('back', c)
  else emit('remove', c)
}
</script>

<template>
  <ol class="copies" aria-label="Safe copies">
    <li v-for="c in copies" :key="c.name">
      <div class="of">
        <b class="num">{{ dateTimeWords(c.at) }}</b>
        <span>{{ reasonWords(c) }}</span>
        <span class="soft small num">{{ sizeWords(c.bytes) }}</span>
        <span class="soft small counts">{{ c.counts ? countWords(c.counts) : 'not looked into' }}</span>
      </div>
      <div
        v-if="isAsked(c, 'back')"
        class="sure"
        role="group"
        :aria-label="`Put ${dateTimeWords(c.at)} back`"
      >
        <p>
          What was entered since goes out of sight. It is copied first, and the file of now is set aside
          beside the data; nothing is overwritten. Everybody’s page reads anew.
        </p>
        <BButton variant="danger" :disabled="busy" @click="answer(c, 'back')">Put it back now</BButton>
        <button type="button" class="btn btn-plain" @click="asked = null">Leave all as it is</button>
      </div>
      <div
        v-else-if="isAsked(c, 'remove')"
        class="sure"
        role="group"
        :aria-label="`Remove ${dateTimeWords(c.at)}`"
      >
        <p>This copy is then gone for good.</p>
        <BButton variant="danger" :disabled="busy" @click="answer(c, 'remove')">Remove it</BButton>
        <button type="button" class="btn btn-plain" @click="asked = null">Keep it</button>
      </div>
      <div v-else class="acts">
        <a class="btn btn-plain" :href="`${apiBase}/data/copies/${c.name}`" download>Take it along</a>
        <button
          v-if="canPutBack"
          type="button"
          class="btn btn-plain"
          :disabled="busy"
          :aria-label="`Put the copy of ${dateTimeWords(c.at)} back …`"
          @click="asked = { name: c.name, what: 'back' }"
        >
          Put back …
        </button>
        <button
          type="button"
          class="btn btn-plain"
          :disabled="busy"
          :aria-label="`Remove the copy of ${dateTimeWords(c.at)} …`"
          @click="asked = { name: c.name, what: 'remove' }"
        >
          Remove …
        </button>
      </div>
    </li>
  </ol>
</template>

<style scoped>
.copies {
  list-style: none;
  margin: 0.6rem 0 0;
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
.counts {
  flex-basis: 100%;
}
.acts,
.sure {
  display: flex;
  flex-wrap: wrap;
  gap: 0.5rem;
}
.sure {
  flex-basis: 100%;
  padding: 0.6rem 0.8rem;
  border-left: 4px solid var(--rust);
  background: var(--wash, transparent);
}
.sure p {
  flex-basis: 100%;
  margin: 0;
}
</style>
