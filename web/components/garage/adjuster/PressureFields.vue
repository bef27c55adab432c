<script setup lang="ts">
import type { Adjuster } from '#contract/adjuster'
import NumberField from '../../shell/NumberField.vue'
import { useAdjuster } from './useAdjuster.ts'

const adjuster = defineModel<Extract<Adjuster, { kind: 'pressure' }>>({ required: true })
const { number } = useAdjuster(adjuster)
const setLeast = number('minPsi')
const setMost = number('maxPsi')
</script>

<template>
  <NumberField
    :model-value="adjuster.minPsi"
    label="Least"
    quantity="pressure"
    @update:model-value="setLeast"
  />
  <NumberField
    :model-value="adjuster.maxPsi"
    label="Maximum printed on the unit"
    quantity="pressure"
    hint="never above what the unit says"
    @update:model-value="setMost"
  />
</template>
