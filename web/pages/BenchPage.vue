<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import type { BenchStep } from '#contract/bench'
import BenchSteps from '../components/bench/BenchSteps.vue'
import CautionList from '../components/bench/CautionList.vue'
import PrintLinks from '../components/bench/PrintLinks.vue'
import StepCompression from '../components/bench/StepCompression.vue'
import StepEnd from '../components/bench/StepEnd.vue'
import StepEqualise from '../components/bench/StepEqualise.vue'
import StepPrepare from '../components/bench/StepPrepare.vue'
import StepRebound from '../components/bench/StepRebound.vue'
import StepSag from '../components/bench/StepSag.vue'
import StepSagBoth from '../components/bench/StepSagBoth.vue'
import StepSave from '../components/bench/StepSave.vue'
import StepStart from '../components/bench/StepStart.vue'
import StepWho from '../components/bench/StepWho.vue'
import NotOpened from '../components/shell/NotOpened.vue'
import BarSlots from '../components/shell/BarSlots.vue'
import { useUnits } from '../composables/useUnits.ts'
import { useBench } from '../stores/bench.ts'
import { useNotices } from '../stores/notices.ts'
import { stepWords } from '#core/bench/stepWords'
import { staleWords } from '../support/benchWords.ts'
import { cautionsAt } from '../support/cautions.ts'
import { dayWords, localDate } from '../support/dates.ts'
import BaselineState from '../components/bench/BaselineState.vue'
import { useGarage } from '../stores/garage.ts'
import DialogFrame from '../components/shell/DialogFrame.vue'
import { usePageTitle } from '../composables/usePageTitle.ts'

const props = defineProps<{ bikeId: string }>()
const bench = useBench()
const garage = useGarage()
const notices = useNotices()
const route = useRoute()
const router = useRouter()
const { units, say } = useUnits()
const loaded = ref(false)
const failed = ref(false)

async function open() {
  const id = props.bikeId
  loaded.value = failed.value = false
  const isThere = await notices.attempt(() => bench.open(id))
  if (props.bikeId !== id) return
  loaded.value = isThere
  failed.value = !isThere
}
watch(() => props.bikeId, open, { immediate: true })
const panels = {
  who: StepWho,
  prepare: StepPrepare,
  start: StepStart,
  equalise: StepEqualise,
  'sag-both': StepSagBoth,
  rebound: StepRebound,
  compression: StepCompression,
  'end-of-stroke': StepEnd,
  save: StepSave,
} as const

