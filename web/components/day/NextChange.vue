<script setup lang="ts">
import { computed } from 'vue'
import type { Gauge } from '#contract/care'
import type { Proposal } from '#contract/proposal'
import type { Position } from '#contract/setup'
import type { ReadPart } from '#core/command/reading'
import type { SetupSpace } from '#core/adviser/dayHistory'
import { fittedUnits } from '#core/adviser/history'
import { adjusterName, familyOf, toolWord, turnSign } from '#core/adjusters/words'
import { countBaseWords } from '#core/adjusters/count'
import { causeLabel, handChecks } from '#core/causes/kinds'
import IconCaution from '~icons/lucide/triangle-alert'
import { useUnits } from '../../composables/useUnits.ts'
import DialHint from './DialHint.vue'
import EvidenceList from './EvidenceList.vue'
import QuestionTaps from './QuestionTaps.vue'
import ReadOnCard from './ReadOnCard.vue'
import SagOnCard from './SagOnCard.vue'
import SpringOffer from './SpringOffer.vue'
import { signedWords } from '../../support/words.ts'

const { positionNumber, positionWords } = useUnits()
const props = defineProps<{
  proposal: Proposal
  space: SetupSpace
  /** On the bike now. */
  positions: readonly Position[]
  gauges: readonly Gauge[]
  dayId: string
  bikeId: string
  judging: boolean
  canSettle: boolean
  settled: boolean
  past: boolean
  busy: boolean
}>()
const emit = defineEmits<{
  done: []
  answer: [answer: string]
  read: [sagPct: number]
  found: [parts: ReadPart[], gaugeId: string | null]
  other: []
  repeat: []
  happy: []
  reopen: []
  log: []
  carry: []
}>()

