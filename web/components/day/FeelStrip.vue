<script setup lang="ts">
import { computed, ref, useTemplateRef, watch } from 'vue'
import { v7 as uuid } from 'uuid'
import type { Feel, FeelWord, Mark, Run } from '#contract/run'
import type { TrailSection } from '#contract/trail'
import type { Answer } from '#contract/question'
import { verdictOf, withVerdicts } from '#core/causes/answered'
import { answerWords } from '#core/causes/questions'
import { wordRules } from '#core/causes/words'
import { layoutLengthM } from '#core/telemetry/sectionLength'
import { vRoving } from '../../support/roving.ts'
import { terrainPath } from '../../support/terrain.ts'
import FeelWords from './FeelWords.vue'
import RatingRow from './RatingRow.vue'
import VerdictRow from './VerdictRow.vue'

const props = defineProps<{
  run: Run
  number: number
  feel: Feel
  sections: TrailSection[]
  others: { id: string; number: number }[]
  saving: 'saved' | 'saving' | 'kept-here' | 'not-kept'
}>()
const emit = defineEmits<{ edit: [feel: Feel]; retry: [] }>()

type Place = { sectionId: string | null; end: Mark['end'] }
const place = ref<Place | null>(null)
const total = computed(() => props.sections.reduce((s, x) => s + Math.sqrt(layoutLengthM(x)), 0))
// Square root: a short drop must stay as easy to tap as a long straight.
const share = (s: TrailSection) => Math.max(0.1, Math.sqrt(layoutLengthM(s)) / total.value)
const columns = computed(() =>
  props.sections.map((s) => `minmax(var(--least), ${(10 * share(s)).toFixed(2)}fr)`).join(' '),
)
const marksAt = (sectionId: string, end: Mark['end']) =>
  props.feel.marks.filter((m) => m.sectionId === sectionId && m.end === end)
const sectionName = (m: Mark) => props.sections.find((s) => s.id === m.sectionId)?.name ?? 'whole run'
const isPlace = (sectionId: string | null, end: Mark['end']) =>
  place.value?.sectionId === sectionId && place.value.end === end
const placeWords = computed(() => {
  if (!place.value) return 'Tap where, then a word.'
  const section = props.sections.find((s) => s.id === place.value!.sectionId)
  return `${section?.name ?? 'Whole run'}, ${place.value.end === 'both' ? 'both ends' : place.value.end}`
})
// The row of what was said scrolls: the newest is seen.
const said = useTemplateRef<HTMLElement>('said')
watch(
  () => props.feel.marks.length,
  () => said.value?.scrollTo({ left: said.value.scrollWidth }),
  { flush: 'post' },
)
const savingWords = {
  saved: 'saved',
  saving: 'saving …',
  'not-kept': 'not saved yet, and this browser keeps nothing',
  'kept-here': 'kept on this device, not sent yet',
} as const

function update(change: Partial<Feel>) {
  emit('edit', { ...props.feel, ...change })
}
function choose(sectionId: string | null, end: Mark['end']) {
  place.value = { sectionId, end }
}
function addWord(word: FeelWord) {
  const at = place.value ?? { sectionId: null, end: wordRules[word].usualEnd ?? 'both' }
  const same = props.feel.marks.find(
    (m) => m.word === word && m.sectionId === at.sectionId && m.end === at.end,
  )
  if (same) return stronger(same)
  update({ marks: [...props.feel.marks, { id: uuid(), word, ...at, strength: 2 }] })
}
/** Tapping a word again: strong, then faint, then gone. */
function stronger(mark: Mark) {
  const next = ({ 2: 3, 3: 1, 1: null } as const)[mark.strength]
  update({
    marks:
      next === null
        ? props.feel.marks.filter((m) => m.id !== mark.id)
        : props.feel.marks.map((m) => (m.id === mark.id ? { ...m, strength: next } : m)),
  })
}
const markLabel = (m: Mark) =>
  `${wordRules[m.word].label} ${sectionName(m)}, ${m.end}, strength ${m.strength} of 3; tap to change`
const setRating = (rating: number | null) => update({ rating })
const before = computed(() => props.others.findLast((o) => o.number < props.number)?.id ?? null)
const setVerdict = (verdicts: Feel['verdicts']) =>
  emit('edit', withVerdicts(props.feel, verdicts, before.value))
/** What is a verdict stands in the row of verdicts. */
const answers = computed(() => props.feel.answers.filter((a) => verdictOf(a) === null))
const takeBack = (a: Answer) => update({ answers: props.feel.answers.filter((x) => x !== a) })
const setNote = (note: string) => update({ note })
</script>

