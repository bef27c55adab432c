<script setup lang="ts" generic="T extends string | null">
import { computed, useId } from 'vue'

/** One of a list: a plain select while the list is short, typed at once it is long. `null` stands for none of them. */
const props = defineProps<{
  label: string
  options: readonly { value: T; text: string }[]
  /** What it is for is plain from where it stands; said to those who do not see it. */
  quiet?: boolean
}>()
const chosen = defineModel<T>({ required: true })
/** More than this is not read through any more. */
const readThrough = 12
const id = useId()
/** The widgets know strings only: none of them is the empty one. */
const plain = computed(() => props.options.map((o) => ({ value: o.value ?? '', text: o.text })))
function choose(to: unknown) {
  const found = props.options.find((o) => (o.value ?? '') === to)
  if (found) chosen.value = found.value
}
const typed = computed(() => props.options.length > readThrough)
/** Every typed word somewhere in the text. */
const words = <T extends { text?: string }>(options: T[], term: string): T[] => {
  const wanted = term.toLowerCase().split(/\s+/).filter(Boolean)
  return options.filter((o) => wanted.every((w) => (o.text ?? '').toLowerCase().includes(w)))
}
</script>

<template>
  <div class="picker">
    <label :class="quiet ? 'visually-hidden' : 'form-label'" :for="id">{{ label }}</label>
    <BAutocomplete
      v-if="typed"
      :id="id"
      :model-value="chosen ?? ''"
      :options="plain"
      :filter-function="words"
      no-clear-button
      no-toggle
      open-on-focus
      placeholder="type a part of the name"
      @update:model-value="choose"
    />
    <BFormSelect v-else :id="id" :model-value="chosen ?? ''" :options="plain" @update:model-value="choose" />
  </div>
</template>
