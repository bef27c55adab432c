<script setup lang="ts">
import { computed } from 'vue'
import type { Adjuster } from '#contract/adjuster'
import { chosenNumber, fromChosen } from '#core/units/choice'
import { useUnits } from '../../../composables/useUnits.ts'
import { useAdjuster } from './useAdjuster.ts'

const { units } = useUnits()
const adjuster = defineModel<Extract<Adjuster, { kind: 'spring-rate' }>>({ required: true })
const { set } = useAdjuster(adjuster)
const rates = computed(() =>
  adjuster.value.ratesNPerMm.map((r) => chosenNumber('springRate', r, units.value, 1)).join(' '),
)
const label = computed(() => `Springs owned, ${units.value.springRate}`)
function read(e: Event) {
  const numbers = (e.target as HTMLInputElement).value
    .split(/[;/]|,(?=\s)|\s+/)
    .map((x) => Number(x.trim().replace(',', '.')))
    .filter((x) => Number.isFinite(x) && x > 0)
  set({ ratesNPerMm: numbers.map((r) => fromChosen('springRate', r, units.value)) })
}
</script>

<template>
  <label class="form-label">{{ label }}<BFormInput :model-value="rates" @change="read" /></label>
</template>
