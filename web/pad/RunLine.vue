<script setup lang="ts">
import { computed, ref } from 'vue'
import type { PadView } from '#contract/pad'
import { clockWords } from '../support/dates.ts'

/** Which run is spoken of: the likely one, and another by two taps. */
const props = defineProps<{ view: PadView; runId: string | null; name: string }>()
const emit = defineEmits<{ run: [id: string | null] }>()
const open = ref(false)
const at = computed(() => props.view.runs.find((r) => r.id === props.runId)?.startedAt)
function choose(id: string | null) {
  open.value = false
  emit('run', id)
}
</script>

<template>
  <div class="runline">
    <p>
      <b>{{ name }}</b> <span v-if="at">{{ clockWords(at) }}</span>
      <button type="button" :aria-expanded="open" @click="open = !open">another</button>
    </p>
    <div v-if="open" class="keys two">
      <button
        v-for="r in view.runs"
        :key="r.id"
        type="button"
        :aria-pressed="r.id === runId"
        @click="choose(r.id)"
      >
        {{ `Run ${r.number}` }}<small>{{ `${clockWords(r.startedAt)}${r.said ? ', said' : ''}` }}</small>
      </button>
      <button type="button" :aria-pressed="runId === null" @click="choose(null)">
        A newer one<small>not logged in the tent yet</small>
      </button>
    </div>
  </div>
</template>
