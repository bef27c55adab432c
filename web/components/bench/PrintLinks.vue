<script setup lang="ts">
import { computed } from 'vue'
import IconPrinter from '~icons/lucide/printer'
import { apiBase } from '../../api/client.ts'
import { useUnits } from '../../composables/useUnits.ts'

/** Sheets to print, in the units of whoever prints. */
const props = defineProps<{ bikeId: string; only?: 'sag-strip' }>()
const { units } = useUnits()
const query = computed(() => {
  const { mass: _mass, ...asked } = units.value
  return new URLSearchParams(asked).toString()
})
const to = (sheet: string) => `${apiBase}/bikes/${props.bikeId}/${sheet}.pdf?${query.value}`
</script>

<template>
  <span class="links">
    <a class="btn btn-plain" :href="to('sag-strip')" target="_blank" rel="noopener">
      <IconPrinter aria-hidden="true" /> Sag strip, 1:1
    </a>
    <a v-if="!only" class="btn btn-plain" :href="to('card')" target="_blank" rel="noopener">
      <IconPrinter aria-hidden="true" /> Setup card
    </a>
  </span>
</template>

<style scoped>
.links {
  display: inline-flex;
  flex-wrap: wrap;
  gap: 0.5rem;
}
</style>
