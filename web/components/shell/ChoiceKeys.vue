<script setup lang="ts" generic="K extends string">
import { vRoving } from '../../support/roving.ts'

/** One of a few, as keys big enough for gloves: one stop of the tab key, arrows within. */
defineProps<{ label: string; options: readonly { value: K; text: string }[] }>()
const chosen = defineModel<K>({ required: true })
</script>

<template>
  <div v-roving class="choice" role="group" :aria-label="label">
    <button
      v-for="o in options"
      :key="o.value"
      type="button"
      :aria-pressed="chosen === o.value"
      @click="chosen = o.value"
    >
      {{ o.text }}
    </button>
  </div>
</template>