/** The step in the address, else the first that is open or stale. */
const at = computed<BenchStep>(() => {
  const asked = bench.states.find((s) => s.step === route.query.step)
  return (
    (asked ?? bench.states.find((s) => s.state === 'open' || s.state === 'stale') ?? bench.states[0])?.step ??
    'who'
  )
})
const state = computed(() => bench.states.find((s) => s.step === at.value))
const go = (step: BenchStep) => {
  closing.value = null
  void router.replace({ query: { step } })
  window.scrollTo({ top: 0 })
}
const index = computed(() => bench.states.findIndex((s) => s.step === at.value))
const following = computed(() => bench.states[index.value + 1]?.step)
/** Why it is not done: skipped, or looked at and left out of line. */
const closing = ref<'skip' | 'out' | null>(null)
const reason = ref('')
const reasonFault = ref<string | null>(null)
const evidence = computed(() => bench.evidence(at.value))
/** Onwards from the step that is shown: closing it may already have moved the first open one. */
function onwards(next = following.value) {
  if (next) go(next)
}
function done() {
  const next = following.value
  if (bench.done(at.value)) onwards(next)
}
function close() {
  if (!reason.value.trim())
    return (reasonFault.value =
      closing.value === 'skip'
        ? 'Say why, for example “done last week”.'
        : 'Say why it stays like this, for example “the spring ends here”.')
  const next = following.value
  if (closing.value === 'skip') bench.skip(at.value, reason.value.trim())
  else bench.leaveOut(at.value, reason.value.trim())
  reason.value = ''
  reasonFault.value = null
  onwards(next)
}
const doneWords: Partial<Record<BenchStep, string>> = {
  prepare: 'All looked at, next',
  'sag-rear': 'Rear sag is right, next',
  'sag-front': 'Front sag is right, next',
  'sag-both': 'They stand well together, next',
  rebound: 'Rebound is right, next',
}
/** What is still to be shown; long lists are told by their number. */
const missingWords = computed(() => {
  const e = evidence.value
  if (!e || e.state === 'enough') return ''
  const some = e.words.slice(0, 3).join('; ')
  const more = e.words.length > 3 ? `; and ${e.words.length - 3} more` : ''
  return e.state === 'out' ? `That is out: ${some}${more}.` : `Still to be shown: ${some}${more}.`
})
const savingWords = {
  saved: 'saved',
  saving: 'saving',
  'kept-here': 'kept here, will be sent',
  'not-kept': 'not saved yet; this browser keeps nothing',
} as const
const lastPast = computed(() => bench.past[0])
const working = computed(() =>
  bench.units.flatMap((u) => {
    const main = u.adjusters.find((a) => a.role === 'main-pressure')
    const rate = u.adjusters.find((a) => a.kind === 'spring-rate')
    const at = main ? bench.positionOf(main.id) : rate ? bench.positionOf(rate.id) : null
    const sag = bench.sagNowPct(u.end)
    return [
      {
        end: u.end,
        words: [
          at === null
            ? main
              ? 'pressure not read'
              : rate
                ? 'spring not read'
                : null
            : `${main ? say('pressure', at) : say('springRate', at)}${bench.knownOf((main ?? rate)!.id)?.how === 'assumed' ? ' (estimate)' : ''}`,
          sag === null ? 'sag not read' : `${sag.toFixed(1)} % sag`,
        ]
          .filter(Boolean)
          .join(', '),
      },
    ]
  }),
)
usePageTitle(() => (bench.bike ? `Bench, ${bench.bike.name}` : 'Bench'))
</script>

<template>
  <NotOpened
    v-if="failed || (loaded && !bench.bike)"
    :title="failed ? 'This bike could not be opened' : 'There is no such bike'"
    :back="{ to: '/garage', text: 'To the garage' }"
    @again="open"
  />
  <div v-else class="page">
    <BarSlots>
      <template #about>
        <template v-if="bench.bike">
          <b>{{ `Bench: ${bench.bike.name}` }}</b>
          <span v-if="bench.bench" class="saved" role="status">{{ savingWords[bench.saving] }}</span>
        </template>
      </template>
    </BarSlots>
    <section v-if="loaded && bench.bike && !bench.bench" class="card-paper begin">
      <h1>Is the baseline sound?</h1>
      <p>
        Spring first, then rebound, then the end of the stroke; in about twenty minutes, to a named baseline
        that a trail day starts from. At hand: the shock pump, something to measure with, all the kit you ride
        in, and a wall or a helper.
      </p>
      <p v-if="lastPast" class="soft">
        {{ `Last on the bench: ${dayWords(localDate(lastPast.startedAt))}.` }}
      </p>
      <BaselineState :setup="garage.currentSetup(bench.bike.id)" :units="bench.units" />
      <CautionList :of="['manuals', 'unsound']" />
      <div class="acts">
        <BButton variant="sun" @click="bench.begin()">Begin</BButton>
        <PrintLinks :bike-id="bench.bike.id" only="sag-strip" />
      </div>
    </section>
    <div v-else-if="bench.bench && bench.bike" class="bench">
      <aside>
        <BenchSteps :states="bench.states" :at="at" @go="go" />
        <ul class="working num">
          <li v-for="w in working" :key="w.end" :class="`end-${w.end}`">
            {{ `${w.end === 'front' ? 'Front' : 'Rear'} ${w.words}` }}
          </li>
        </ul>
      </aside>
      <section class="panel" aria-labelledby="step-title">
        <h1 id="step-title">{{ stepWords[at] }}</h1>
        <p v-if="state?.state === 'stale'" class="stale" role="status">
          {{ `Check this again. ${staleWords(state, units)}` }}
        </p>
        <p v-if="state?.state === 'skipped'" class="soft">{{ `Skipped: ${state.reason}` }}</p>
        <p v-if="state?.state === 'out'" class="soft">{{ `Left out of line: ${state.reason}` }}</p>
        <CautionList :of="cautionsAt[at]" />
        <StepSag
          v-if="at === 'sag-rear' || at === 'sag-front'"
          :key="at"
          :end="at === 'sag-rear' ? 'rear' : 'front'"
        />
        <component :is="panels[at]" v-else />
        <footer v-if="at !== 'save'">
          <template v-if="!closing">
            <p class="evidence" :class="evidence?.state" role="status">{{ missingWords }}</p>
            <BButton v-if="evidence?.state === 'enough'" variant="primary" @click="done">{{
              doneWords[at] ?? 'Done, next'
            }}</BButton>
            <template v-else>
              <BButton v-if="evidence?.state === 'out'" variant="primary" @click="closing = 'out'"
                >Leave it like this</BButton
              >
              <BButton variant="plain" @click="onwards()">Next, this stays open</BButton>
            </template>
            <BButton variant="plain" @click="closing = 'skip'">Skip it</BButton>
          </template>
          <form v-else class="skip" @submit.prevent="close">
            <label class="form-label" for="skip-reason">{{
              closing === 'skip' ? 'Why is it skipped?' : 'Why does it stay like this?'
            }}</label>
            <BFormInput id="skip-reason" v-model="reason" maxlength="200" autocomplete="off" />
            <p v-if="reasonFault" class="fault" role="alert">{{ reasonFault }}</p>
            <BButton type="submit" variant="primary">{{
              closing === 'skip' ? 'Skip, with this reason' : 'Leave it, with this reason'
            }}</BButton>
            <BButton variant="plain" @click="closing = null">Cancel</BButton>
          </form>
        </footer>
        <BButton v-else-if="bench.bench.finishedSetupId" variant="plain" @click="bench.begin()">
          Start a new bench session
        </BButton>
      </section>
    </div>
    <DialogFrame
      :open="bench.conflict !== null"
      title="This bench was changed elsewhere"
      firm
      @update:open="() => undefined"
    >
      <p>Somebody worked on it on another device since this one last saw it.</p>
      <BButton variant="primary" @click="bench.settleConflict('theirs')">Show theirs</BButton>
      <BButton variant="plain" @click="bench.settleConflict('mine')">Keep mine over it</BButton>
    </DialogFrame>
  </div>