const moves = computed(() =>
  props.proposal.moves.flatMap((m) => {
    const adjuster = props.space[m.end]?.adjusters.find((a) => a.id === m.adjusterId)
    return adjuster ? [{ ...m, adjuster }] : []
  }),
)
const move = computed(() => moves.value[0] ?? null)
const effect = computed(() => {
  const [, head, last] = /^(.*\s)(\S+)$/.exec(props.proposal.headline) ?? []
  // A change that was not weighed (a lever, air that is missing) does not end in what it makes of an end.
  return move.value && props.proposal.kind === 'change' && props.proposal.outlook
    ? { head, last }
    : { head: props.proposal.headline, last: '' }
})
type Shown = (typeof moves.value)[number]
function whereOf(m: Shown): string {
  const a = m.adjuster
  const family = familyOf(a)
  const colour =
    a.kind !== 'click' && a.kind !== 'turn'
      ? ''
      : family === 'rebound'
        ? 'Red dial'
        : family === 'compression'
          ? 'Blue dial'
          : 'Dial'
  const part = colour
    ? `${colour}${a.alias ? ` “${a.alias}”` : ''} on the ${m.end === 'front' ? 'fork' : 'shock'}`
    : `${adjusterName(a)} of the ${m.end === 'front' ? 'fork' : 'shock'}`
  return `${part}, ${toolWord(a)}`
}
function fromToOf(m: Shown) {
  const base = countBaseWords(m.adjuster)
  return {
    from:
      m.adjuster.kind === 'lever' ? positionWords(m.adjuster, m.from) : positionNumber(m.adjuster, m.from),
    to: positionWords(m.adjuster, m.to),
    base,
    turn: turnSign(m.adjuster, m.from, m.to),
  }
}
const fromTo = computed(() => (move.value ? fromToOf(move.value) : null))
const hands = computed(() =>
  moves.value.map((m) => {
    const { from, to, base } = fromToOf(m)
    return { key: m.adjusterId, where: whereOf(m), from, to: base ? `${to} (${base})` : to }
  }),
)
/** Springs that the change asks for. */
const springs = computed(() =>
  moves.value.flatMap((m) => {
    const strokeMm = props.space[m.end]?.strokeMm
    return m.adjuster.kind === 'spring-rate' && strokeMm ? [{ rateNPerMm: m.to, strokeMm }] : []
  }),
)
/** What is hoped for, with its spread; a number without one would be a promise. */
const outlook = computed(() => {
  const o = props.proposal.outlook
  if (!o) return null
  return `Expected ${signedWords(o.gain, 1)} rating points, between ${signedWords(o.low80, 1)} and ${signedWords(o.high80, 1)} in four of five cases; ${Math.round(100 * o.better)} % likely to be better.`
})
/** The count alone: with the base that it is read in it would not fit on a button. */
const shortTo = computed(() => fromTo.value?.to.replace(/ \D*$/, '') ?? null)
const doneWords = computed(() => {
  const p = props.proposal
  if (p.kind === 'change' && moves.value.length > 1)
    return moves.value.length === 2 ? 'Done, both are on' : 'Done, all are on'
  if (p.kind === 'change' && shortTo.value) return `Done, it’s on ${shortTo.value}`
  // Where it then stands: “6 clicks” would be read as clicks to turn.
  if (p.kind === 'separating-test' && shortTo.value) return `Try it on ${shortTo.value} once`
  if (p.setupId) return 'Done, it’s back'
  return ''
})
const rivals = computed(() => props.proposal.causes.filter((c) => c.kind !== 'none').slice(0, 4))
const percent = (p: number) => `${Math.round(100 * p)} %`
/** What the sentence below the reasons is, by kind of proposal. */
const watchLeads: Record<Proposal['kind'], string> = {
  'log-first-run': 'How.',
  'tell-the-feel': 'How.',
  'ride-it': 'How.',
  ask: 'Why.',
  read: 'Why.',
  repeat: 'Why.',
  change: 'Watch for.',
  'separating-test': 'The test.',
  'go-back': 'Then.',
  'leave-it': 'Now.',
  settled: 'Now.',
  untangle: 'What happened.',
  'check-first': 'How.',
}
const watchLead = computed(() => watchLeads[props.proposal.kind])
const isTest = computed(() => props.proposal.kind === 'separating-test')
const isSettled = computed(() => props.proposal.kind === 'settled')
const leads: Partial<Record<Proposal['kind'], string>> = {
  'separating-test': 'Find out first',
  repeat: 'To be sure',
  'ride-it': 'First',
  ask: 'To find out',
  untangle: 'A mess, and the way out of it',
  settled: 'Enough',
}
/** From here on a change is a recommendation; below, it is a question to the trail. */
const likelyFrom = 0.55
/** In one word why the card is there, with the number that belongs to it. */
const lead = computed(() => {
  const { kind, outlook: o } = props.proposal
  if (kind === 'change' && o)
    return o.better >= likelyFrom ? `Likely better: ${percent(o.better)}` : 'To find out'
  if (kind === 'read') return looks.value.length ? 'Costs no run' : 'A minute with ring and ruler'
  return leads[kind] ?? 'Next'
})
const showsEvidence = computed(
  () => props.proposal.speaksFor.length + props.proposal.speaksAgainst.length > 0,
)
const isAsked = computed(() => props.proposal.kind === 'ask')
/** What the card asks to be read, as it is kept. */
const looks = computed(() =>
  props.proposal.lookAt.flatMap((id) => {
    const part = fittedUnits(props.space)
      .flatMap((u) => u.adjusters.map((adjuster) => ({ end: u.end, adjuster })))
      .find((x) => x.adjuster.id === id)
    const kept = props.positions.find((p) => p.adjusterId === id)
    return part ? [{ ...part, kept: kept?.value ?? null, gaugeId: kept?.known.gaugeId ?? null }] : []
  }),
)
const readUnit = computed(() => (props.proposal.readEnd ? props.space[props.proposal.readEnd] : null))
/** What is on the bike was not ridden yet: nobody can be happy with it, nor ride it again. */
const isUnridden = computed(() => props.proposal.kind === 'ride-it')
const titles = computed(() => {
  if (isUnridden.value) return ['New on the bike', '']
  if (isAsked.value) return ['Asked first because', '']
  const [a, b] = rivals.value
  return isTest.value && a && b
    ? [`For: ${causeLabel(a.kind, a.end)}`, `For: ${causeLabel(b.kind, b.end)}`]
    : ['Speaks for it', 'Speaks against']
})
const asksForRun = computed(() => ['log-first-run', 'ride-it', 'repeat'].includes(props.proposal.kind))
</script>

