<script setup lang="ts">
import type { QuestionId } from '#contract/question'
import { causeLabel } from '#core/causes/kinds'
import { questionRules, type QuestionRule } from '#core/causes/questions'
import { wordRules } from '#core/causes/words'
import TableFrame from './TableFrame.vue'

const rows = (Object.keys(questionRules) as QuestionId[]).map((key) => {
  const rule: QuestionRule = questionRules[key]
  return {
    key,
    rule,
    after: rule.words.map((w) => `“${wordRules[w].label}”`).join(', ') || 'with its own card',
    answers: Object.entries(rule.answers).map(([id, label]) => ({
      id,
      label,
      meant: rule.means?.[id] ?? null,
      toward: rule.given
        .map((g) => ({
          label: causeLabel(g.kind, g.at === 'front' || g.at === 'rear' ? g.at : null),
          share: g.shares[id],
        }))
        .sort((a, b) => b.share - a.share),
    })),
  }
})
const percent = (x: number) => `${Math.round(100 * x)} %`
</script>

<template>
  <TableFrame>
    <thead>
      <tr>
        <th scope="col">Asked</th>
        <th scope="col">After</th>
        <th scope="col">Answer, and how many answer so where the cause is so</th>
      </tr>
    </thead>
    <tbody>
      <tr v-for="r in rows" :id="`question-${r.key}`" :key="r.key">
        <th scope="row">{{ r.rule.ask }}</th>
        <td>{{ r.after }}</td>
        <td>
          <p v-for="a in r.answers" :key="a.id" class="answer">
            <b>{{ a.label }}</b>
            <span v-if="a.meant">{{ `then it counts as “${wordRules[a.meant].label}”` }}</span>
            <span v-for="t in a.toward" :key="t.label" class="soft"
              >{{ t.label }} <span class="num">{{ percent(t.share) }}</span></span
            >
          </p>
        </td>
      </tr>
    </tbody>
  </TableFrame>
</template>

<style scoped>
.answer {
  display: flex;
  flex-wrap: wrap;
  gap: 0.1rem 0.8rem;
  margin: 0 0 0.3rem;
}
</style>
