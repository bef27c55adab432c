<script setup lang="ts">
import { computed } from 'vue'
import type { Setup } from '#contract/setup'
import type { SuspensionUnit } from '#contract/unit'
import { adjusterName } from '#core/adjusters/words'
import { countBaseWords } from '#core/adjusters/count'
import { knownWords } from '#core/setup/known'
import { useUnits } from '../../composables/useUnits.ts'
import { localDate, shortDayWords } from '../../support/dates.ts'
import EndMark from '../shell/EndMark.vue'

/** What the baseline rests on before anything is begun: part by part, how it is known and since when. */
const props = defineProps<{ setup: Setup | undefined; units: readonly SuspensionUnit[] }>()
const { positionWords } = useUnits()
const rows = computed(() =>
  props.units.map((u) => ({
    u,
    parts: u.adjusters.map((a) => {
      const at = props.setup?.positions.find((p) => p.adjusterId === a.id)
      const how = at?.known.how ?? 'unread'
      return {
        a,
        how,
        value: at ? `${positionWords(a, at.value)} ${countBaseWords(a)}`.trim() : '?',
        known: knownWords[how] + (at?.known.at ? `, ${shortDayWords(localDate(at.known.at))}` : ''),
      }
    }),
  })),
)
const counts = computed(() => {
  const all = rows.value.flatMap((r) => r.parts)
  const of = (how: string) => all.filter((p) => p.how === how).length
  return [
    ['read', of('read')],
    ['set', of('set')],
    ['assumed', of('assumed')],
    ['not read', of('unread')],
  ] as const
})
const sag = computed(() => {
  const f = props.setup?.foundIn
  if (!f) return 'Sag: not read.'
  const each = (pct: number | null) => (pct === null ? 'not read' : `${Math.round(pct)} %`)
  return `Sag: front ${each(f.sagFrontPct)}, rear ${each(f.sagRearPct)}.`
})
</script>

<template>
  <section aria-labelledby="state-title">
    <h2 id="state-title">What is known now</h2>
    <p class="counts num">
      <span v-for="[word, n] in counts" :key="word" :class="{ none: n === 0 }"
        ><b>{{ n }}</b> {{ word }}</span
      >
    </p>
    <p class="num">{{ sag }}</p>
    <div class="ends">
      <table v-for="r in rows" :key="r.u.id" class="num">
        <caption>
          <EndMark :end="r.u.end" small />
          {{
            r.u.name
          }}
        </caption>
        <tbody>
          <tr v-for="p in r.parts" :key="p.a.id" :class="p.how">
            <th scope="row">{{ adjusterName(p.a) }}</th>
            <td>
              <b>{{ p.value }}</b>
            </td>
            <td class="soft small">{{ p.known }}</td>
          </tr>
        </tbody>
      </table>
    </div>
  </section>
</template>

<style scoped>
h2 {
  margin-bottom: 0.3rem;
}
p {
  margin: 0.2rem 0 0.5rem;
}
.counts {
  display: flex;
  flex-wrap: wrap;
  gap: 0.3rem 1.2rem;
}
.none {
  color: var(--ink-soft);
}
.ends {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(300px, 1fr));
  gap: 0.6rem 1.6rem;
}
caption {
  caption-side: top;
  font-weight: 650;
  color: var(--ink);
}
th,
td {
  padding: 0.2rem 0.8rem 0.2rem 0;
  text-align: left;
  vertical-align: baseline;
  border-bottom: 1px solid var(--line);
}
th {
  font-weight: 400;
}
.unread b,
.assumed b {
  color: var(--rust);
}
table {
  width: 100%;
  align-self: start;
}
</style>
