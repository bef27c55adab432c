<script setup lang="ts">
import type { CauseKind } from '#contract/proposal'
import { factRules } from '#core/causes/factRules'
import { causeLabel, handChecks } from '#core/causes/kinds'
import { tables, type TableKey } from '../../handbook/index.ts'
import FigureTable from './FigureTable.vue'
import QuestionTable from './QuestionTable.vue'
import WordTable from './WordTable.vue'

/** What the judgement uses, printed from its own data. */
defineProps<{ table: TableKey }>()
const checks = (Object.keys(handChecks) as CauseKind[])
  .filter((kind) => kind !== 'none')
  .map((kind) => ({ kind, text: handChecks[kind] }))
</script>

<template>
  <article>
    <h1>{{ tables[table].title }}</h1>
    <WordTable v-if="table === 'words'" />
    <template v-else-if="table === 'questions'">
      <p>
        A question is put where its answers lead to different turns: a breath is cheaper than a run. The
        shares are considered guesses. “Can’t say” is an answer too, and says nothing of any cause.
      </p>
      <QuestionTable />
    </template>
    <dl v-else-if="table === 'by-hand'">
      <template v-for="c in checks" :key="c.kind">
        <dt>{{ causeLabel(c.kind, null) }}</dt>
        <dd>{{ c.text }}</dd>
      </template>
    </dl>
    <FigureTable v-else-if="table === 'figures'" />
    <dl v-else-if="table === 'standing'">
      <template v-for="r in factRules" :key="r.topic">
        <dt>{{ r.label }}</dt>
        <dd>{{ r.says }}</dd>
      </template>
    </dl>
    <template v-else>
      <p>
        Every run adds to one picture: where on each dial the best place probably lies, how steeply it falls
        off there, and how much a rating scatters. Ratings count with their scatter; the day’s own drift is
        taken out. A word speaks for its causes by the shares of the table and may be a slip; what is not
        complained of counts a little too. Warm-ups and void runs never count.
      </p>
      <p>
        The change with the most to gain or to learn comes first: springs that are measurably wrong before
        dampers, one adjuster at a time or a pair of one end that belongs together, two clicks at most until a
        dial has been tried. When two likely causes ask for opposite turns, a test comes before a guess.
        Settled means: ridden twice, and little chance left that anything within reach is better by what you
        would notice.
      </p>
    </template>
  </article>
</template>

<style scoped>
dl {
  display: grid;
  grid-template-columns: 210px 1fr;
  gap: 0.4rem 1rem;
}
dt {
  font-weight: 650;
}
dd {
  margin: 0;
}
@media (max-width: 560px) {
  dl {
    grid-template-columns: 1fr;
  }
}
</style>
