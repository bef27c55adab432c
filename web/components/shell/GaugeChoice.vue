<script setup lang="ts">
import { computed } from 'vue'
import type { Gauge } from '#contract/care'
import { useUnits } from '../../composables/useUnits.ts'

/** The gauge that pressures were read with, where somebody says so, and what it shows too much or too little. */
const props = defineProps<{ gauges: readonly Gauge[] }>()
/** Empty: not said. */
const gaugeId = defineModel<string>({ required: true })
const { sayDifference } = useUnits()
const choices = computed(() => [
  { value: '', text: 'gauge not said' },
  ...props.gauges.map((g) => ({ value: g.id, text: g.name })),
])
const high = computed(() => props.gauges.find((g) => g.id === gaugeId.value)?.readsHighPsi ?? 0)
const words = computed(() =>
  high.value > 0
    ? `That gauge reads ${sayDifference('pressure', high.value)} high; it is taken off.`
    : high.value < 0
      ? `That gauge reads ${sayDifference('pressure', -high.value)} low; it is added.`
      : '',
)
</script>

<template>
  <div class="gauge">
    <label class="form-label">Read with<BFormSelect v-model="gaugeId" :options="choices" /></label>
    <p v-if="words" class="small">{{ words }}</p>
  </div>
</template>

<style scoped>
label,
p {
  margin: 0;
}
</style>
