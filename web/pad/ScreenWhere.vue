<script setup lang="ts">
import type { PadView } from '#contract/pad'
import RunLine from './RunLine.vue'
import type { Said } from './said.ts'

/** Second: where. Nothing pressed is the whole run, and the whole bike. */
defineProps<{ view: PadView; name: string; first: boolean }>()
const emit = defineEmits<{ run: [id: string | null]; back: []; next: [] }>()
const said = defineModel<Said>({ required: true })
const ends = [
  { end: 'front', text: 'Front' },
  { end: 'rear', text: 'Rear' },
  { end: 'both', text: 'Both' },
] as const
function section(id: string) {
  const held = said.value.sectionIds
  said.value = {
    ...said.value,
    sectionIds: held.includes(id) ? held.filter((s) => s !== id) : [...held, id],
  }
}
</script>

<template>
  <RunLine v-if="first" :view="view" :run-id="said.runId" :name="name" @run="(id) => emit('run', id)" />
  <h1>Where?</h1>
  <div class="keys three" role="group" aria-label="Which end">
    <button
      v-for="e in ends"
      :key="e.end"
      type="button"
      :class="e.end"
      :aria-pressed="said.end === e.end"
      @click="said = { ...said, end: said.end === e.end ? null : e.end }"
    >
      {{ e.text }}
    </button>
  </div>
  <ol class="trail" aria-label="Parts of the trail">
    <li v-for="s in view.sections" :key="s.id">
      <button type="button" :aria-pressed="said.sectionIds.includes(s.id)" @click="section(s.id)">
        {{ s.name }}
      </button>
    </li>
  </ol>
  <p class="hint">Nothing pressed: everywhere.</p>
  <div class="foot">
    <button v-if="!first" type="button" @click="emit('back')">Back</button>
    <button type="button" class="go" @click="emit('next')">Next</button>
  </div>
</template>
