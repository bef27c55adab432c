<script setup lang="ts">
import { computed, ref } from 'vue'
import { wordRules } from '#core/causes/words'
import { canHear, type useVoice } from './useVoice.ts'
import { tappedWord, wordKeys, type Said } from './said.ts'

/** Third: what it did, in words as keys, spoken, or typed. */
const props = defineProps<{ voice: ReturnType<typeof useVoice>; ready: boolean }>()
const emit = defineEmits<{ back: []; send: [] }>()
const said = defineModel<Said>({ required: true })
const all = ref(false)
const typing = ref(false)
const keys = computed(() => wordKeys((said.value.against ?? 0) > 0, all.value))
const hears = canHear()
const { recording, fault } = props.voice
const spoken = props.voice.voice
</script>

<template>
  <h1>What did it do?</h1>
  <div class="keys two words" role="group" aria-label="What it did">
    <button
      v-for="w in keys"
      :key="w"
      type="button"
      :class="{ strong: said.words.get(w) === 2 }"
      :aria-pressed="said.words.has(w)"
      @click="said = { ...said, words: tappedWord(said.words, w) }"
    >
      {{ said.words.get(w) === 2 ? `${wordRules[w].label}, strongly` : wordRules[w].label }}
    </button>
    <button v-if="!all" type="button" class="quiet" @click="all = true">More words</button>
    <button
      v-if="hears"
      type="button"
      class="quiet"
      :class="{ live: recording }"
      :aria-pressed="spoken !== null"
      @click="recording ? voice.stop() : spoken ? voice.forget() : voice.start()"
    >
      {{ recording ? 'Listening … stop' : spoken ? 'Spoken; take it back' : 'Say it' }}
    </button>
    <button v-if="!typing" type="button" class="quiet" @click="typing = true">Write it</button>
  </div>
  <p v-if="fault" class="hint" role="alert">{{ fault }}</p>
  <textarea
    v-if="typing"
    :value="said.text"
    maxlength="300"
    rows="2"
    aria-label="In your own words"
    placeholder="In your own words"
    @input="said = { ...said, text: ($event.target as HTMLTextAreaElement).value }"
  ></textarea>
  <p class="hint">A second tap says it strongly.</p>
  <div class="foot">
    <button type="button" @click="emit('back')">Back</button>
    <button type="button" class="go" :disabled="!ready" @click="emit('send')">
      {{ ready ? 'Send' : 'Say one thing' }}
    </button>
  </div>
</template>
