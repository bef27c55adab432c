<script setup lang="ts">
import type { PadView } from '#contract/pad'
import RunLine from './RunLine.vue'
import { tappedAgainst, type Said } from './said.ts'

/** First: against the run before. A second tap says it strongly. */
defineProps<{ view: PadView; name: string }>()
const emit = defineEmits<{ run: [id: string | null]; next: [] }>()
const said = defineModel<Said>({ required: true })
const sides = [
  { side: 1, text: 'Better', strong: 'Much better' },
  { side: 0, text: 'The same', strong: 'The same' },
  { side: -1, text: 'Worse', strong: 'Much worse' },
] as const
const strong = (side: number) => said.value.against === side * 2 && side !== 0
const pressed = (side: number) => said.value.against !== null && Math.sign(said.value.against) === side
const stops = [null, 'crashed', 'stopped'] as const
const stopWords = { crashed: 'I crashed', stopped: 'I stopped on the way' }
function stop() {
  const next = stops[(stops.indexOf(said.value.stopped) + 1) % stops.length]
  said.value = { ...said.value, stopped: next }
}
</script>

<template>
  <RunLine :view="view" :run-id="said.runId" :name="name" @run="(id) => emit('run', id)" />
  <h1>Against the run before</h1>
  <div class="keys tall" role="group" aria-label="Against the run before">
    <button
      v-for="s in sides"
      :key="s.side"
      type="button"
      :class="{ strong: strong(s.side) }"
      :aria-pressed="pressed(s.side)"
      @click="said = { ...said, against: tappedAgainst(said.against, s.side) }"
    >
      {{ strong(s.side) ? s.strong : s.text }}
    </button>
  </div>
  <p class="hint">A second tap says it strongly.</p>
  <div class="foot">
    <button type="button" :aria-pressed="said.stopped !== null" @click="stop">
      {{ said.stopped ? stopWords[said.stopped] : 'Crashed or stopped' }}
    </button>
    <button type="button" class="go" @click="emit('next')">Next</button>
  </div>
</template>
