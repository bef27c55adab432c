<script setup lang="ts">
import { useId } from 'vue'

/** One secret to type, with a way to see it: gloves and small keys make slips. */
defineProps<{
  label: string
  /** For the browser's own memory. */
  autocomplete: string
  hint?: string
  fault?: string | null
  plain?: boolean
}>()
const value = defineModel<string>({ required: true })
const seen = defineModel<boolean>('seen', { default: false })
const id = useId()
</script>

<template>
  <div class="field">
    <label class="form-label" :for="id">{{ label }}</label>
    <input
      :id="id"
      v-model="value"
      class="form-control"
      :type="plain || seen ? 'text' : 'password'"
      :autocomplete="autocomplete"
      autocapitalize="off"
      spellcheck="false"
      :aria-invalid="fault ? true : undefined"
      :aria-describedby="fault ? `${id}-fault` : hint ? `${id}-hint` : undefined"
    />
    <p v-if="fault" :id="`${id}-fault`" class="fault" role="alert">{{ fault }}</p>
    <p v-else-if="hint" :id="`${id}-hint`" class="soft small">{{ hint }}</p>
  </div>
</template>

<style scoped>
.field p {
  margin: 0.2rem 0 0;
}
</style>
