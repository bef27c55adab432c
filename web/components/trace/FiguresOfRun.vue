<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { computed } from 'vue'
import type { Analysis } from '#contract/recording'
import type { End } from '#contract/common'
import type { FigureKey } from '#core/lineage/figures'
import { normalRange } from '#core/lineage/normalFigures'
import { cache, reads } from '../../api/cache.ts'
import { endFigures } from '../../support/compareMetrics.ts'
import { plainWords } from '../../support/words.ts'
import EndMark from '../shell/EndMark.vue'

/** Figures of a run by end, each with what is normal for this bike. */
const props = defineProps<{
  analysis: Analysis
  bikeId: string
  runId: string
  trailId: string
  /** Ends whose sensor's zero has moved: their depths are held against nothing. */
  wrongDepths: readonly End[]
}>()
const { data } = useQuery(
  computed(() => reads.figures(props.bikeId)),
  cache,
)
const keys: FigureKey[] = [
  'rideHeightPct',
  'depthP95Pct',
  'supportPct',
  'smallBumpPct',
  'valleyDriftPctPerHit',
  'reboundP95MmS',
]
const ends = computed(() => (['front', 'rear'] as const).filter((e) => props.analysis.whole[e]))

function cell(end: End, key: FigureKey, { digits, least, fromZero }: (typeof endFigures)[number]) {
  const value = props.analysis.whole[end]?.[key] ?? null
  const isWrong = fromZero === true && props.wrongDepths.includes(end)
  const normal = isWrong ? null : normalRange(data.value ?? [], props, end, key)
  const of = (v: number) => plainWords(v, digits)
  const range =
    normal &&
    (of(normal.low) === of(normal.high) ? of(normal.low) : `${of(normal.low)} to ${of(normal.high)}`)
  const isOutside =
    value !== null && normal !== null && (value < normal.low - least || value > normal.high + least)
  return { end, value: value === null ? 'not told' : of(value), range, isOutside, isWrong, normal }
}
const rows = computed(() =>
  keys.map((key) => {
    const f = endFigures.find((x) => x.metric === key)!
    return { key, name: f.name, unit: f.unit, cells: ends.value.map((end) => cell(end, key, f)) }
  }),
)
const basis = computed(() => {
  const known = rows.value.flatMap((r) => r.cells).flatMap((c) => c.normal ?? [])
  if (!known.length) return 'What is normal for this bike shows after three other counted runs with sensors.'
  const where = known[0].on === 'trail' ? 'on this trail' : 'on all its trails, too few on this one'
  return `Normal: lowest to highest of ${Math.max(...known.map((n) => n.runs))} other runs of this bike ${where}.`
})
</script>

<template>
  <section class="card-paper panel" aria-labelledby="figures-title">
    <h2 id="figures-title">Figures of this run</h2>
    <table>
      <thead>
        <tr>
          <th scope="col"><span class="visually-hidden">Figure</span></th>
          <th v-for="end in ends" :key="end" scope="col"><EndMark :end="end" small /> {{ end }}</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="r in rows" :key="r.key">
          <th scope="row">
            {{ r.name }}<span class="soft small">{{ r.unit }}</span>
          </th>
          <td v-for="c in r.cells" :key="c.end" class="num">
            <b>{{ c.value }}</b>
            <span v-if="c.isWrong" class="small outside"> not believed</span>
            <span v-else-if="c.range" class="small" :class="c.isOutside ? 'outside' : 'soft'">
              {{ c.isOutside ? `outside ${c.range}` : `normal ${c.range}` }}</span
            >
          </td>
        </tr>
      </tbody>
    </table>
    <p class="small soft">{{ basis }}</p>
  </section>
</template>

<style scoped>
.panel {
  padding: 0.9rem 1.1rem;
}
table {
  width: 100%;
  border-collapse: collapse;
  margin-top: 0.3rem;
  font-size: 0.92rem;
}
th,
td {
  text-align: left;
  padding: 0.3rem 0.5rem 0.3rem 0;
  border-bottom: 1px solid var(--line);
  vertical-align: top;
  font-weight: 400;
}
thead th {
  font-weight: 700;
}
tbody th span,
td span {
  display: block;
}
.outside {
  color: var(--rust);
  font-weight: 600;
}
p {
  margin: 0.4rem 0 0;
}
</style>
