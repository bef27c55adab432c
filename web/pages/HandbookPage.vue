<script setup lang="ts">
import type { FeelWord } from '#contract/run'
import type { CauseKind } from '#contract/proposal'
import { causeLabel, handChecks } from '#core/causes/kinds'
import { metricRules, wholeRules, type MetricLine } from '#core/causes/metricRules'
import { factRules } from '#core/causes/factRules'
import { wordRules, type CauseSeat } from '#core/causes/words'
import { schools } from '#core/bench/schools'
import QuestionTable from '../components/handbook/QuestionTable.vue'
import CautionList from '../components/bench/CautionList.vue'
import { cautions, type CautionKey } from '../support/cautions.ts'
import { sectionWords } from '../support/words.ts'
import { anchorOf, dials, terms } from '../support/handbook.ts'
import { usePageTitle } from '../composables/usePageTitle.ts'

const words = (Object.keys(wordRules) as FeelWord[])
  .filter((w) => wordRules[w].about !== 'good')
  .map((w) => ({ key: w, ...wordRules[w] }))
const checks = (Object.keys(handChecks) as CauseKind[])
  .filter((kind) => kind !== 'none')
  .map((kind) => ({ kind, text: handChecks[kind] }))
const seatWords: Record<CauseSeat, string> = {
  same: 'the end you named: ',
  front: 'front: ',
  rear: 'rear: ',
  bike: '',
}
const weightWords = (s: MetricLine['says'][number]) =>
  `${s.weight < 0 || (s.slope ?? 0) < 0 ? '−' : '+'}${Math.abs(s.weight).toFixed(1)}${s.slope ? `, and ${Math.abs(s.slope)} for each beyond` : ''}${s.most ? `, at most ${s.most}` : ''}`
usePageTitle(() => 'Handbook')
const cautionKeys = Object.keys(cautions) as CautionKey[]
</script>

