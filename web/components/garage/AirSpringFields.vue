<script setup lang="ts">
import { computed, ref } from 'vue'
import type { End } from '#contract/common'
import type { AirSpring } from '#contract/unit'
import { unitAir } from '#core/spring/unitSpring'
import { paPerPsi } from '#core/units/convert'
import { seaLevelPa } from '#core/spring/air'
import NumberField from '../shell/NumberField.vue'

/** The air spring's own figures; left alone, the usual ones for a fork or a shock hold. */
const props = defineProps<{ end: End; faultOf: (path: string) => string | null }>()
const air = defineModel<AirSpring | null>({ required: true })
const shown = computed<AirSpring>(() => {
  const usual = unitAir({ end: props.end, airSpring: null })
  return air.value ?? { ...usual.shape, pistonAreaCm2: usual.pistonAreaCm2 }
})
const set = (key: keyof AirSpring) => (v: number | null) => (air.value = { ...shown.value, [key]: v ?? NaN })
const fields: { key: keyof AirSpring; label: string; hint: string; unit?: string }[] = [
  { key: 'cr0', label: 'Compression ratio', hint: 'without spacers' },
  { key: 'spacerShare', label: 'One spacer takes', hint: 'share of the swept volume' },
  { key: 'negativeShare', label: 'Negative chamber', hint: 'share of the swept volume, extended' },
  { key: 'areaShare', label: 'Negative piston', hint: 'share of the positive area' },
  { key: 'equaliseAt', label: 'Chambers meet at', hint: 'share of the stroke' },
  { key: 'pistonAreaCm2', label: 'Piston area', hint: 'for the first guess only', unit: 'cm²' },
]
const extendedPsi = ref<number | null>(null)
const compressedPsi = ref<number | null>(null)
/** CR = (P_full + Pa)/(P_ext + Pa), both read slowly. */
const measured = computed(() => {
  const [a, b] = [extendedPsi.value, compressedPsi.value]
  const pa = seaLevelPa / paPerPsi
  return a && b && b > a ? (b + pa) / (a + pa) : null
})
</script>

<template>
  <details class="wide">
    <summary>Air spring: {{ air ? 'its own figures' : 'usual figures' }}</summary>
    <div class="field-grid">
      <NumberField
        v-for="f in fields"
        :key="f.key"
        :model-value="shown[f.key]"
        :label="f.label"
        :hint="f.hint"
        :unit="f.unit"
        :fault="faultOf(`airSpring.${f.key}`)"
        @update:model-value="(v) => set(f.key)(v)"
      />
      <NumberField
        v-model="extendedPsi"
        label="Measured, extended"
        quantity="pressure"
        hint="no spacers in, move slowly"
      />
      <NumberField v-model="compressedPsi" label="Measured, fully compressed" quantity="pressure" />
      <div class="wide acts">
        <BButton v-if="measured" variant="plain" @click="set('cr0')(Math.round(measured * 100) / 100)">
          {{ `Take the measured ratio ${measured.toFixed(2)}` }}
        </BButton>
        <BButton v-if="air" variant="plain" @click="air = null">Back to the usual figures</BButton>
      </div>
    </div>
  </details>
</template>

<style scoped>
.acts {
  display: flex;
  gap: 0.5rem;
}
</style>