<template>
  <section class="card-paper feel" aria-labelledby="feel-title">
    <header>
      <h2 id="feel-title">Run {{ number }}, how it felt</h2>
      <button
        v-if="saving === 'kept-here' || saving === 'not-kept'"
        type="button"
        class="state kept-here"
        @click="emit('retry')"
      >
        {{ savingWords[saving] }}; send again
      </button>
      <span v-else class="state soft small" role="status">{{ savingWords[saving] }}</span>
    </header>
    <RatingRow :rating="feel.rating" @rate="setRating" />
    <slot name="extras" />
    <div class="scroller">
      <div
        v-roving
        class="strip"
        :style="{ gridTemplateColumns: columns }"
        role="group"
        aria-label="The test section, part by part"
      >
        <div v-for="(s, i) in sections" :key="s.id" class="part" :class="{ odd: i % 2 }">
          <button
            type="button"
            class="title"
            :class="{ on: isPlace(s.id, 'both') }"
            :aria-label="`${s.name}, both ends`"
            :title="s.name"
            @click="choose(s.id, 'both')"
          >
            <span>{{ s.name }}</span>
          </button>
          <button
            type="button"
            class="half front"
            :class="{ on: isPlace(s.id, 'front') }"
            :aria-label="`${s.name}, front`"
            @click="choose(s.id, 'front')"
          ></button>
          <svg viewBox="0 0 100 44" preserveAspectRatio="none" aria-hidden="true">
            <path :d="terrainPath(s.kind, 100, 22)" vector-effect="non-scaling-stroke" />
          </svg>
          <button
            type="button"
            class="half rear"
            :class="{ on: isPlace(s.id, 'rear') }"
            :aria-label="`${s.name}, rear`"
            @click="choose(s.id, 'rear')"
          ></button>
          <div class="marks up" aria-hidden="true">
            <span
              v-for="m in [...marksAt(s.id, 'front'), ...marksAt(s.id, 'both')]"
              :key="m.id"
              class="mark"
              :class="[m.end, `s${m.strength}`]"
              >{{ wordRules[m.word].label }}</span
            >
          </div>
          <div class="marks down" aria-hidden="true">
            <span
              v-for="m in marksAt(s.id, 'rear')"
              :key="m.id"
              class="mark rear"
              :class="`s${m.strength}`"
              >{{ wordRules[m.word].label }}</span
            >
          </div>
        </div>
      </div>
    </div>
    <!-- One row, filled or not: the words below it never move under the finger. -->
    <p v-if="!feel.marks.length" class="hint small soft">
      <span>above the line: front</span><span>below: rear</span><span>bolder: stronger</span>
    </p>
    <!-- What was said, a key each: the strip shows where, here it is changed. -->
    <div v-else ref="said" v-roving class="said" role="group" aria-label="Said of this run">
      <button
        v-for="m in feel.marks"
        :key="m.id"
        type="button"
        class="chip"
        :class="[m.end, `s${m.strength}`]"
        :aria-label="markLabel(m)"
        @click="stronger(m)"
      >
        {{ wordRules[m.word].label }} <span class="small soft">{{ sectionName(m) }}</span>
      </button>
    </div>
    <FeelWords :place="placeWords" :end="place?.end ?? null" @pick="addWord">
      <template #lead>
        <button
          type="button"
          class="whole"
          :class="{ on: isPlace(null, 'both') }"
          @click="choose(null, 'both')"
        >
          whole run
        </button>
      </template>
    </FeelWords>
    <p v-if="answers.length" class="answers small">
      <span v-for="a in answers" :key="`${a.question} ${a.end}`" class="answer">
        {{ answerWords(a.question, a.answer) }}
        <button
          type="button"
          :aria-label="`Take back: ${answerWords(a.question, a.answer)}`"
          @click="takeBack(a)"
        >
          ×
        </button>
      </span>
    </p>
    <VerdictRow
      :key="run.id"
      :number="number"
      :verdicts="feel.verdicts"
      :others="others"
      @judge="setVerdict"
    />
    <BFormTextarea
      :model-value="feel.note"
      rows="1"
      max-rows="6"
      placeholder="A note, in your words"
      aria-label="Note on this run"
      @update:model-value="(v) => setNote(String(v ?? ''))"
    />
  </section>
</template>

