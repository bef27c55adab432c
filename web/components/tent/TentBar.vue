<script setup lang="ts">
import { until, useCssVar, useElementSize } from '@vueuse/core'
import { computed, nextTick, onUnmounted, ref, useTemplateRef, watch } from 'vue'
import type { FeelWord } from '#contract/run'
import type { TentBundle } from '#contract/tent'
import { wordRules } from '#core/causes/words'
import { feelCodes } from '#core/tent/feelCodes'
import { parseTentLine, type LineFeel } from '#core/tent/line'
import { conditionWords } from '#core/plans/plan'
import { useCommand } from '../../composables/useCommand.ts'
import { useTentActs } from '../../composables/useTentActs.ts'
import type { TentRow } from '../../composables/useTent.ts'
import { useUnits } from '../../composables/useUnits.ts'
import { useDay } from '../../stores/day.ts'
import { useNotices } from '../../stores/notices.ts'
import { keepDraft, readDraft } from '../../support/drafts.ts'
import { noteWords } from '../../support/tentWords.ts'
import { vRoving } from '../../support/roving.ts'
import PhoneSays from './PhoneSays.vue'

/** The line at the foot of a tent: who, then what was done, said or decided; seen in words before it is done. */
const props = defineProps<{ bundle: TentBundle; row: TentRow | null }>()
const emit = defineEmits<{ choose: [number: number] }>()
const day = useDay()
const notices = useNotices()
const acts = useTentActs(
  () => props.bundle,
  () => props.row,
)
const line = ref(readDraft<string>(`tent-line:${props.bundle.tent.id}`) ?? '')
watch(line, (text) => keepDraft(`tent-line:${props.bundle.tent.id}`, text || null))
const box = useTemplateRef<HTMLInputElement>('box')
// What is said in the corner stands above the keys, and not on them.
const { height } = useElementSize(useTemplateRef<HTMLElement>('bar'), undefined, { box: 'border-box' })
const foot = useCssVar('--foot')
watch(height, (px) => (foot.value = `${Math.ceil(px)}px`))
onUnmounted(() => (foot.value = '0px'))
const numbers = computed(() => props.bundle.riders.map((r) => r.number))
const said = computed(() => parseTentLine(line.value, numbers.value))
// The number is the choice: what would be turned is seen on the bike it would be turned on.
watch(
  () => said.value?.number,
  (n) => typeof n === 'number' && n !== props.row?.rider.number && emit('choose', n),
)
/** What would be turned: now, or by a plan that is read out on the bike it is for. */
const change = computed(() => {
  const e = said.value?.entry
  return e?.kind === 'change' ? e.line : e?.kind === 'plan' ? e.plan.line : ''
})
/** Following a number is a change of the address; it takes no longer than this. */
const followMs = 2000
const asked = ref('')
const { preview, fault, readings, slipWords, ready, act } = useCommand(change, asked)
/** Its day is the open one: before that, nothing may be turned. */
const open = computed(() => props.row !== null && day.bundle?.day.id === props.row.rider.id)
/** Who the line is about is who would be turned: the number has been followed, and that day has been read. */
const isTheirs = computed(() => {
  const number = said.value?.number ?? null
  return open.value && (number === null || number === props.row?.rider.number)
})
const name = computed(() => props.row?.day?.rider.name ?? '')
const feelWords = (f: LineFeel) =>
  [
    f.rating === null ? '' : `rated ${f.rating}`,
    f.verdict === null ? '' : ['worse', 'the same', 'better'][f.verdict + 1],
    ...f.marks.map((m) => `${wordRules[m.word].label}${m.end === 'both' ? '' : `, ${m.end}`}`),
  ]
    .filter(Boolean)
    .join(' · ')
