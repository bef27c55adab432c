<script setup lang="ts">
import { useKept } from '../../composables/useKept.ts'
import { computed, ref } from 'vue'
import type { End } from '#contract/common'
import type { Analysis, EndMetrics } from '#contract/recording'
import type { TrailSection } from '#contract/trail'
import {
  depthBands,
  depthEdges,
  slowChoicesMmS,
  speedBands,
  speedNames,
  usualSlowMmS,
} from '../../support/bands.ts'
import BandStrip from './BandStrip.vue'

/** Bands per section and end; with a second analysis, its bands lie right under the first. */
const props = defineProps<{
  analysis: Analysis
  other?: Analysis | null
  sections: TrailSection[]
  /** Ride height that is meant, % of travel; null where it is not known. */
  targets?: Record<'front' | 'rear', number | null>
  /** Ends whose sensor's zero has moved: their time at depth is not shown. */
  wrongDepths?: readonly End[]
  /** The same of the other. */
  otherWrongDepths?: readonly End[]
}>()
const what = ref<'depth' | 'speed'>('depth')
const slow = useKept('wild-spring:slow-mm-s', usualSlowMmS)
const slowOptions = slowChoicesMmS.map((v) => ({ value: v, text: `${v} mm/s` }))
const names = computed(() =>
  what.value === 'depth'
    ? depthEdges.slice(0, -1).map((from, i) => `${from} to ${depthEdges[i + 1]} % deep`)
    : speedNames,
)
const shares = (m: EndMetrics) =>
  (what.value === 'depth' ? depthBands(m) : speedBands(m, slow.value)).map((b) => b.share)
const outlined = (end: 'front' | 'rear') => {
  const target = what.value === 'depth' ? (props.targets?.[end] ?? null) : null
  return target === null
    ? null
    : depthEdges.findIndex((from, i) => target >= from && target < depthEdges[i + 1])
}
const isBelieved = (end: End, wrong: readonly End[] = []) => what.value !== 'depth' || !wrong.includes(end)
const rows = computed(() => {
  const spans = [props.analysis.whole, ...props.analysis.sections]
  return spans.map((s) => {
    const twin =
      s.sectionId === null
        ? props.other?.whole
        : props.other?.sections.find((o) => o.sectionId === s.sectionId)
    return {
      key: s.sectionId ?? 'whole',
      name:
        s.sectionId === null ? 'Whole run' : (props.sections.find((x) => x.id === s.sectionId)?.name ?? '?'),
      strips: (['front', 'rear'] as const).flatMap((end) => [
        ...(s[end] && isBelieved(end, props.wrongDepths)
          ? [{ key: `${end}-a`, end, shares: shares(s[end]), tag: props.other ? 'A' : '' }]
          : []),
        ...(twin?.[end] && isBelieved(end, props.otherWrongDepths)
          ? [{ key: `${end}-b`, end, shares: shares(twin[end]), tag: 'B' }]
          : []),
      ]),
    }
  })
})
const legendWords = computed(() => {
  const order = what.value === 'depth' ? 'pale to deep' : 'left to right'
  const target = what.value === 'depth' && props.targets ? ' Outlined: the band of the sag target.' : ''
  const wrong =
    what.value === 'depth'
      ? [...new Set([...(props.wrongDepths ?? []), ...(props.otherWrongDepths ?? [])])]
      : []
  const left = wrong
    .map((end) => ` ${end === 'front' ? 'Front' : 'Rear'}: left out where its zero has moved.`)
    .join('')
  return `${order}: ${names.value.join(' · ')}. Front above, rear below.${target}${left}`
})
</script>

<template>
  <section class="card-paper bands" aria-labelledby="bands-title">
    <header>
      <h2 id="bands-title">{{ what === 'depth' ? 'Time at depth' : 'Time at shaft speed' }}</h2>
      <div class="switch" role="group" aria-label="What the bands show">
        <button type="button" :aria-pressed="what === 'depth'" @click="what = 'depth'">depth</button>
        <button type="button" :aria-pressed="what === 'speed'" @click="what = 'speed'">speed</button>
      </div>
    </header>
    <label v-if="what === 'speed'" class="small slow"
      >Slow ends at <BFormSelect v-model="slow" size="sm" :options="slowOptions"
    /></label>
    <div v-for="r in rows" :key="r.key" class="row">
      <b>{{ r.name }}</b>
      <div class="strips">
        <div v-for="s in r.strips" :key="s.key" class="line">
          <span v-if="s.tag" class="tag num">{{ s.tag }}</span><BandStrip
            :end="s.end"
            :shares="s.shares"
            :names="names"
            :outlined="outlined(s.end)"
            class="grow"
          />
        </div>
      </div>
    </div>
    <p class="soft small legend">
      {{ legendWords }}
    </p>
  </section>
</template>

<style scoped>
.bands {
  padding: 0.9rem 1.1rem;
}
header {
  display: flex;
  justify-content: space-between;
  align-items: center;
  margin-bottom: 0.5rem;
}
.switch button {
  border: 1px solid var(--line);
  background: var(--card);
  color: var(--ink);
  min-height: 36px;
  padding: 0 0.8rem;
}
.switch button:first-child {
  border-radius: 8px 0 0 8px;
}
.switch button:last-child {
  border-radius: 0 8px 8px 0;
  margin-left: -1px;
}
.switch button[aria-pressed='true'] {
  background: #23483c;
  color: #fdfaf2;
}
.slow {
  display: flex;
  gap: 0.5rem;
  align-items: center;
  margin-bottom: 0.5rem;
}
.slow :deep(select) {
  width: auto;
}
.row {
  display: grid;
  grid-template-columns: 118px 1fr;
  gap: 0.6rem;
  align-items: center;
  margin-bottom: 0.6rem;
  font-size: 0.9rem;
}
.strips {
  display: grid;
  gap: 3px;
}
.line {
  display: flex;
  gap: 0.4rem;
}
.grow {
  flex: 1;
}
.tag {
  width: 1em;
  font-weight: 700;
}
.legend {
  margin: 0;
}
@media (max-width: 560px) {
  .row {
    grid-template-columns: 1fr;
    gap: 0.2rem;
  }
}
</style>
