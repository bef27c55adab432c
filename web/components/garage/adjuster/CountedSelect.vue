<script setup lang="ts">
import type { CountBase } from '#contract/adjuster'

const base = defineModel<CountBase>({ required: true })
const bases = [
  { value: 'closed-0', text: 'closed = 0' },
  { value: 'closed-1', text: 'closed = 1' },
  { value: 'open', text: 'from open' },
]
</script>

<template>
  <label class="form-label">Counted<BFormSelect v-model="base" :options="bases" /></label>
</template>