const will = computed<string[]>(() => {
  const e = said.value?.entry
  if (!e || !props.row) return []
  switch (e.kind) {
    case 'who':
      return []
    case 'in':
      return [`${name.value} comes in: run ${props.row.lane.runs.length + 1}`, feelWords(e.feel)].filter(
        Boolean,
      )
    case 'feel':
      return [`Run ${props.row.lane.runs.length}: ${feelWords(e.feel)}`]
    case 'whereabouts':
      return [`${name.value} is ${e.to}`]
    case 'note':
      return [`${noteWords[e.note]}${e.text ? `: ${e.text}` : ''}`]
    case 'plan':
      return [
        `If the next run comes ${conditionWords(e.plan)}:`,
        ...(isTheirs.value && change.value ? preview.value : []),
      ]
    case 'unclear':
      return []
    case 'change':
      return isTheirs.value ? preview.value : []
  }
})
const wrong = computed(() => {
  const e = said.value?.entry
  if (e?.kind === 'unclear') return e.words
  return change.value && isTheirs.value ? fault.value : null
})
/** The line that is being done; null: none is. */
const inWork = ref<string | null>(null)
/** One line after the other. What is typed while one is done stays, and a second Enter on the same line does nothing. */
async function submit() {
  const typed = line.value
  if (!said.value || inWork.value === typed) return
  await until(inWork).toBe(null)
  if (line.value !== typed) return
  inWork.value = typed
  try {
    const isDone = await enter(typed)
    if (!isDone || line.value !== typed) return
    line.value = ''
    asked.value = ''
  } finally {
    inWork.value = null
  }
}
/** Does what the line says. @returns whether it is done; else it stays in the line */
async function enter(typed: string): Promise<boolean> {
  // The number is followed first, then that day is read.
  const number = said.value?.number ?? null
  await until(() => number === null || props.row?.rider.number === number).toBe(true, {
    timeout: followMs,
  })
  if (!(await acts.theirs())) return false
  if (!isTheirs.value) {
    notices.show('Nothing was done; say the rider’s number again.', 'error')
    return false
  }
  const e = said.value?.entry
  // Typed on while it was waited for: Enter was meant for what stood there then.
  if (!e || line.value !== typed) return false
  switch (e.kind) {
    case 'who':
      return true
    case 'in':
      await acts.comesIn(e.feel)
      return true
    case 'feel':
      acts.say(e.feel)
      return true
    case 'whereabouts':
      await acts.goes(e.to)
      return true
    case 'note':
      return acts.note(e.note, e.text)
    case 'unclear':
      return false
    case 'plan':
      // A plan that this bike cannot do is none.
      return ready.value && acts.note('plan', e.text, last.value?.runId ?? null)
    case 'change': {
      if (!ready.value) return false
      let stays = false
      const ok = await notices.attempt(async () => {
        const done = await act()
        if (done === null) stays = true
        else if (done === 'undo') await acts.acts.undo()
        // A plan of the tent is an entry of its own.
        else if (done !== 'planned') acts.acts.tell(done)
      })
      return ok && !stays
    }
  }
}
async function start(text: string) {
  line.value = text
  await nextTick()
  box.value?.focus()
}
const { moveWords } = useUnits()
/** What worked for another rider who said the same; nobody's clicks, and no name without consent. */
const offer = computed(() => {
  const o = props.row?.offer
  if (!o) return null
  const end = o.end === 'both' ? '' : `, ${o.end},`
  return {
    who: o.from ?? 'another rider',
    said: `“${wordRules[o.word].label}”${end}`,
    words: o.moves.map((m) => moveWords(m)).join('; '),
  }
})
/** What the rider said on the phone, in the place of the words for a hand. */
const phone = computed(() => (open.value ? (props.row?.reports[0] ?? null) : null))
/** The run that the phone speaks of is logged now. */
async function logWith(reportId: string) {
  const runId = await acts.comesIn()
  if (runId) await acts.takeReport(reportId, runId)
}
/** What riders say most, ready for a hand; the rest is typed. */
const nearWords: FeelWord[] = ['kicks', 'harsh-gets-worse', 'dives', 'bottoms', 'washes-out', 'good']
const sayWord = (word: FeelWord) =>
  acts.say({ rating: null, marks: [{ word, end: wordRules[word].usualEnd ?? 'both' }], verdict: null })
/** Many lanes need the height; words are typed then. */
const few = computed(() => props.bundle.riders.length <= 10)
const last = computed(() => props.row?.lane.runs.at(-1) ?? null)
const where = [
  { to: 'out', key: 'o', text: 'Goes out' },
  { to: 'resting', key: 'z', text: 'Rests' },
  { to: 'settled', key: 's', text: 'Settled' },
] as const
defineExpose({ start, ...acts })
</script>

