<script setup lang="ts">
import { computed } from 'vue'
import type { End } from '#contract/common'
import { calibrated } from '#core/devices/calibration'
import type { CalibrationStep } from '#core/devices/calibrationStep'
import { standInRingMm } from '#core/devices/heldDepthSteps'
import type { Logger } from '../../composables/useLogger.ts'
import NumberField from '../shell/NumberField.vue'

/** How deep the rings stood after a hold; empty until somebody has read them. */
const props = defineProps<{ logger: Logger; step: CalibrationStep }>()
const ends = computed(() =>
  calibrated(props.logger.identity.value!).flatMap((c) =>
    c.end && props.logger.strokeMm()[c.end] ? [c.end] : [],
  ),
)
const along: Record<End, string> = { front: 'Front ring, along the leg', rear: 'Rear ring, along the shaft' }
const read = (end: End) => props.logger.held.value[props.step.key]?.ringMm?.[end] ?? null
const keep = (end: End, mm: number | null) => props.logger.keepRing(props.step, end, mm)
const standInWords = computed(() =>
  props.logger.standIn.value
    ? `The rings of the stand-in stand at ${ends.value
        .map((end) => `${end} ${standInRingMm(props.step, props.logger.strokeMm()[end]!)} mm`)
        .join(', ')}.`
    : '',
)
</script>

<template>
  <div class="field-grid rings">
    <NumberField
      v-for="end in ends"
      :key="end"
      :model-value="read(end)"
      :label="along[end]"
      unit="mm"
      @update:model-value="(v) => keep(end, v)"
    />
    <p v-if="standInWords" class="soft small">{{ standInWords }}</p>
  </div>
</template>

<style scoped>
.rings {
  margin: 0.3rem 0;
}
p {
  margin: 0;
  align-self: end;
}
</style>
