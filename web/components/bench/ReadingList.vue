<script setup lang="ts">
import { computed } from 'vue'
import type { End } from '#contract/common'
import { sagConditions, sagNow, whyNotCounted } from '#core/bench/sagNow'
import { useUnits } from '../../composables/useUnits.ts'
import { useBench } from '../../stores/bench.ts'
import { postureWords } from '../../support/benchWords.ts'
import { strokePct } from '#core/spring/sag'

const props = defineProps<{ end: End; together: boolean }>()
const bench = useBench()
const { say } = useUnits()
const unit = computed(() => bench.unit(props.end)!)
const list = computed(() => {
  const all = bench.bench!.readings.filter((r) => r.end === props.end && r.together === props.together)
  const now = sagConditions(bench.bench!, unit.value, props.together)
  const { counted, judged } = sagNow(bench.bench!, unit.value, props.together)
  return all.map((r, i) => {
    const spring =
      r.pressurePsi !== null
        ? say('pressure', r.pressurePsi)
        : r.springRateNPerMm === null
          ? 'spring not read'
          : `${say('springRate', r.springRateNPerMm)}${r.preloadTurns ? `, ${r.preloadTurns} turns` : ''}`
    const odd = judged?.outlying.includes(counted.indexOf(r)) === true
    const why = whyNotCounted(r, now)
    return {
      r,
      no: i + 1,
      spring,
      pct: strokePct(r.sagMm, unit.value.strokeMm),
      note: why
        ? `does not count: ${why}`
        : odd
          ? counted.length === 2
            ? 'these two disagree: one more'
            : 'stands apart from the others'
          : '',
    }
  })
})
const leave = (id: string, leftOut: boolean) =>
  bench.set({ readings: bench.bench!.readings.map((r) => (r.id === id ? { ...r, leftOut } : r)) })
</script>

<template>
  <ol v-if="list.length" class="readings num">
    <li v-for="l in list" :key="l.r.id" :class="{ out: l.r.leftOut }">
      <span>{{ l.spring }}</span>
      <b>{{ `${l.pct.toFixed(1)} %` }}</b>
      <span>{{ say('length', l.r.sagMm) }}</span>
      <span class="soft small">{{ postureWords[l.r.posture] }}</span>
      <button type="button" class="btn btn-sm" @click="leave(l.r.id, !l.r.leftOut)">
        {{ l.r.leftOut ? 'Count it' : 'Don’t count' }}
      </button>
      <span v-if="l.note" class="odd">{{ l.note }}</span>
    </li>
  </ol>
</template>

<style scoped>
.readings {
  list-style: none;
  padding: 0;
  margin: 0;
}
li {
  display: grid;
  grid-template-columns: minmax(5.5rem, auto) 4.2rem 4.6rem 1fr auto;
  gap: 0 0.8rem;
  align-items: center;
  border-bottom: 1px solid var(--line);
}
.out > span,
.out > b {
  text-decoration: line-through;
  color: var(--ink-soft);
}
.odd {
  grid-column: 1 / -1;
  color: var(--rust);
  font-weight: 600;
}
@media (max-width: 480px) {
  li {
    grid-template-columns: minmax(4.5rem, auto) 4rem 1fr auto;
  }
  li .small {
    display: none;
  }
}
</style>
