<script setup lang="ts" generic="K extends string">
import ChoiceKeys from '../shell/ChoiceKeys.vue'

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
  <div class="row">
    <span class="form-label"
      >{{ label }}
      <RouterLink v-if="handbook" :to="`/handbook/${handbook}`" class="more">which and why</RouterLink>
    </span>
    <ChoiceKeys
      :model-value="modelValue"
      :label="label"
      :options="options"
      @update:model-value="(v) => emit('update:modelValue', v)"
    />
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
