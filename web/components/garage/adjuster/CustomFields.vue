<script setup lang="ts">
import type { Adjuster } from '#contract/adjuster'
import NumberField from '../../shell/NumberField.vue'
import { useAdjuster } from './useAdjuster.ts'

type Custom = Extract<Adjuster, { kind: 'custom' }>
const adjuster = defineModel<Custom>({ required: true })
const { set, number } = useAdjuster(adjuster)
const ends = [
  { key: 'min', label: 'From', set: number('min') },
  { key: 'max', label: 'To', set: number('max') },
  { key: 'step', label: 'Step', set: number('step') },
] as const
const acts = [
  { key: 'stroke', label: 'Part of the stroke', options: ['start', 'middle', 'end', 'whole'] },
  { key: 'on', label: 'On', options: ['spring', 'compression', 'rebound', 'geometry'] },
  { key: 'speed', label: 'Shaft speed', options: ['low', 'high', 'both'] },
] as const
const setActs = (key: keyof Custom['acts'], v: unknown) =>
  set({ acts: { ...adjuster.value.acts, [key]: v } as Custom['acts'] })
</script>

<template>
  <label class="form-label"
    >Name<BFormInput :model-value="adjuster.name" @update:model-value="(v) => set({ name: String(v ?? '') })"
  /></label>
  <NumberField
    v-for="e in ends"
    :key="e.key"
    :model-value="adjuster[e.key]"
    :label="e.label"
    @update:model-value="e.set"
  />
  <label class="form-label"
    >Unit<BFormInput
      :model-value="adjuster.unitLabel"
      @update:model-value="(v) => set({ unitLabel: String(v ?? '') })"
  /></label>
  <label v-for="a in acts" :key="a.key" class="form-label"
    >{{ a.label
    }}<BFormSelect
      :model-value="adjuster.acts[a.key]"
      :options="[...a.options]"
      @update:model-value="(v) => setActs(a.key, v)"
  /></label>
</template>
