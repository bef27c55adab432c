<script setup lang="ts">
import { computed } from 'vue'
import type { PracticeDay } from '#core/practice/day'
import type { HiddenRider } from '#core/practice/hiddenRider'
import { goodPlaces } from '#core/practice/review/hidden'
import type { Bracket } from '#core/adviser/bracket'
import { setBy } from '#core/setup/known'
import ClickRail from '../day/ClickRail.vue'

/** Where dials stood, where they were left, and where the best was. */
const props = defineProps<{ rider: HiddenRider; day: PracticeDay }>()
const rails = computed(() => {
  const { rider, day } = props
  const ridden = day.runs.map((r) => r.positions)
  return goodPlaces(rider, day.runs.length).flatMap((g) => {
    const { id } = g.dial.adjuster
    const tried = [...new Set([rider.start[id], ...ridden.map((p) => p[id])])]
    const left = day.positions[id]
    if (!g.wasOff && tried.length === 1 && left === rider.start[id]) return []
    const bracket: Bracket = {
      low: g.goodFrom,
      high: g.goodTo,
      lowOpen: false,
      highOpen: false,
      tried: tried
        .filter((v) => v !== left)
        .map((value) => ({
          value,
          outcome: value === rider.start[id] ? ('start' as const) : ('unclear' as const),
          runs: 1,
        })),
    }
    return [{ dial: g.dial, left, bracket, ghost: left === g.best ? null : g.best }]
  })
})
</script>

<template>
  <section class="card-paper" aria-labelledby="where-title">
    <h2 id="where-title">Where you were, and where it was</h2>
    <ClickRail
      v-for="r in rails"
      :key="r.dial.adjuster.id"
      :end="r.dial.end"
      :adjuster="r.dial.adjuster"
      :value="r.left"
      :known="setBy({ at: '2000-01-01T09:00:00.000Z' })"
      :ghost="r.ghost"
      :bracket="r.bracket"
      :detail="r.dial.end"
      locked
    />
    <p class="soft small legend">
      <span>filled: where you left it</span><span>○ where it stood</span><span>◆ ridden</span
      ><span>┊ the best a hand can set</span><span class="s">too near the best to feel a difference</span>
    </p>
  </section>
</template>

<style scoped>
.card-paper {
  padding: 0.8rem 1rem;
}
.legend {
  display: flex;
  flex-wrap: wrap;
  gap: 0.1rem 1rem;
  margin: 0.5rem 0 0;
}
.s::before {
  content: '';
  display: inline-block;
  width: 18px;
  height: 11px;
  margin-right: 4px;
  background: var(--sun-soft);
  border-radius: 4px;
}
</style>
