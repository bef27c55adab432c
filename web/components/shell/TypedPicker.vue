<script setup lang="ts">
import { computed, useId } from 'vue'

/** One of a list: a plain select while the list is short, typed at once it is long. */
const props = defineProps<{ label: string; options: readonly { value: string; text: string }[] }>()
const chosen = defineModel<string>({ required: true })
/** More than this is not read through any more. */
const readThrough = 12
const id = useId()
const typed = computed(() => props.options.length > readThrough)
/** Every typed word somewhere in the text. */
const words = <T extends { text?: string }>(options: T[], term: string): T[] => {
  const wanted = term.toLowerCase().split(/\s+/).filter(Boolean)
  return options.filter((o) => wanted.every((w) => (o.text ?? '').toLowerCase().includes(w)))
}
</script>

<template>
  <div class="picker">
    <label class="form-label" :for="id">{{ label }}</label>
    <BAutocomplete
      v-if="typed"
      :id="id"
      :model-value="chosen"
      :options="options"
      :filter-function="words"
      no-clear-button
      no-toggle
      open-on-focus
      placeholder="type a part of the name"
      @update:model-value="(v: unknown) => typeof v === 'string' && (chosen = v)"
    />
    <BFormSelect v-else :id="id" v-model="chosen" :options="options" />
  </div>
</template>
