<script setup lang="ts">
import { computed } from 'vue'
import type { DataState } from '#contract/data'
import { sizeWords } from '../../support/dataWords.ts'

/** What a data file is made of, as layers of ground: thin soil of what people wrote above the rock of sensor files. */
const props = defineProps<{ state: DataState }>()
/** Less of the file than this is nothing to look at. */
const worthSaying = 0.03
const layers = computed(() => {
  const { fileBytes, room } = props.state
  const written = Math.max(0, fileBytes - room.fileBytes - room.channelBytes - room.emptyBytes)
  return [
    ...(room.emptyBytes > worthSaying * fileBytes
      ? [{ name: 'empty, taken up again as things are entered', bytes: room.emptyBytes, kind: 'air' }]
      : []),
    { name: 'what people entered', bytes: written, kind: 'soil' },
    { name: 'cleaned channels, can be made again', bytes: room.channelBytes, kind: 'gravel' },
    { name: 'sensor files as they came', bytes: room.fileBytes, kind: 'rock' },
  ].map((l) => ({ ...l, share: fileBytes > 0 ? l.bytes / fileBytes : 0 }))
})
</script>

<template>
  <ul class="strata" aria-label="What the data file is made of">
    <li v-for="l in layers" :key="l.kind" :class="l.kind" :style="{ '--share': l.share }">
      <span>{{ l.name }}</span>
      <b class="num">{{ sizeWords(l.bytes) }}</b>
    </li>
  </ul>
</template>

<style scoped>
.strata {
  list-style: none;
  margin: 0.7rem 0 0;
  padding: 0;
  border-radius: 10px;
  overflow: hidden;
  border: 1px solid var(--line);
}
li {
  display: flex;
  flex-wrap: wrap;
  justify-content: space-between;
  gap: 0 1rem;
  align-items: center;
  min-height: calc(2.4rem + var(--share) * 5rem);
  padding: 0.3rem 0.9rem;
}
.soil {
  background: color-mix(in srgb, var(--moss, #7d9a5b) 26%, var(--paper));
}
.gravel {
  background: color-mix(in srgb, var(--sun) 20%, var(--paper));
}
.air {
  background: var(--paper);
}
.rock {
  background: color-mix(in srgb, var(--ink) 13%, var(--paper));
}
</style>
