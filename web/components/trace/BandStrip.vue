<script setup lang="ts">
import { computed } from 'vue'
import type { End } from '#contract/common'

/** Shares of time as one horizontal strip, pale to deep; figures where they fit. */
const props = defineProps<{
  end: End
  shares: number[]
  names: string[]
  /** The part in which most of the time is meant to be spent. */
  outlined?: number | null
}>()
const parts = computed(() => {
  let left = 0
  return props.shares.map((share, i) => {
    const part = {
      key: props.names[i],
      share,
      left,
      text: share >= 0.085 ? `${Math.round(share * 100)}%` : '',
      depth: i / Math.max(1, props.shares.length - 1),
      title: `${props.names[i]}: ${(share * 100).toFixed(1)} % of the time${i === props.outlined ? ', where it is meant to ride' : ''}`,
      outlined: i === props.outlined,
    }
    left += share
    return part
  })
})
// No tone from the middle: neither ink nor card could be read on it at 7:1.
const isDeep = (depth: number) => depth > 0.5
const strength = (depth: number) => (isDeep(depth) ? 93 + 14 * (depth - 0.5) : 8 + 36 * depth)
const fill = (depth: number) =>
  `color-mix(in oklab, var(--${props.end}) ${Math.round(strength(depth))}%, var(--card))`
const ink = (depth: number) => (isDeep(depth) ? 'var(--card)' : 'var(--ink)')
</script>

<template>
  <div class="strip num" role="img" :aria-label="`${end}: ${parts.map((p) => p.title).join(', ')}`">
    <span
      v-for="p in parts"
      :key="p.key"
      :title="p.title"
      :class="{ outlined: p.outlined }"
      :style="{ width: `${100 * p.share}%`, background: fill(p.depth), color: ink(p.depth) }"
      >{{ p.text }}</span
    >
  </div>
</template>

<style scoped>
.strip {
  display: flex;
  height: 22px;
  border-radius: 5px;
  overflow: hidden;
  gap: 1px;
  background: var(--line);
}
.outlined {
  box-shadow: inset 0 0 0 2.5px var(--sun);
}
span {
  font-size: 0.78rem;
  display: grid;
  place-items: center;
  overflow: hidden;
}
</style>
