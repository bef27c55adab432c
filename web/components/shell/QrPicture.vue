<script setup lang="ts">
import encodeQR from 'qr'
import { computed } from 'vue'

/** An address for another device's camera; the address stands beside it for those without one. */
const props = defineProps<{ text: string; label: string }>()
const rows = computed(() => encodeQR(props.text, 'raw', { ecc: 'medium', border: 3 }))
const path = computed(() =>
  rows.value.flatMap((row, y) => row.map((dark, x) => (dark ? `M${x} ${y}h1v1h-1z` : ''))).join(''),
)
</script>

<template>
  <svg
    role="img"
    :aria-label="label"
    :viewBox="`0 0 ${rows.length} ${rows.length}`"
    shape-rendering="crispEdges"
  >
    <!-- Dark on light in both looks: cameras read nothing else. -->
    <rect :width="rows.length" :height="rows.length" fill="#fff" />
    <path :d="path" fill="#14201b" />
  </svg>
</template>

<style scoped>
svg {
  width: 100%;
  max-width: 15rem;
  border-radius: 8px;
  display: block;
}
</style>