<template>
  <section ref="bar" class="bar" aria-label="Entry">
    <PhoneSays
      v-if="phone"
      :report="phone"
      :more="row!.reports.length - 1"
      :day="day.bundle!"
      @take="(runId, phoneIsRight) => acts.takeReport(phone!.report.id, runId, phoneIsRight)"
      @log="logWith(phone.report.id)"
    />
    <form @submit.prevent="submit">
      <p class="who">
        <b>{{ name || 'Choose a rider' }}</b><span v-if="last" class="soft">{{
          `, run ${last.number} done`
        }}</span>
      </p>
      <input
        ref="box"
        v-model="line"
        class="form-control num"
        placeholder="2 shock reb slower 1"
        aria-label="Rider’s number, then what is done or said"
        autocomplete="off"
        autocapitalize="off"
        spellcheck="false"
        enterkeyhint="done"
        @keydown.escape="box?.blur()"
      />
      <div class="will" role="status">
        <p v-for="w in will" :key="w" class="num">{{ w }}</p>
        <p v-if="wrong" class="soft">{{ wrong }}</p>
        <p v-for="w in slipWords" :key="w" class="slip">{{ w }}</p>
        <p v-if="offer && !line && !phone" class="offer small">
          <span
            >{{ `Worked for ${offer.who}, who said ${offer.said} too:` }} <b>{{ offer.words }}</b></span
          >
          <button type="button" class="btn btn-plain" :disabled="!open" @click="acts.takeOffer()">
            Turn it
          </button>
        </p>
        <p v-else-if="!line" class="soft small hint">
          {{
            'number · 2 reb slower 1 · in 6.5 ki · better · out · leave alone, why · later fork +2 · if worse, reb faster 1'
          }}
        </p>
      </div>
    </form>
    <div
      v-if="readings.length && open && said?.entry.kind === 'change'"
      class="readings"
      role="group"
      aria-label="Did you mean"
    >
      <button
        v-for="r in readings.slice(0, 3)"
        :key="r.line"
        type="button"
        class="btn btn-plain"
        @click="start(r.line)"
      >
        {{ r.words }}
      </button>
    </div>
    <div v-roving class="keys" role="group" aria-label="Where the rider is">
      <button type="button" class="btn btn-sun" :disabled="!row" @click="acts.tapIn()">
        Comes in <kbd>i</kbd>
      </button>
      <button
        v-for="w in where"
        :key="w.to"
        type="button"
        class="btn btn-plain"
        :disabled="!row"
        :aria-pressed="row?.rider.whereabouts === w.to"
        @click="acts.goes(w.to)"
      >
        {{ w.text }} <kbd>{{ w.key }}</kbd>
      </button>
    </div>
    <div
      v-if="last && few && !phone"
      v-roving
      class="keys words"
      role="group"
      :aria-label="`Said of run ${last.number}`"
    >
      <button
        v-for="w in nearWords"
        :key="w"
        type="button"
        class="btn btn-plain"
        :disabled="!open"
        @click="sayWord(w)"
      >
        {{ wordRules[w].label }} <kbd>{{ feelCodes[w] }}</kbd>
      </button>
    </div>
  </section>
</template>

<style scoped>
.bar {
  display: flex;
  flex-wrap: wrap;
  gap: 6px 14px;
  align-items: center;
  padding: 0.5rem 1rem;
  background: var(--card);
  border-top: 3px solid var(--sun);
}
form {
  display: grid;
  grid-template-columns: auto minmax(180px, 280px) minmax(0, 1fr);
  gap: 0.2rem 0.8rem;
  align-items: center;
  flex: 1 1 520px;
  min-width: 0;
}
form input {
  font-size: 1.1rem;
  min-height: 46px;
}
p {
  margin: 0;
  line-height: 1.25;
}
.who {
  white-space: nowrap;
}
.will {
  min-height: 2.5em;
  display: grid;
  align-content: center;
  overflow: hidden;
}
.will .num {
  font-weight: 650;
}
.slip {
  color: var(--rust);
  font-weight: 650;
}
.offer {
  display: flex;
  gap: 0.8rem;
  align-items: center;
}
.offer .btn {
  flex: none;
  min-height: 44px;
}
.keys,
.readings {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
}
.keys .btn {
  min-height: 44px;
  padding-inline: 0.6rem;
}
kbd {
  font: 600 0.85rem/1.1 var(--body-font);
  padding: 0.1rem 0.35rem;
  margin-left: 0.2rem;
  color: inherit;
  background: none;
  border: 1px solid currentcolor;
  border-radius: 5px;
}
[aria-pressed='true'] {
  background: var(--pine);
  color: var(--pine-ink);
}
@media (max-width: 900px) {
  .bar {
    padding: 0.5rem 0.7rem;
    position: sticky;
    bottom: 57px;
    z-index: 2;
  }
  .hint,
  kbd {
    display: none;
  }
  .keys {
    flex-wrap: nowrap;
    overflow-x: auto;
    max-width: 100%;
  }
  .keys .btn {
    white-space: nowrap;
  }
  form {
    grid-template-columns: 1fr;
    flex-basis: 100%;
  }
  .will {
    min-height: 0;
  }
}
</style>
