<script setup lang="ts">
import type { ColumnMapping } from '#contract/recording'
import { isPressure } from '#core/telemetry/calibrate'
import PointFields from './PointFields.vue'
import PressureFields from './PressureFields.vue'

/** How readings of one channel turn into travel. null until it is filled in: nothing is assumed. */
type Calibration = NonNullable<ColumnMapping['calibration']>
defineProps<{
  pressure: boolean
  /** Of the unit it belongs to; null when it is not known. */
  strokeMm: number | null
}>()
const calibration = defineModel<Calibration | null>({ required: true })
</script>

<template>
  <PressureFields
    v-if="pressure"
    :calibration="isPressure(calibration) ? calibration : null"
    :stroke-mm="strokeMm"
    @set="(c) => (calibration = c)"
  />
  <PointFields
    v-else
    :calibration="calibration && !isPressure(calibration) ? calibration : null"
    :stroke-mm="strokeMm"
    @set="(c) => (calibration = c)"
  />
</template>
