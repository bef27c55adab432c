<script setup lang="ts">
import type { Adjuster } from '#contract/adjuster'
import NumberField from '../../shell/NumberField.vue'
import CountedSelect from './CountedSelect.vue'
import { useAdjuster } from './useAdjuster.ts'

type Click = Extract<Adjuster, { kind: 'click' }>
const adjuster = defineModel<Click>({ required: true })
const { set, number } = useAdjuster(adjuster)
const setClicks = number('clicks')
const steps = [
  { value: 1, text: 'whole clicks' },
  { value: 0.5, text: 'half clicks' },
]
</script>

<template>
  <NumberField
    :model-value="adjuster.clicks"
    label="Clicks, stop to stop"
    hint="count them; the brochure is often wrong"
    @update:model-value="setClicks"
  />
  <CountedSelect :model-value="adjuster.countBase" @update:model-value="(countBase) => set({ countBase })" />
  <label class="form-label"
    >Steps<BFormSelect
      :model-value="adjuster.step"
      :options="steps"
      @update:model-value="(v) => set({ step: v as Click['step'] })"
  /></label>
</template>
