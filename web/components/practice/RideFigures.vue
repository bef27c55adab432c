<script setup lang="ts">
import { computed } from 'vue'
import type { RouteLocationRaw } from 'vue-router'
import type { End } from '#contract/common'
import type { Recording } from '#contract/recording'
import { endFigures } from '../../support/compareMetrics.ts'
import { plainWords } from '../../support/words.ts'
import EndMark from '../shell/EndMark.vue'

/** What the sensors kept of a ride of practice, beside the ride before it. */
const props = defineProps<{
  /** null: still being worked out. */
  recording: Recording | null
  before: Recording | null
  number: number
  fault: string
  /** Sensors that show what cannot be, in words. */
  wrong: readonly string[]
  /** Where the ride itself is looked at. */
  traceTo?: RouteLocationRaw | null
}>()
const ends = ['front', 'rear'] as const

function cell(end: End, { metric, digits, least }: (typeof endFigures)[number]) {
  const of = (r: Recording | null) => r?.analysis?.whole[end]?.[metric] ?? null
  const [now, was] = [of(props.recording), of(props.before)]
  return {
    end,
    value: now === null ? 'not told' : plainWords(now, digits),
    was: was === null ? '' : `was ${plainWords(was, digits)}`,
    moved: now !== null && was !== null && Math.abs(now - was) >= least,
  }
}
const rows = computed(() =>
  endFigures
    .map((f) => ({ key: f.key, name: f.name, unit: f.unit, cells: ends.map((end) => cell(end, f)) }))
    .filter((r) => r.cells.some((c) => c.value !== 'not told')),
)
</script>

<template>
  <section class="card-paper figures" aria-labelledby="ride-figures-title" :aria-busy="!recording && !fault">
    <h2 id="ride-figures-title">{{ `Run ${number}, by the sensors` }}</h2>
    <p v-if="fault" class="caution" role="alert">{{ fault }}</p>
    <p v-else-if="!recording" role="status" class="soft">The figures are being worked out …</p>
    <template v-else>
      <p v-for="words in wrong" :key="words" class="caution">{{ words }}</p>
      <p v-for="i in recording.issues" :key="i.code + i.message" class="caution">{{ i.message }}</p>
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
              {{ r.name }} <span class="soft small">{{ r.unit }}</span>
            </th>
            <td v-for="c in r.cells" :key="c.end" class="num">
              <b>{{ c.value }}</b>{{ ' ' }}
              <span v-if="c.was" class="small" :class="c.moved ? 'moved' : 'soft'">{{ c.was }}</span>
            </td>
          </tr>
        </tbody>
      </table>
      <p class="soft small">
        <template v-if="before">“Was” in bold: changed by enough to matter. </template>
        Sensors can be wrong, too: hold them against ring and rider.
      </p>
      <p v-if="traceTo">
        <RouterLink class="btn btn-plain" :to="traceTo">{{ `See the trace of run ${number}` }}</RouterLink>
      </p>
    </template>
  </section>
</template>

<style scoped>
.card-paper {
  padding: 0.8rem 1rem;
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
  padding: 0.2rem 0.5rem 0.2rem 0;
  border-bottom: 1px solid var(--line);
  font-weight: 400;
}
thead th {
  font-weight: 700;
}
.moved {
  font-weight: 700;
}
p {
  margin: 0.4rem 0 0;
}
</style>
