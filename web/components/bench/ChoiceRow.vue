<script setup lang="ts" generic="K extends string">
/** One of a few, as buttons big enough for gloves. */
defineProps<{
  label: string
  options: readonly { value: K; text: string }[]
  modelValue: K
  handbook?: string
}>()
const emit = defineEmits<{ 'update:modelValue': [value: K] }>()
</script>

<template>
  <div role="group" :aria-label="label" class="row">
    <span class="form-label"
      >{{ label }}
      <RouterLink v-if="handbook" :to="`/handbook#${handbook}`" class="more">which and why</RouterLink>
    </span>
    <span class="choice">
      <button
        v-for="o in options"
        :key="o.value"
        type="button"
        :aria-pressed="modelValue === o.value"
        @click="emit('update:modelValue', o.value)"
      >
        {{ o.text }}
      </button>
    </span>
  </div>
</template>

<style scoped>
.row {
  display: grid;
  gap: 0.15rem;
}
.more {
  font-weight: 400;
  font-size: 0.86rem;
}
</style>
