<script setup lang="ts">
import type { Adjuster } from '#contract/adjuster'
import NumberField from '../../shell/NumberField.vue'
import { useAdjuster } from './useAdjuster.ts'

const adjuster = defineModel<Extract<Adjuster, { kind: 'spacer' }>>({ required: true })
const setMost = useAdjuster(adjuster).number('maxCount')
</script>

<template>
  <NumberField :model-value="adjuster.maxCount" label="Most allowed" @update:model-value="setMost" />
</template>
