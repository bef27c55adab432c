<script setup lang="ts">
import { v7 as uuid } from 'uuid'
import { computed, onScopeDispose, ref, shallowRef, watch } from 'vue'
import type { PadView } from '#contract/pad'
import { ApiError, whenLocked } from '../api/client.ts'
import type { Outbox, OutboxState } from '../api/outbox.ts'
import { clockWords } from '../support/dates.ts'
import { keepDraft, readDraft } from '../support/drafts.ts'
import { oneAtATime } from '../support/oneAtATime.ts'
import HandOver from './HandOver.vue'
import ScreenCompare from './ScreenCompare.vue'
import ScreenWhat from './ScreenWhat.vue'
import ScreenWhere from './ScreenWhere.vue'
import { readPad, tell, waitingReports } from './mail.ts'
import {
  asKept,
  asReport,
  canCompare,
  hasSaid,
  isUntouched,
  nothingSaid,
  runName,
  takenUp,
  withWaiting,
  type KeptSaid,
  type Said,
} from './said.ts'
import { keepToken } from './token.ts'
import { useVoice } from './useVoice.ts'

/** A rider's own phone: how was it, where, what did it do. Nothing of settings is here to be seen. */
const props = defineProps<{ token: string; outbox: Outbox }>()

const keptView = `wild-spring:pad-view:${props.token}`
const view = shallowRef<PadView | null>(readKept())
const ended = ref('')
const outOfReach = ref(false)
type Screen = 'compare' | 'where' | 'what' | 'sent'
const screen = ref<Screen>('compare')
const said = ref<Said | null>(null) as { value: Said | null }
const voice = useVoice()
const state = shallowRef<OutboxState>(props.outbox.state())
onScopeDispose(props.outbox.subscribe((s) => (state.value = s)))
const waiting = computed(() => waitingReports(state.value.letters))
onScopeDispose(
  props.outbox.onSent((letter, answer) => {
    if (letter.kind === 'padReport' && letter.params.dayId === view.value?.dayId) show(answer as PadView)
  }),
)

// Told with what was sent, too, not only at the next look.
whenLocked(() => {
  ended.value ||= 'This link has ended; ask in the tent for a new one. What you said is kept on this phone.'
})

function readKept(): PadView | null {
  try {
    return JSON.parse(localStorage.getItem(keptView) ?? 'null') as PadView | null
  } catch {
    return null
  }
}
/** Counts what was shown: an answer that was asked for before is older than what stands there. */
let shown = 0
function show(fresh: PadView) {
  shown++
  const v = withWaiting(
    fresh,
    waiting.value.map((w) => w.report),
  )
  const wasUntouched = said.value !== null && view.value !== null && isUntouched(said.value, view.value)
  view.value = v
  outOfReach.value = false
  ended.value = ''
  keepToken(v.dayId, props.token)
  try {
    localStorage.setItem(keptView, JSON.stringify(v))
  } catch {
    // Without it the page opens only where the tent is in reach.
  }
  if (!said.value) return takeUp()
  // What a hand has begun to say stays, and so does where it is; untouched it goes on to a run that is newer.
  const isBusy = screen.value === 'sent' || voice.recording.value || voice.voice.value !== null
  if (wasUntouched && !isBusy && nothingSaid(v).runId !== said.value.runId) begin()
}
async function read() {
  const before = shown
  try {
    const fresh = await readPad(props.token)
    if (shown === before) show(fresh)
    void props.outbox.flush()
  } catch (e) {
    if (e instanceof ApiError && e.problem?.status === 401) ended.value = e.message
    else outOfReach.value = true
  }
}
const draftKey = `pad-said:${props.token}`
/** What is being said and where the hand is, as it lies on this phone until it is sent. */
interface Draft {
  said: KeptSaid
  screen: Screen
}
function begin() {
  if (!view.value) return
  said.value = nothingSaid(view.value)
  voice.forget()
  screen.value = canCompare(view.value, said.value.runId) ? 'compare' : 'where'
}
/** Goes on with what was begun before the page was reloaded or forgotten by the phone. */
function takeUp() {
  const draft = readDraft<Draft>(draftKey)
  const before = view.value && draft ? takenUp(draft.said, view.value) : null
  if (!before) return begin()
  said.value = before
  screen.value = draft!.screen
}
watch([said, screen], () => {
  const isBegun = said.value && view.value && screen.value !== 'sent' && !isUntouched(said.value, view.value)
  keepDraft(draftKey, isBegun ? ({ said: asKept(said.value!), screen: screen.value } satisfies Draft) : null)
})
if (view.value) takeUp()
void read()
/** The tent logs runs meanwhile. */
const look = setInterval(() => document.visibilityState === 'visible' && void read(), 20_000)
onScopeDispose(() => clearInterval(look))
document.addEventListener('visibilitychange', () => document.visibilityState === 'visible' && void read())

