<script setup lang="ts">
import { computed } from 'vue'
import type { Analysis } from '#contract/recording'
import { evidenceCounts } from '#core/telemetry/evidence'

const props = defineProps<{ analysis: Analysis }>()
const rows = computed(() =>
  evidenceCounts(props.analysis.whole).map((e) => {
    const enough = e.count >= e.needed
    return {
      ...e,
      enough,
      pips: Array.from({ length: 6 }, (_, i) => i < Math.min(6, Math.round((6 * e.count) / e.needed))),
      words: enough
        ? `${e.count}: enough for ${e.judges}`
        : `${e.count} of ${e.needed}: too few yet to judge ${e.judges}; ride ${e.ride}`,
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