</template>

<style scoped>
.begin {
  max-width: 1000px;
  padding: 1.2rem 1.4rem 1.4rem;
  border-left: 6px solid var(--sun);
}
.begin p {
  margin: 0.5rem 0;
}
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 0.6rem;
  margin-top: 0.8rem;
}
.bench {
  display: grid;
  grid-template-columns: 230px minmax(0, 1fr);
  gap: 1.6rem;
}
aside {
  position: sticky;
  top: 70px;
  align-self: start;
}
.working {
  list-style: none;
  margin: 0.8rem 0 0;
  padding: 0.6rem 0.5rem 0;
  border-top: 1px solid var(--line);
  font-weight: 600;
}
.panel {
  display: grid;
  gap: 0.8rem;
  container: panel / inline-size;
  align-content: start;
}
.panel :deep(p:not(.caution)) {
  max-width: 76ch;
}
.panel :deep(h2) {
  font-size: 1.05rem;
}
.stale {
  margin: 0;
  border-left: 6px solid var(--rust);
  padding: 0.1rem 0 0.1rem 0.9rem;
  font-weight: 600;
}
footer p {
  flex-basis: 100%;
  margin: 0;
}
.evidence.out {
  border-left: 6px solid var(--rust);
  padding-left: 0.8rem;
}
footer {
  display: flex;
  flex-wrap: wrap;
  gap: 0.6rem;
  padding-top: 0.4rem;
}
.skip {
  display: grid;
  gap: 0.4rem;
  width: min(420px, 100%);
}
.saved {
  opacity: 0.85;
  font-size: 0.88rem;
}
@media (max-width: 860px) {
  .bench {
    grid-template-columns: minmax(0, 1fr);
    gap: 0.6rem;
  }
  aside {
    position: static;
  }
  .working {
    display: flex;
    flex-wrap: wrap;
    gap: 0 1.2rem;
    margin-top: 0.2rem;
    padding-top: 0.3rem;
  }
}
</style>