<style scoped>
.feel {
  padding: 0.9rem 1.1rem 1rem;
  display: grid;
  gap: 0.65rem;
}
header {
  display: flex;
  justify-content: space-between;
  align-items: baseline;
  min-height: 36px;
  gap: 0.8rem;
}
.state.kept-here {
  border: 0;
  background: var(--sun-soft);
  color: var(--sun-ink);
  border-radius: 8px;
  min-height: 36px;
  font-weight: 600;
}
.scroller {
  overflow-x: auto;
  margin: 0 -0.2rem;
  padding: 0 0.2rem;
}
.strip {
  --least: 64px;
  display: grid;
  position: relative;
}
.part {
  position: relative;
  display: grid;
  grid-template-rows: 36px 62px 62px;
}
.part.odd .half,
.part.odd .title {
  background: var(--paper-deep);
}
.title {
  border: 0;
  background: none;
  color: var(--ink);
  font-size: 0.84rem;
  min-height: 34px;
  padding: 0 0.2rem;
  line-height: 1.1;
  border-radius: 8px 8px 0 0;
}
.half {
  border: 0;
  background: none;
  cursor: pointer;
}
.half.rear {
  border-radius: 0 0 8px 8px;
}
.half.on,
.title.on,
.whole.on {
  box-shadow: inset 0 0 0 3px var(--sun);
}
.half:hover {
  background: var(--front-soft);
}
.half.rear:hover {
  background: var(--rear-soft);
}
svg {
  position: absolute;
  left: 0;
  right: 0;
  width: 100%;
  bottom: 40px;
  height: 44px;
  pointer-events: none;
}
path {
  fill: none;
  stroke: var(--ink);
  stroke-width: 2.4;
  stroke-linecap: round;
}
.marks {
  position: absolute;
  left: 2px;
  right: 2px;
  display: flex;
  flex-wrap: wrap;
  gap: 3px;
  justify-content: center;
  pointer-events: none;
}
.marks.up {
  top: 36px;
}
.marks.down {
  bottom: 4px;
}
.title span {
  display: -webkit-box;
  -webkit-box-orient: vertical;
  -webkit-line-clamp: 2;
  line-clamp: 2;
  overflow: hidden;
  overflow-wrap: anywhere;
}
.said,
.hint {
  height: calc(var(--touch) + 10px);
  align-items: center;
}
.said {
  display: flex;
  gap: 8px;
  overflow-x: auto;
}
.chip {
  flex: none;
  min-height: var(--touch);
  min-width: var(--touch);
  padding: 0 0.8rem;
  border: 1.5px solid var(--ink);
  border-radius: 14px;
  background: var(--card);
  color: var(--ink);
  font-weight: 600;
}
.chip.front {
  border-color: var(--front);
  color: var(--front);
}
.chip.rear {
  border-color: var(--rear);
  color: var(--rear);
  border-radius: 6px;
}
.chip.s1 {
  border-style: dashed;
  font-weight: 400;
}
.chip.s3 {
  border-width: 3px;
  font-weight: 750;
}
.mark {
  border: 1.5px solid var(--front);
  color: var(--front);
  background: var(--card);
  border-radius: 14px;
  padding: 0 0.5rem;
  font-size: 0.83rem;
  line-height: 1.4;
  max-width: 100%;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
  font-weight: 600;
}
.mark.rear {
  border-color: var(--rear);
  color: var(--rear);
  border-radius: 5px;
}
.mark.both {
  border-color: var(--ink);
  color: var(--ink);
}
.mark.s1 {
  border-style: dashed;
  font-weight: 400;
}
.mark.s3 {
  border-width: 3px;
  font-weight: 750;
}
.hint {
  display: flex;
  flex-wrap: wrap;
  gap: 0.2rem 0.9rem;
  align-items: center;
  margin: 0;
}
.answers {
  display: flex;
  flex-wrap: wrap;
  gap: 0.4rem;
  margin: 0;
}
.answer {
  display: inline-flex;
  align-items: center;
  gap: 0.4rem;
  padding-left: 0.7rem;
  border: 1px solid var(--line);
  border-left: 6px solid var(--sun);
  border-radius: 4px 12px 12px 4px;
}
.answer button {
  min-width: 44px;
  min-height: 44px;
  border: 0;
  background: none;
  color: var(--ink);
  font-size: 1.2rem;
}
.whole {
  border: 1px solid var(--line);
  background: var(--card);
  color: var(--ink);
  border-radius: 8px;
  min-height: var(--touch);
  padding: 0 0.8rem;
}
@media (max-width: 480px) {
  .feel {
    padding: 0.6rem 0.7rem 0.8rem;
  }
  .title {
    min-height: var(--touch);
  }
  .part {
    grid-template-rows: var(--touch) 60px 60px;
  }
  .marks.up {
    top: var(--touch);
  }
  .strip {
    --least: 48px;
  }
  .title {
    font-size: 0.7rem;
  }
}
</style>
