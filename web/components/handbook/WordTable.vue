<script setup lang="ts">
import type { FeelWord } from '#contract/run'
import { causeLabel } from '#core/causes/kinds'
import { isComplaint, wordRules } from '#core/causes/words'
import { toPage } from '../../handbook/index.ts'
import { sectionWords } from '../../support/words.ts'
import { seatWords } from './seatWords.ts'
import TableFrame from './TableFrame.vue'

/** The table of words that the judgement uses, as it stands. */
const words = (Object.keys(wordRules) as FeelWord[])
  .filter(isComplaint)
  .map((w) => ({ key: w, ...wordRules[w] }))
</script>

<template>
  <p>
    Each word is evidence, never proof. The numbers are the weights the judgement uses for a mark of middle
    strength (natural log units; 0.7 doubles the odds).
  </p>
  <TableFrame>
    <thead>
      <tr>
        <th scope="col">Word</th>
        <th scope="col">May come from</th>
        <th scope="col">Told apart by</th>
      </tr>
    </thead>
    <tbody>
      <tr v-for="w in words" :key="w.key">
        <th scope="row">
          <RouterLink :to="toPage('feels', w.key)">{{ w.label }}</RouterLink><br /><span
            class="soft small also"
            >{{ `also: ${w.aliases.join(', ')}` }}</span
          >
        </th>
        <td>
          <span v-for="c in w.causes" :key="c.kind + c.at" class="cause"
            >{{ seatWords[c.at] }}{{ causeLabel(c.kind, null) }}
            <b class="num">{{ c.weight.toFixed(1) }}</b></span
          >
          <span v-for="s in w.inSection" :key="s.section + s.kind" class="cause soft"
            >in {{ sectionWords[s.section] }}: {{ causeLabel(s.kind, null) }}
            <b class="num">+{{ s.weight.toFixed(1) }}</b></span
          >
        </td>
        <td>{{ w.toldApartBy }}</td>
      </tr>
    </tbody>
  </TableFrame>
</template>

<style scoped>
.also {
  font-weight: 400;
}
.cause {
  display: block;
}
</style>
