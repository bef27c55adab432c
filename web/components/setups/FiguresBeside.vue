<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { computed } from 'vue'
import type { KnownPlace } from '#core/lineage/facts'
import { figureDifferences, type FigureKey } from '#core/lineage/figures'
import { cache, reads } from '../../api/cache.ts'
import { endFigures } from '../../support/compareMetrics.ts'
import { signedWords } from '../../support/words.ts'
import EndMark from '../shell/EndMark.vue'

/** What recordings say of two setups of one bike, against the scatter of its repeats. */
const props = defineProps<{ bikeId: string; first: KnownPlace; second: KnownPlace }>()
const { data } = useQuery(
  computed(() => reads.figures(props.bikeId)),
  cache,
)
const shown = (key: FigureKey) => endFigures.find((f) => f.metric === key)!
const keys: FigureKey[] = [
  'rideHeightPct',
  'depthP95Pct',
  'supportPct',
  'smallBumpPct',
  'valleyDriftPctPerHit',
  'reboundP95MmS',
  'diveRisePct',
]
const leasts = Object.fromEntries(keys.map((k) => [k, shown(k).least])) as Record<FigureKey, number>
const rows = computed(() =>
  figureDifferences(data.value ?? [], props.first.setupIds, props.second.setupIds, leasts),
)
const sizeWords = {
  clear: 'clear',
  within: 'within the scatter',
  unknown: 'scatter not known',
  'other-days': 'on other days',
}
const lines = computed(() =>
  rows.value
    // A setup ridden on other days differs by the day as well: only what is measured together is news.
    .filter((r) => r.size !== 'within')
    .map((r) => {
      const { name, unit, digits } = shown(r.key)
      const of = (x: number) => x.toFixed(digits)
      const places = Math.max(digits, 1)
      const least = 10 ** -places
      const scatter =
        r.scatter === null
          ? ''
          : r.scatter < least / 2
            ? ` ± < ${least.toFixed(places)}`
            : ` ± ${r.scatter.toFixed(places)}`
      return {
        key: `${r.end} ${r.key}`,
        end: r.end,
        name,
        numbers: `${of(r.first.mean)} → ${of(r.second.mean)}${scatter}`,
        words: `${signedWords(r.second.mean - r.first.mean, digits)} ${unit}, ${sizeWords[r.size]}`,
      }
    }),
)
const within = computed(() => rows.value.filter((r) => r.size === 'within').length)
const counts = computed(() => {
  const most = (side: 'first' | 'second') => Math.max(...rows.value.map((r) => r[side].runs))
  return `${most('first')} and ${most('second')} runs with sensors`
})
const otherDays = computed(() => rows.value.some((r) => r.size === 'other-days'))
</script>

<template>
  <section v-if="rows.length" class="figures num">
    <h4>
      What the sensors say <small class="soft">{{ counts }}</small>
    </h4>
    <p v-if="otherDays" class="small soft">
      Never ridden on one day: what differs here may be the track, the weather or the pace.
    </p>
    <ul>
      <li v-for="l in lines" :key="l.key">
        <EndMark :end="l.end" small />
        <span
          >{{ l.name }} <small class="soft">{{ l.words }}</small></span
        >
        <b>{{ l.numbers }}</b>
      </li>
    </ul>
    <p v-if="within" class="small soft">
      {{
        `${within} ${within === 1 ? 'figure differs' : 'figures differ'} by no more than repeats of one setting do.`
      }}
    </p>
  </section>
</template>

<style scoped>
.figures {
  margin-top: 0.8rem;
}
h4 {
  margin: 0;
  font-size: 1rem;
}
h4 small {
  font-weight: 400;
}
ul {
  list-style: none;
  margin: 0.2rem 0;
  padding: 0;
}
li {
  display: grid;
  grid-template-columns: auto 1fr auto;
  align-items: center;
  gap: 0.5rem;
  min-height: 34px;
  border-bottom: 1px solid var(--line);
  line-height: 1.2;
}
small {
  display: inline-block;
}
</style>