<template>
  <section class="card-paper next" aria-labelledby="next-title" :aria-busy="judging">
    <p class="soft small lead">{{ lead }}</p>
    <div class="top">
      <div>
        <h1 id="next-title">
          {{ effect.head }}<span v-if="effect.last" :class="`end-${move?.end}`">{{ effect.last }}</span>
        </h1>
        <template v-if="!isTest">
          <p v-for="x in hands" :key="x.key" class="how">
            {{ `${x.where}: from` }} <b class="num">{{ x.from }}</b> to <b class="num">{{ x.to }}</b>
          </p>
        </template>
        <SpringOffer v-for="s in springs" :key="s.rateNPerMm" :need="s" :bike-id="bikeId" />
        <p v-if="moves.length > 1 && !isTest" class="soft small">
          These belong together and count as one change.
        </p>
      </div>
      <DialHint v-if="move && !isTest" :adjuster="move.adjuster" :from="move.from" :to="move.to" />
    </div>
    <div v-if="showsEvidence" class="why">
      <EvidenceList :title="titles[0]" kind="for" :lines="proposal.speaksFor" :day-id="dayId" />
      <EvidenceList
        v-if="!isUnridden && !isAsked"
        :title="titles[1]"
        :kind="isTest ? 'for' : 'against'"
        :lines="proposal.speaksAgainst"
        :day-id="dayId"
      />
    </div>
    <p class="watch">
      <b>{{ watchLead }}</b> {{ proposal.watchFor }}
    </p>
    <p v-if="proposal.changeOurMind" class="soft mind">
      {{ isTest ? '' : 'What would change our mind: ' }}{{ proposal.changeOurMind }}
    </p>
    <p v-if="outlook && !isTest" class="soft mind">{{ outlook }}</p>
    <ul v-if="proposal.plan.length" class="plan" aria-label="What would come next">
      <li v-for="s in proposal.plan" :key="s.when">
        <b>{{ `If ${s.when}.` }}</b> {{ s.does }}
      </li>
    </ul>
    <p v-if="proposal.caution && proposal.moves.length" class="caution">
      <IconCaution aria-hidden="true" /><span>{{ proposal.caution }}</span>
    </p>
    <template v-if="!settled && !past">
      <QuestionTaps
        v-if="proposal.question"
        :question="proposal.question"
        :as-look="!isAsked"
        :busy="busy"
        @answer="(a) => emit('answer', a)"
      />
      <ReadOnCard
        v-if="looks.length"
        :key="proposal.lookAt.join()"
        :parts="looks"
        :gauges="gauges"
        :busy="busy"
        @found="(parts, gaugeId) => emit('found', parts, gaugeId)"
      />
      <SagOnCard v-if="readUnit" :unit="readUnit" :busy="busy" @read="(pct) => emit('read', pct)" />
    </template>
    <details v-if="rivals.length > 1" class="causes">
      <summary>Other possible causes, and a check by hand for each</summary>
      <ul>
        <li v-for="c in rivals" :key="c.kind + c.end">
          <span
            >{{ causeLabel(c.kind, c.end) }}<br /><span class="soft small">{{
              handChecks[c.kind]
            }}</span></span
          ><span class="num">{{ percent(c.probability) }}</span>
        </li>
      </ul>
    </details>
    <div class="acts">
      <template v-if="settled">
        <BButton variant="primary" @click="emit('carry')">Carry it over</BButton>
        <!-- A day that is over could not be settled again. -->
        <BButton v-if="!past" variant="plain" @click="emit('reopen')">Open the day again</BButton>
      </template>
      <template v-else>
        <BButton v-if="doneWords" variant="primary" :disabled="busy" @click="emit('done')">{{
          doneWords
        }}</BButton>
        <BButton v-if="asksForRun" variant="primary" @click="emit('log')">Log the run</BButton>
        <RouterLink v-if="readUnit" class="btn btn-plain" :to="{ name: 'bench', params: { bikeId } }"
          >On the bench, step by step</RouterLink
        >
        <BButton
          v-if="proposal.moves.length || proposal.setupId || proposal.kind === 'read' || isAsked"
          variant="plain"
          :disabled="busy"
          @click="emit('other')"
          >Something else</BButton
        >
        <BButton
          v-if="canSettle && !isUnridden && !isAsked && proposal.kind !== 'repeat'"
          variant="plain"
          :disabled="busy"
          @click="emit('repeat')"
          >Repeat this setup</BButton
        >
        <BButton
          v-if="canSettle && !isUnridden"
          :variant="isSettled ? 'primary' : 'plain'"
          :disabled="busy"
          @click="emit('happy')"
          >We’re happy</BButton
        >
      </template>
    </div>
  </section>
</template>

<style scoped>
.next {
  padding: 0.9rem 1.1rem 1rem;
  border-color: var(--sun);
  border-width: 1px 1px 1px 6px;
}
.lead {
  margin: 0;
}
.top {
  display: flex;
  justify-content: space-between;
  gap: 0.8rem;
}
h1 {
  font-size: 1.6rem;
  line-height: 1.12;
}
.how {
  margin: 0.35rem 0 0.4rem;
}
.how b {
  font-size: 1.2em;
}
.why {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 1rem;
  margin: 0.4rem 0 0.7rem;
}
.watch {
  border-top: 1px dashed var(--line);
  padding-top: 0.6rem;
  margin: 0.5rem 0 0.4rem;
}
.mind {
  font-size: 0.92rem;
  margin: 0 0 0.5rem;
}
.causes {
  font-size: 0.92rem;
  margin-bottom: 0.3rem;
}
.causes summary {
  cursor: pointer;
  min-height: 30px;
}
.causes ul {
  list-style: none;
  padding: 0;
  margin: 0;
  max-width: 420px;
}
.causes li {
  display: flex;
  justify-content: space-between;
  border-bottom: 1px solid var(--line);
  padding: 0.15rem 0;
}
.plan {
  list-style: none;
  margin: 0 0 0.6rem;
  padding: 0;
}
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 0.4rem;
  margin-top: 0.6rem;
}
@media (max-width: 720px) {
  .why {
    grid-template-columns: 1fr;
    gap: 0.6rem;
  }
  h1 {
    font-size: 1.45rem;
  }
}
</style>
