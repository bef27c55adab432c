<script setup lang="ts">
import { computed } from 'vue'
import type { DayBundle } from '#contract/endpoints'
import type { DayKnowledge } from '#core/adviser/summary'
import { answerWords } from '#core/causes/questions'
import { wordRules } from '#core/causes/words'
import { openPlans } from '#core/plans/state'
import { useUnits } from '../../composables/useUnits.ts'
import { clockWords } from '../../support/dates.ts'
import { dayLine } from '../../support/dayLine.ts'
import { conditionWords } from '../../support/dayWords.ts'
import { hourWords } from '../../support/hourWords.ts'
import { planWords } from '../../support/planWords.ts'
import { factsLine } from '../../support/runFacts.ts'

/** The day on paper: every run with what was turned before it and what was said of it. Made for print only. */
const props = defineProps<{ bundle: DayBundle; knowledge: DayKnowledge | null }>()
const { units } = useUnits()
const sheet = computed(() => {
  const b = props.bundle
  let turned = ''
  let noted: string[] = []
  const rows = dayLine(b, props.knowledge, units.value).items.flatMap((i) => {
    if (i.kind === 'change') {
      turned = `${i.title}, ${i.detail}${i.why ? ` (“${i.why}”)` : ''}`
      return []
    }
    if (i.kind === 'hour') {
      noted.push(`${clockWords(i.line.at)} ${hourWords(i.line, units.value)}`)
      return []
    }
    const feel = b.feels.find((f) => f.runId === i.id)
    const where = (id: string | null) => b.trail.sections.find((s) => s.id === id)?.name ?? 'whole run'
    const said = [
      ...(feel?.marks.map((m) => `${wordRules[m.word].label} (${m.end}, ${where(m.sectionId)})`) ?? []),
      ...(feel?.answers.map((a) => answerWords(a.question, a.answer)) ?? []),
      ...(feel?.note ? [`“${feel.note}”`] : []),
    ]
    const row = {
      id: i.id,
      number: i.number,
      time: clockWords(i.run.startedAt),
      noted: noted.join('; '),
      turned,
      rating: feel?.rating ?? (i.run.kind === 'counted' ? 'not rated' : ''),
      words: i.best ? 'best rating' : i.words,
      said: said.join('; '),
      facts: factsLine(b, i.run, units.value),
    }
    turned = ''
    noted = []
    return [row]
  })
  const planned = openPlans(b.day.plans, b)
    .filter((p) => p.state.is !== 'fell')
    .map((p) => planWords(p))
    .map(({ text, state }) => `Planned: ${text}${state ? ` (${state})` : ''}`)
  return { rows, after: noted.join('; '), planned }
})
</script>

<template>
  <section class="sheet" aria-label="The day on paper">
    <h1>{{ `${bundle.rider.name}, ${bundle.bike.name}` }}</h1>
    <p class="num">{{ conditionWords(bundle, units) }}</p>
    <table class="num">
      <thead>
        <tr>
          <th>Run</th>
          <th>Turned before it</th>
          <th>Rating</th>
          <th>Said and noted</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="r in sheet.rows" :key="r.id">
          <th scope="row">{{ r.number }}<br />{{ r.time }}</th>
          <td>
            {{ r.turned || 'nothing' }}<br />{{ r.words
            }}<template v-if="r.noted"
              ><br /><span class="soft">{{ r.noted }}</span></template
            >
          </td>
          <td>{{ r.rating }}</td>
          <td>{{ r.said }}<br v-if="r.said && r.facts" />{{ r.facts }}</td>
        </tr>
      </tbody>
    </table>
    <p v-if="sheet.after" class="num soft">{{ sheet.after }}</p>
    <p v-for="p in sheet.planned" :key="p" class="num">{{ p }}</p>
  </section>
</template>

<style scoped>
table {
  width: 100%;
  border-collapse: collapse;
}
th,
td {
  text-align: left;
  vertical-align: top;
  border-bottom: 1px solid var(--line);
  padding: 0.25rem 0.8rem 0.25rem 0;
}
</style>
