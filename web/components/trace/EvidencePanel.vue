<script setup lang="ts">
import { computed } from 'vue'
import type { End } from '#contract/common'
import type { Analysis } from '#contract/recording'
import { evidenceCounts } from '#core/telemetry/evidence'

const props = defineProps<{
  analysis: Analysis
  /** Ends whose sensor's zero has moved. */
  wrongDepths: readonly End[]
}>()
const rows = computed(() =>
  evidenceCounts(props.analysis.whole, props.wrongDepths).map((e) => {
    const count = e.count ?? 0
    const enough = count >= e.needed
    return {
      ...e,
      enough,
      pips: Array.from({ length: 6 }, (_, i) => i < Math.min(6, Math.round((6 * count) / e.needed))),
      words:
        e.count === null
          ? `told by depths, which count for nothing here: nothing yet to judge ${e.judges}`
          : enough
            ? `${count}: enough for ${e.judges}`
            : `${count} of ${e.needed}: too few yet to judge ${e.judges}; ride ${e.ride}`,
    }
  }),
)
</script>

<template>
  <section class="card-paper panel" aria-labelledby="evidence-title">
    <h2 id="evidence-title">What this ride can and can’t tell</h2>
    <ul>
      <li v-for="r in rows" :key="r.what">
        <b>{{ r.what }}</b>
        <span class="pips" aria-hidden="true"
          ><i v-for="(on, i) in r.pips" :key="i" :class="{ on, enough: r.enough }"></i
        ></span>
        <span class="soft small num">{{ r.words }}</span>
      </li>
    </ul>
  </section>
</template>

<style scoped>
.panel {
  padding: 0.9rem 1.1rem;
}
ul {
  list-style: none;
  margin: 0.5rem 0 0;
  padding: 0;
  display: grid;
  gap: 0.55rem;
}
li {
  display: grid;
  grid-template-columns: 1fr auto;
  gap: 0 0.6rem;
  font-size: 0.92rem;
}
li > .small {
  grid-column: 1 / -1;
}
.pips {
  display: flex;
  gap: 3px;
  align-items: center;
}
i {
  width: 8px;
  height: 13px;
  border-radius: 3px;
  border: 1.5px solid var(--sun-ink);
}
i.on {
  background: var(--sun);
}
i.enough {
  border-color: var(--moss);
}
i.enough.on {
  background: var(--moss);
}
</style>
