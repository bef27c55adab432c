<script setup lang="ts">
import { computed } from 'vue'
import { shortcutsNow } from '../../composables/useShortcuts.ts'
import DialogFrame from './DialogFrame.vue'

const open = defineModel<boolean>('open', { required: true })
/** Keys of parts, wherever such a part is. */
const parts: [string, string][] = [
  ['Ctrl K', 'search everything'],
  ['← →', 'on a rail: one step'],
  ['Home End', 'on a rail: closed, open'],
  ['Page ↑ ↓', 'on a rail: five steps'],
  ['0–9', 'on a rail: set this count'],
  ['Enter, Esc', 'on a rail: it is on, or leave it'],
  ['0–9 ½', 'on the rating: rate the run'],
  ['Esc', 'close a dialog'],
]
const keys = computed(() => [
  ...shortcutsNow().map((s) => [s.key === ' ' ? 'Space' : s.key, s.does] as const),
  ...parts,
])
</script>

<template>
  <DialogFrame v-model:open="open" title="Keys">
    <dl>
      <template v-for="[k, what] in keys" :key="k + what">
        <dt>{{ k }}</dt>
        <dd>{{ what }}</dd>
      </template>
    </dl>
  </DialogFrame>
</template>

<style scoped>
dl {
  display: grid;
  grid-template-columns: auto 1fr;
  gap: 0.35rem 1.2rem;
  margin: 0;
}
dt {
  font-weight: 700;
}
dd {
  margin: 0;
}
</style>
