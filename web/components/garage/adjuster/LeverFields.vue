<script setup lang="ts">
import { computed } from 'vue'
import type { Adjuster } from '#contract/adjuster'
import { useAdjuster } from './useAdjuster.ts'

const adjuster = defineModel<Extract<Adjuster, { kind: 'lever' }>>({ required: true })
const { set } = useAdjuster(adjuster)
const positions = computed(() => adjuster.value.positions.join(', '))
const read = (e: Event) =>
  set({
    positions: (e.target as HTMLInputElement).value
      .split(',')
      .map((x) => x.trim())
      .filter(Boolean),
  })
</script>

<template>
  <label class="form-label"
    >Positions, most open first<BFormInput :model-value="positions" @change="read"
  /></label>
</template>
