<script setup lang="ts">
// The only ornament: contour lines behind the bar.
const lines = Array.from({ length: 7 }, (_, k) => {
  const points = Array.from(
    { length: 41 },
    (_, i) =>
      `${i * 40},${(8 + k * 8 + 7 * Math.sin(i / 3.1 + k * 0.7) + 4 * Math.sin(i / 1.7 - k)).toFixed(1)}`,
  )
  return `M${points.join(' L')}`
})
</script>

<template>
  <svg class="contours" viewBox="0 0 1600 64" preserveAspectRatio="xMidYMid slice" aria-hidden="true">
    <path v-for="d in lines" :key="d" :d="d" />
  </svg>
</template>

<style scoped>
.contours {
  position: absolute;
  inset: 0;
  width: 100%;
  height: 100%;
  z-index: -1;
}
path {
  fill: none;
  stroke: #fff;
  stroke-opacity: 0.11;
  stroke-width: 1.2;
}
</style>
