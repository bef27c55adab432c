<script setup lang="ts">
import { computed } from 'vue'
import type { QuestionId } from '#contract/question'
import type { FeelWord } from '#contract/run'
import { causeLabel, handChecks } from '#core/causes/kinds'
import { questionRules } from '#core/causes/questions'
import { wordRules } from '#core/causes/words'
import { cautionOf, remedies } from '../../handbook/remedies.ts'
import type { CautionKey } from '../../support/cautions.ts'
import { sectionWords } from '../../support/words.ts'
import CautionList from '../bench/CautionList.vue'
import SeeAlso from './SeeAlso.vue'
import { seatWords } from './seatWords.ts'

/** One word of how it feels: what it may come from, how that is told apart, and what is done. */
const props = defineProps<{ word: FeelWord }>()
const rule = computed(() => wordRules[props.word])
const causes = computed(() =>
  [...rule.value.causes]
    .sort((a, b) => b.weight - a.weight)
    .map((c, i) => ({
      ...c,
      where: seatWords[c.at].replace('the end you named: ', ''),
      name: causeLabel(c.kind, null),
      often: i === 0 ? 'likely first' : c.weight >= 0.8 ? 'often' : 'sometimes',
      check: handChecks[c.kind],
      remedy: remedies[c.kind],
    })),
)
const sections = computed(() =>
  (rule.value.inSection ?? []).map(
    (s) => `In ${sectionWords[s.section]}: rather ${causeLabel(s.kind, null)}.`,
  ),
)
const questions = computed(() =>
  (Object.keys(questionRules) as QuestionId[])
    .filter((q) => questionRules[q].words.includes(props.word))
    .map((q) => ({ ask: questionRules[q].ask, answers: Object.values<string>(questionRules[q].answers) })),
)
const cautions = computed((): CautionKey[] => [
  ...new Set([...causes.value.flatMap((c) => cautionOf[c.kind] ?? []), 'oneChange' as const]),
])
const endWords = computed(() =>
  rule.value.usualEnd === null
    ? 'Said of either end; say which, and where on the trail.'
    : `Mostly said of the ${rule.value.usualEnd}. Say where on the trail.`,
)
</script>

<template>
  <article class="with-side">
    <div>
      <h1>“{{ rule.label }}”</h1>
      <p class="soft">{{ `Also: ${rule.aliases.join(', ')}. ${endWords}` }}</p>
      <h2>What it may come from</h2>
      <ol class="causes">
        <li v-for="c in causes" :key="c.kind + c.at">
          <p class="name">
            <b>{{ c.where }}{{ c.name }}</b> <span class="soft small">{{ c.often }}</span>
          </p>
          <p><span class="soft">By hand:</span> {{ c.check }}</p>
          <p><span class="soft">If so:</span> {{ c.remedy }}</p>
        </li>
      </ol>
      <h2>What tells them apart</h2>
      <p>{{ `${rule.toldApartBy.charAt(0).toUpperCase()}${rule.toldApartBy.slice(1)}.` }}</p>
      <p v-for="s in sections" :key="s">{{ s }}</p>
      <template v-if="questions.length">
        <h2>What to ask first</h2>
        <div v-for="q in questions" :key="q.ask" class="ask">
          <b>{{ q.ask }}</b>
          <ul>
            <li v-for="a in q.answers" :key="a">{{ a }}</li>
          </ul>
        </div>
      </template>
      <p class="soft small">
        A word is evidence, never proof.
        <RouterLink :to="{ name: 'handbook', params: { chapter: 'tables', page: 'words' } }"
          >The weights that the judgement uses</RouterLink
        >
      </p>
    </div>
    <aside aria-label="Cautions, and further pages">
      <CautionList :of="cautions" />
      <SeeAlso :pages="['tables/by-hand', 'tables/questions', 'works/noise']" />
    </aside>
  </article>
</template>

<style scoped>
h2 {
  margin-top: 1.1rem;
}
p {
  max-width: 62ch;
  margin: 0.15rem 0;
}
.causes {
  list-style: none;
  padding: 0;
  margin: 0.3rem 0;
}
.causes li {
  border-left: 4px solid var(--line);
  padding: 0.35rem 0 0.35rem 0.9rem;
  margin-bottom: 0.5rem;
}
.causes li:first-child {
  border-color: var(--sun);
}
.ask ul {
  padding-left: 1.1rem;
}
</style>
