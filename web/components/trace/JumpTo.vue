<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import type { RecordingEvent } from '#contract/recording'
import IconNext from '~icons/lucide/chevron-right'
import IconBefore from '~icons/lucide/chevron-left'
import { signedWords } from '../../support/words.ts'

/** Steps through the events of a kind, the worst first. */
const props = defineProps<{ events: readonly RecordingEvent[] }>()
const emit = defineEmits<{ show: [event: RecordingEvent] }>()

const kinds = [
  { value: 'hit', text: 'hardest hits', one: 'hard hit', of: (e: RecordingEvent) => e.kind === 'hit' },
  { value: 'train', text: 'hit trains', one: 'hit train', of: (e: RecordingEvent) => e.kind === 'train' },
  {
    value: 'bottom',
    text: 'bottom-outs',
    one: 'bottom-out',
    of: (e: RecordingEvent) => e.kind.endsWith('bottom-out'),
  },
  { value: 'landing', text: 'landings', one: 'landing', of: (e: RecordingEvent) => e.kind === 'landing' },
  { value: 'top', text: 'top-outs', one: 'top-out', of: (e: RecordingEvent) => e.kind === 'top-out' },
]
const offered = computed(() =>
  kinds
    .map((k) => ({ ...k, list: props.events.filter(k.of).sort((a, b) => b.value - a.value) }))
    .filter((k) => k.list.length > 0),
)
const kind = ref('hit')
const at = ref(-1)
const list = computed(() => offered.value.find((k) => k.value === kind.value)?.list ?? [])
watch([kind, () => props.events], () => (at.value = -1))
function step(by: 1 | -1) {
  at.value = (at.value + by + list.value.length) % list.value.length
  emit('show', list.value[at.value])
}
const say: Record<string, (e: RecordingEvent) => string> = {
  hit: (e) => `${e.end}, ${(e.value / 1000).toFixed(1)} m/s in`,
  train: (e) => `${e.end}, valleys ${signedWords(e.value, 1)} % per hit`,
  'bottom-out': (e) => `${e.end}, ${(e.value / 1000).toFixed(1)} m/s through 90 %`,
  'hard-bottom-out': (e) => `${e.end}, hard: ${(e.value / 1000).toFixed(1)} m/s through 90 %`,
  landing: (e) => `${e.end}, ${e.value.toFixed(0)} % deep`,
  'top-out': (e) => `${e.end}, ${(e.value / 1000).toFixed(1)} m/s out`,
}
const words = computed(() => {
  const e = list.value[at.value]
  if (e) return `${at.value + 1} of ${list.value.length}: ${say[e.kind](e)}`
  const k = offered.value.find((o) => o.value === kind.value)
  return k ? `${k.list.length} ${k.list.length === 1 ? k.one : k.text}` : ''
})
const options = computed(() => offered.value.map(({ value, text }) => ({ value, text })))
</script>

<template>
  <div v-if="options.length" class="jump" role="group" aria-label="Jump to">
    <span class="num small" role="status">{{ words }}</span>
    <BFormSelect v-model="kind" size="sm" :options="options" aria-label="Events to step through" />
    <button type="button" aria-label="The one before" @click="step(-1)">
      <IconBefore aria-hidden="true" />
    </button>
    <button type="button" aria-label="The next one" @click="step(1)"><IconNext aria-hidden="true" /></button>
  </div>
</template>

<style scoped>
.jump {
  display: flex;
  gap: 0.4rem;
  align-items: center;
}
.jump :deep(select) {
  width: auto;
  min-height: 36px;
}
button {
  border: 1px solid var(--line);
  background: var(--paper);
  color: var(--ink);
  border-radius: 8px;
  min-height: 36px;
  width: 40px;
}
@media (pointer: coarse) {
  .jump {
    flex-wrap: wrap;
  }
  .jump :deep(select),
  button {
    min-height: var(--touch);
    min-width: var(--touch);
  }
}
</style>