const since = computed(() => (waiting.value.length ? clockWords(waiting.value[0].at) : ''))
const handing = ref(false)
const name = computed(() => (view.value && said.value ? runName(view.value, said.value.runId) : ''))
const compares = computed(
  () => view.value !== null && said.value !== null && canCompare(view.value, said.value.runId),
)
const ready = computed(() => said.value !== null && hasSaid(said.value, voice.voice.value !== null))
const order = computed<Screen[]>(() => (compares.value ? ['compare', 'where', 'what'] : ['where', 'what']))
const step = (by: 1 | -1) =>
  (screen.value = order.value[order.value.indexOf(screen.value) + by] ?? screen.value)
function chooseRun(runId: string | null) {
  if (!said.value || !view.value) return
  said.value = { ...said.value, runId, against: canCompare(view.value, runId) ? said.value.against : null }
  if (!canCompare(view.value, runId) && screen.value === 'compare') screen.value = 'where'
}
const send = oneAtATime(async () => {
  if (!said.value || !view.value || !ready.value) return
  // Sent while it still listens: what was spoken so far goes along.
  await voice.stop()
  const v = voice.voice.value
  const report = asReport(said.value, uuid(), new Date().toISOString(), v ? uuid() : null)
  screen.value = 'sent'
  shown++
  // This phone has spoken of it: the next one is another.
  view.value = {
    ...view.value,
    runs: view.value.runs.map((r) => (r.id === report.runId ? { ...r, said: true } : r)),
  }
  await tell(props.outbox, view.value.dayId, report, v)
})
/** Whether the last report is at the tent, or still here. */
const arrived = computed(() => waiting.value.length === 0)
</script>

<template>
  <div class="pad">
    <header>
      <img src="/mark.svg" alt="" width="26" height="26" />
      <b v-if="view">{{ view.riderName }}</b>
      <span v-if="view" class="tent">{{ view.tentName }}</span>
    </header>
    <p v-if="ended" class="line bad" role="alert">{{ ended }}</p>
    <p v-if="waiting.length" class="line" role="status">
      <span>{{
        `${waiting.length} ${waiting.length === 1 ? 'report waits' : 'reports wait'} on this phone since ${since}.`
      }}</span>
      <button type="button" @click="handing = !handing">{{ handing ? 'Back' : 'Hand over' }}</button>
    </p>
    <p v-if="waiting.length && !state.durable" class="line bad" role="status">
      This browser keeps nothing: leave this page open until it is sent.
    </p>
    <main>
      <HandOver v-if="handing && waiting.length" :waiting="waiting" />
      <template v-else-if="screen === 'sent'">
        <div class="sent">
          <h1>{{ arrived ? 'The tent has it' : 'Kept on this phone' }}</h1>
          <p v-if="said?.stopped === 'crashed'" class="caution">
            After a crash somebody looks the bike over before it is ridden again: bars, levers, wheels, fork
            and frame.
          </p>
          <!-- High up: a glove's second tap on Send meets empty paper. -->
          <button type="button" class="big" @click="begin">Say another run</button>
          <p>
            {{
              arrived
                ? 'Thank you. Ride on.'
                : ended
                  ? 'A new link takes it along; or hand it over.'
                  : 'It goes by itself when the tent is in reach. You can close this page.'
            }}
          </p>
        </div>
      </template>
      <template v-else-if="view && said">
        <ScreenCompare
          v-if="screen === 'compare'"
          v-model="said"
          :view="view"
          :name="name"
          @run="chooseRun"
          @next="step(1)"
        />
        <ScreenWhere
          v-else-if="screen === 'where'"
          v-model="said"
          :view="view"
          :name="name"
          :first="!compares"
          @run="chooseRun"
          @back="step(-1)"
          @next="step(1)"
        />
        <ScreenWhat v-else v-model="said" :voice="voice" :ready="ready" @back="step(-1)" @send="send" />
      </template>
      <div v-else-if="outOfReach" class="sent">
        <h1>The tent is out of reach</h1>
        <p>Join its network, and open this page again.</p>
        <button type="button" class="big" @click="read">Try again</button>
      </div>
      <p v-else-if="!ended" class="sent">…</p>
    </main>
  </div>
</template>
