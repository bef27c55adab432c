<script setup lang="ts">
/** A value that is slid, its words above it. */
defineProps<{ label: string; min: number; max: number; step: number }>()
const model = defineModel<number>({ required: true })
</script>

<template>
  <label class="num"
    >{{ label }}<input v-model.number="model" type="range" :min="min" :max="max" :step="step"
  /></label>
</template>

<style scoped>
label {
  display: grid;
}
input {
  min-height: var(--touch);
  accent-color: var(--pine);
}
</style>
