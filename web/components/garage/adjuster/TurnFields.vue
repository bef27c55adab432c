<script setup lang="ts">
import type { Adjuster } from '#contract/adjuster'
import NumberField from '../../shell/NumberField.vue'
import CountedSelect from './CountedSelect.vue'
import { useAdjuster } from './useAdjuster.ts'

const adjuster = defineModel<Extract<Adjuster, { kind: 'turn' }>>({ required: true })
const { set, number } = useAdjuster(adjuster)
const setTurns = number('turns')
const setStep = number('stepTurns')
</script>

<template>
  <NumberField :model-value="adjuster.turns" label="Turns, stop to stop" @update:model-value="setTurns" />
  <NumberField
    :model-value="adjuster.stepTurns"
    label="Smallest step"
    unit="turns"
    @update:model-value="setStep"
  />
  <CountedSelect :model-value="adjuster.countBase" @update:model-value="(countBase) => set({ countBase })" />
</template>