<template>
  <div class="page">
    <div class="page-head"><h1>What does this word or dial mean</h1></div>
    <section aria-labelledby="cautions">
      <h2 id="cautions">Before anything is turned</h2>
      <p>{{ cautions.manuals }}</p>
      <details>
        <summary>{{ `All ${cautionKeys.length} cautions; each also stands at its step` }}</summary>
        <CautionList :of="cautionKeys" />
      </details>
    </section>
    <section aria-labelledby="dials">
      <h2 id="dials">Dials</h2>
      <p>
        Low and high speed mean the speed of the <b>shaft</b>, not of the bike. Some teach “the first third of
        travel” against “the rest”; on a trail the two go together, but it is not what the valve does.
      </p>
      <dl>
        <template v-for="d in dials" :key="d.name">
          <dt :id="anchorOf('dial', d.name)">{{ d.name }}</dt>
          <dd>{{ d.text }}</dd>
        </template>
      </dl>
      <h3>Counting clicks</h3>
      <p>
        Three bases are in use: from fully closed with the stop as 0, from fully closed with the stop as 1,
        and from fully open. Each dial keeps its own; the base stands beside the number. Clockwise closes:
        slower rebound, firmer compression.
      </p>
    </section>
    <section aria-labelledby="terms">
      <h2 id="terms">Words of the bench</h2>
      <dl>
        <template v-for="t in terms" :key="t.name">
          <dt :id="anchorOf('term', t.name)">{{ t.name }}</dt>
          <dd>{{ t.text }}</dd>
        </template>
      </dl>
    </section>
    <section aria-labelledby="schools">
      <h2 id="schools">Where good mechanics differ</h2>
      <p>All of these work in good hands. Ours is where the tool begins; each can be switched at its step.</p>
      <article v-for="x in schools" :id="`school-${x.key}`" :key="x.key" class="school">
        <h3>{{ x.question }}</h3>
        <ul>
          <li v-for="w in x.answers" :key="w.name">
            <b>{{ `${w.name}.` }}</b>
            {{ ` ${w.text}` }}
          </li>
        </ul>
        <p>
          <b>Ours:</b>
          {{ ` ${x.ours}` }}
        </p>
      </article>
    </section>
    <section aria-labelledby="feel">
      <h2 id="feel">Words, and what they may come from</h2>
      <p>
        Each word is evidence, never proof. The numbers are the weights the judgement uses for a mark of
        middle strength (natural log units; 0.7 doubles the odds).
      </p>
      <div class="scroll" tabindex="0" role="group" aria-label="Table, scrolls sideways">
        <table>
          <thead>
            <tr>
              <th scope="col">Word</th>
              <th scope="col">May come from</th>
              <th scope="col">Told apart by</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="w in words" :id="`word-${w.key}`" :key="w.key">
              <th scope="row">
                {{ w.label }}<br /><span class="soft small also">{{ `also: ${w.aliases.join(', ')}` }}</span>
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
        </table>
      </div>
    </section>
    <section aria-labelledby="questions">
      <h2 id="questions">Questions, and what an answer says</h2>
      <p>
        A question is put where its answers lead to different turns: a breath is cheaper than a run. The
        shares are considered guesses. “Can’t say” is an answer too, and says nothing of any cause.
      </p>
      <QuestionTable />
    </section>
    <section aria-labelledby="by-hand">
      <h2 id="by-hand">One check by hand for each cause</h2>
      <dl>
        <template v-for="c in checks" :key="c.kind">
          <dt>{{ causeLabel(c.kind, null) }}</dt>
          <dd>{{ c.text }}</dd>
        </template>
      </dl>
    </section>
    <section aria-labelledby="figures">
      <h2 id="figures">Figures of a sensor, and what they speak for</h2>
      <p>
        Plus speaks for a cause, minus against it. A figure with too few hits, trains or braking stretches
        says nothing. These are considered guesses held against simulated rides, not measurements of riders.
      </p>
      <div class="scroll" tabindex="0" role="group" aria-label="Table, scrolls sideways">
        <table>
          <thead>
            <tr>
              <th scope="col">Figure</th>
              <th scope="col">Beyond</th>
              <th scope="col">Speaks</th>
            </tr>
          </thead>
          <tbody>
            <template v-for="r in metricRules" :key="r.topic">
              <tr v-for="l in r.lines" :key="l.when">
                <th scope="row">{{ r.label }}</th>
                <td class="num">{{ `${l.when} ${l.from}` }}</td>
                <td>
                  <span v-for="x in l.says" :key="x.kind" class="cause"
                    >{{ causeLabel(x.kind, null) }} <b class="num">{{ weightWords(x) }}</b></span
                  >
                </td>
              </tr>
            </template>
            <tr v-for="w in wholeRules" :key="w.topic">
              <th scope="row">{{ w.label }}</th>
              <td></td>
              <td>{{ w.says }}</td>
            </tr>
          </tbody>
        </table>
      </div>
    </section>
    <section aria-labelledby="standing">
      <h2 id="standing">Bench, weather, tyres and rings</h2>
      <dl>
        <template v-for="r in factRules" :key="r.topic">
          <dt>{{ r.label }}</dt>
          <dd>{{ r.says }}</dd>
        </template>
      </dl>
    </section>
    <section aria-labelledby="judgement">
      <h2 id="judgement">How the next change is chosen</h2>
      <p>
        Every run adds to one picture: where on each dial the best place probably lies, how steeply it falls
        off there, and how much a rating scatters. Ratings count with their scatter; the day’s own drift is
        taken out. A word speaks for its causes by the shares above and may be a slip; what is not complained
        of counts a little too. Warm-ups and void runs never count.
      </p>
      <p>
        The change with the most to gain or to learn comes first: springs that are measurably wrong before
        dampers, one adjuster at a time or a pair of one end that belongs together, two clicks at most until a
        dial has been tried. When two likely causes ask for opposite turns, a test comes before a guess.
        Settled means: ridden twice, and little chance left that anything within reach is better by what you
        would notice.
      </p>
    </section>
  </div>
</template>

<style scoped>
.also {
  font-weight: 400;
}
section {
  margin-bottom: 2rem;
}
h2 {
  margin-bottom: 0.5rem;
}
.school {
  border-left: 4px solid var(--line);
  padding-left: 0.9rem;
  margin: 0.9rem 0;
  scroll-margin-top: 80px;
}
.school:target {
  border-color: var(--sun);
}
.school ul {
  margin: 0.2rem 0;
  padding-left: 1.1rem;
}
.school p {
  margin: 0;
}
dl {
  display: grid;
  grid-template-columns: 190px 1fr;
  gap: 0.4rem 1rem;
}
dt {
  font-weight: 650;
}
dd {
  margin: 0;
}
.scroll {
  overflow-x: auto;
}
table {
  border-collapse: collapse;
  width: 100%;
}
th,
td {
  text-align: left;
  vertical-align: top;
  padding: 0.45rem 1rem 0.45rem 0;
  border-bottom: 1px solid var(--line);
}
dt {
  scroll-margin-top: 80px;
}
tr {
  scroll-margin-top: 70px;
}
dt:target,
dt:target + dd,
tr:target {
  background: var(--sun-soft);
}
.cause {
  display: block;
}
@media (max-width: 560px) {
  dl {
    grid-template-columns: 1fr;
  }
}
</style>
