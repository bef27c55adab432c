<script setup lang="ts">
import { computed } from 'vue'
import type { SectionKind } from '#contract/trail'
import { seededRandom } from '#core/numeric/random'
import { buildTrack } from '#core/sim/track'

/** The first metres of a kind of ground as the simulator rides it; low features closer and higher drawn than tall ones. */
const props = defineProps<{ kind: SectionKind; severity: number }>()
const tall: SectionKind[] = ['drop', 'jump', 'rollers', 'berms', 'g-out', 'flat-turn']
const scale = computed(() =>
  tall.includes(props.kind) ? { shownM: 36, times: 4 } : { shownM: 14, times: 9 },
)
const size = { w: 120, h: 30 }
const path = computed(() => {
  const { shownM, times } = scale.value
  const severity = Math.min(2.5, Math.max(0.2, props.severity || 1))
  const { heightM, loadG } = buildTrack([{ kind: props.kind, lengthM: shownM, severity }], seededRandom(5))
  const step = Math.max(1, Math.floor(heightM.length / size.w))
  const points: string[] = []
  for (let i = 0; i < heightM.length; i += step) {
    const x = (i / heightM.length) * size.w
    // A turn has no height: its load is drawn as a dip.
    const y = size.h * 0.7 - times * heightM[i] * (size.w / shownM) + 7 * (loadG[i] - 1)
    points.push(`${x.toFixed(1)} ${Math.min(size.h - 1, Math.max(1, y)).toFixed(1)}`)
  }
  return `M${points.join('L')}`
})
const box = `0 0 ${size.w} ${size.h}`
</script>

<template>
  <svg :viewBox="box" aria-hidden="true"><path :d="path" /></svg>
</template>

<style scoped>
svg {
  width: 100%;
  height: 30px;
}
path {
  fill: none;
  stroke: var(--ink);
  stroke-width: 1.4;
  stroke-linejoin: round;
}
</style>
