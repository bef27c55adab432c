<script setup lang="ts">
import type { FeelWord } from '#contract/run'
import { causeLabel } from '#core/causes/kinds'
import { wordRules, type CauseSeat } from '#core/causes/words'
import IconCaution from '~icons/lucide/triangle-alert'
import { sectionWords } from '../support/words.ts'

const words = (Object.keys(wordRules) as FeelWord[])
  .filter((w) => wordRules[w].about !== 'good')
  .map((w) => ({ key: w, ...wordRules[w] }))
const seatWords: Record<CauseSeat, string> = {
  same: 'the end you named: ',
  front: 'front: ',
  rear: 'rear: ',
  bike: '',
}
const dials = [
  {
    name: 'Low-speed compression',
    text: 'Slows compression while the shaft moves slowly: weight shifts, braking, pedalling, berms. Firmer holds the bike up; softer is calmer over small bumps.',
  },
  {
    name: 'High-speed compression',
    text: 'Acts while the shaft moves fast: square edges, landings. It is the last dial to touch, for fine tuning only. It does not cure a dive.',
  },
  {
    name: 'Rebound',
    text: 'Slows the way back out. Faster keeps up with repeated hits; slower calms a kick. As fast as it goes without kicking. Novices are safer one click on the slow side.',
  },
  {
    name: 'Pressure or spring',
    text: 'Holds the rider up. It comes first: no damper setting repairs a wrong spring. With a stiffer spring, rebound must be slower.',
  },
  {
    name: 'Spacers',
    text: 'More end-of-stroke ramp, little change at sag. Never above the number the unit allows.',
  },
  { name: 'Lever', text: 'Open for descents and for measuring sag. A firm position never fully locks.' },
]
const cautions = [
  'Makers’ manuals and qualified technicians come first. Wild Spring is an aid to judgement.',
  'A wrong rebound setting can throw a rider. Make one change and try it at low speed in a safe place first.',
  'Helmet and pads for test runs, and a section clear of other people.',
  'Shock pump only: no tyre pump, no compressor, no poking the valve. Never above the printed maximum.',
  'Let all the air out slowly and cycle the unit before opening an air can. Trapped pressure can injure: if unsure, leave it to a workshop.',
  'Never ride with a unit that leaks, clanks or won’t return.',
  'Children and heavy electric bikes: check the limits of every part.',
]
</script>

<template>
  <div class="page">
    <div class="page-head"><h1>What does this word or dial mean</h1></div>
    <section aria-labelledby="cautions">
      <h2 id="cautions">Before anything is turned</h2>
      <p v-for="c in cautions" :key="c" class="caution">
        <IconCaution aria-hidden="true" /><span>{{ c }}</span>
      </p>
    </section>
    <section aria-labelledby="dials">
      <h2 id="dials">Dials</h2>
      <p>
        Low and high speed mean the speed of the <b>shaft</b>, not of the bike. Some teach “the first third of
        travel” against “the rest”; on a trail the two go together, but it is not what the valve does.
      </p>
      <dl>
        <template v-for="d in dials" :key="d.name">
          <dt>{{ d.name }}</dt>
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
    <section aria-labelledby="feel">
      <h2 id="feel">Words, and what they may come from</h2>
      <p>
        Each word is evidence, never proof. The numbers are the weights the judgement uses for a mark of
        middle strength (natural log units; 0.7 doubles the odds).
      </p>
      <div class="scroll">
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
              <th scope="row">{{ w.label }}</th>
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
  </div>
</template>

<style scoped>
section {
  margin-bottom: 2rem;
}
h2 {
  margin-bottom: 0.5rem;
}
.caution {
  margin: 0 0 0.4rem;
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
