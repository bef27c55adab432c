<script setup lang="ts">
import { ref } from 'vue'
import type { PressureCalibration } from '#contract/recording'
import NumberField from '../shell/NumberField.vue'
import HeldDepthFields from './HeldDepthFields.vue'

/** Compression ratio and baseline of a chamber, typed or worked out from held depths. */
const props = defineProps<{ calibration: PressureCalibration | null; strokeMm: number | null }>()
const emit = defineEmits<{ set: [PressureCalibration | null] }>()

const byDepths = ref(props.calibration?.heldDepths !== undefined)
const ratio = ref(props.calibration?.compressionRatio ?? null)
const baselinePsi = ref(props.calibration?.baselinePsi ?? null)
function tell() {
  const [compressionRatio, psi] = [ratio.value, baselinePsi.value]
  emit('set', compressionRatio === null || psi === null ? null : { compressionRatio, baselinePsi: psi })
}
function fitted(c: PressureCalibration | null) {
  ratio.value = c && Number(c.compressionRatio.toFixed(3))
  baselinePsi.value = c && Number(c.baselinePsi.toFixed(1))
  emit('set', c)
}
function leave() {
  byDepths.value = false
  tell()
}
</script>

<template>
  <HeldDepthFields
    v-if="byDepths && strokeMm"
    :stroke-mm="strokeMm"
    :depths="calibration?.heldDepths ?? []"
    @fitted="fitted"
    @leave="leave"
  />
  <div v-else class="field-grid">
    <NumberField
      v-model="ratio"
      label="Compression ratio"
      hint="absolute pressure compressed ÷ extended, air let out"
      @update:model-value="tell"
    />
    <NumberField
      v-model="baselinePsi"
      label="Baseline, fully extended"
      unit="psi"
      hint="filled and equalised, wheel off the ground"
      @update:model-value="tell"
    />
    <BButton v-if="strokeMm" variant="plain" class="end" @click="byDepths = true"
      >Work them out from held depths</BButton
    >
  </div>
</template>

<style scoped>
.end {
  align-self: end;
}
</style>
