<script setup lang="ts">
import { computed, ref } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { zeroMovedWords } from '#core/adviser/zeroMoved'
import { useUnits } from '../composables/useUnits.ts'
import EffectBar from '../components/compare/EffectBar.vue'
import BlindCover from '../components/day/BlindCover.vue'
import BarSlots from '../components/shell/BarSlots.vue'
import { useDayPage } from '../composables/useDayPage.ts'
import EndMark from '../components/shell/EndMark.vue'
import DepthBySection from '../components/trace/DepthBySection.vue'
import SignalFigures from '../components/trace/SignalFigures.vue'
import MirrorTrace from '../components/trace/MirrorTrace.vue'
import { hasFigures } from '../support/figures.ts'
import { useLaid } from '../composables/useLaid.ts'
import { useRecording } from '../composables/useRecording.ts'
import { compareRuns } from '../support/compareRuns.ts'
import { movedZerosOf, sectionDifferences } from '../support/compareMetrics.ts'
import { dayWords } from '../support/dates.ts'
import { signedWords } from '../support/words.ts'
import { usePageTitle } from '../composables/usePageTitle.ts'
import DayHead from '../components/day/DayHead.vue'
import NotOpened from '../components/shell/NotOpened.vue'

const props = defineProps<{ id: string }>()
const { day, bundle: b, reload, failed } = useDayPage(() => props.id)
const route = useRoute()
const router = useRouter()

const options = computed(() =>
  (b.value?.runs ?? []).map((r, i) => ({
    value: r.id,
    text: `run ${i + 1}${r.kind === 'counted' ? '' : `, ${r.kind}`}`,
  })),
)
const pick = (key: 'a' | 'b', fallback: number) =>
  computed({
    get: () => {
      const runs = b.value?.runs ?? []
      // One that was removed since is not compared with.
      return (runs.find((r) => r.id === route.query[key]) ?? runs.at(fallback))?.id ?? ''
    },
    set: (v: string) => void router.replace({ query: { ...route.query, [key]: v } }),
  })
const runA = pick('a', -2)
const runB = pick('b', -1)
const { units } = useUnits()
const result = computed(() => (b.value ? compareRuns(b.value, runA.value, runB.value, units.value) : null))
const all = ref(false)
const moved = computed(() =>
  [runA.value, runB.value].map((id) => ({ id, zeros: b.value ? movedZerosOf(b.value, id) : [] })),
)
const wrongDepths = computed(() => moved.value.map(({ zeros }) => zeros.map((z) => z.end)))
/** Said above what is told without them. */
const cautions = computed(() =>
  moved.value.flatMap(({ id, zeros }) => zeros.map((z) => `Run ${day.runNumber(id)}: ${zeroMovedWords(z)}`)),
)
const differences = computed(() => (b.value ? sectionDifferences(b.value, runA.value, runB.value) : []))
const clear = computed(() => differences.value.filter((d) => d.size === 'clear'))
const shown = computed(() =>
  all.value || clear.value.length === 0
    ? differences.value.filter((d) => all.value || d.section === 'Whole run')
    : clear.value,
)
const shownBySection = computed(() =>
  [...new Set(shown.value.map((d) => d.section))].map((section) => {
    const rows = shown.value.filter((d) => d.section === section)
    return { section, pace: rows[0].pace, rows }
  }),
)
const sizeWords = {
  clear: 'bigger than it',
  small: 'too small to feel',
  within: 'within it',
  unknown: '',
}
const recordingOf = (id: string) => b.value?.recordings.filter(hasFigures).find((r) => r.runId === id) ?? null
const a = useRecording(computed(() => recordingOf(runA.value)))
const c = useRecording(computed(() => recordingOf(runB.value)))
const laid = useLaid(a.drawable, c.drawable)
const verdict = computed(() => result.value?.verdict ?? null)
const feelWords = (id: string) => b.value?.feels.find((f) => f.runId === id)?.rating
const headline = computed(() => {
  const r = result.value
  if (!r) return 'Choose two runs'
  if (verdict.value) return verdict.value.words
  return r.changes.length === 0
    ? 'Same settings: their difference is the noise'
    : 'Not yet: both runs need a rating'
})
const chance = computed(() =>
  verdict.value ? `${Math.round(100 * verdict.value.probability)} % chance that B is better` : '',
)
const noise = computed(() =>
  result.value
    ? result.value.repeats
      ? `scatter of one rating ${result.value.noiseSd.toFixed(1)}, from ${result.value.repeats} repeated ${result.value.repeats === 1 ? 'run' : 'runs'}`
      : `scatter of one rating taken as ${result.value.noiseSd.toFixed(1)}: nothing was repeated yet`
    : '',
)
const swap = () => void router.replace({ query: { a: runB.value, b: runA.value } })
usePageTitle(() =>
  b.value
    ? `Compare, ${b.value.rider.name}, ${b.value.trail.name}, ${dayWords(b.value.day.date)}`
    : 'Compare',
)
</script>

<template>
  <BarSlots v-if="b">
    <template #about><DayHead :bundle="b" /></template>
    <template #acts
      ><RouterLink class="btn bar-btn" :to="{ name: 'day', params: { id } }"
        >Back to the day</RouterLink
      ></template
    >
  </BarSlots>
  <NotOpened v-if="failed && !b" title="This day could not be opened" @again="reload" />
  <div v-else-if="b && day.covered" class="page">
    <BlindCover
      what="The comparison"
      :run-number="day.runNumber(day.covered.id)"
      @uncover="day.uncover(day.covered.id)"
    />
  </div>
  <div v-else-if="b" class="page">
    <div class="page-head">
      <h1>Is B better than A, really</h1>
      <div class="pick">
        <label>A <BFormSelect v-model="runA" :options="options" size="sm" /></label>
        <label>B <BFormSelect v-model="runB" :options="options" size="sm" /></label>
        <BButton variant="plain" @click="swap">Swap</BButton>
      </div>
    </div>
    <section v-if="result" class="card-paper verdict" aria-labelledby="verdict">
      <h2 id="verdict">{{ headline }}</h2>
      <EffectBar v-if="verdict" :effect="verdict" />
      <p v-if="verdict" class="num">
        {{ chance }}; effect {{ signedWords(verdict.effect, 1) }} rating points, 80 % between
        {{ signedWords(verdict.low80, 1) }} and {{ signedWords(verdict.high80, 1) }}. Runs used: A
        {{ verdict.runsA }}, B {{ verdict.runsB }}; {{ noise }}.
      </p>
      <p v-else class="soft num">{{ noise }}</p>
      <p class="num">
        Ratings of these two: A {{ feelWords(runA) ?? 'none' }}, B {{ feelWords(runB) ?? 'none' }}.
      </p>
      <p v-for="u in result.unlike" :key="u" class="unlike">{{ u }}</p>
      <h3>What was turned between them</h3>
      <ul>
        <li v-for="w in result.changes" :key="w" class="num">{{ w }}</li>
        <li v-if="!result.changes.length" class="soft">Nothing.</li>
      </ul>
      <template v-if="result.facts.length">
        <h3>What was noted of them</h3>
        <div class="scroll" tabindex="0" role="group" aria-label="Table, scrolls sideways">
          <table class="facts">
            <thead>
              <tr>
                <th scope="col"><span class="visually-hidden">What</span></th>
                <th scope="col">A</th>
                <th scope="col">B</th>
              </tr>
            </thead>
            <tbody>
              <tr v-for="f in result.facts" :key="f.name">
                <th scope="row">{{ f.name }}</th>
                <td class="num">{{ f.a }}</td>
                <td class="num">{{ f.b }}</td>
              </tr>
            </tbody>
          </table>
        </div>
      </template>
    </section>
    <template v-if="differences.length">
      <section class="card-paper table" aria-labelledby="sections">
        <div class="page-head">
          <h2 id="sections">What the sensors say, B against A</h2>
          <label class="check"
            ><input v-model="all" type="checkbox" class="form-check-input" /> show all, the small ones
            too</label
          >
        </div>
        <p v-for="words in cautions" :key="words" class="caution">{{ words }}</p>
        <p v-if="!clear.length" class="soft small">
          {{
            differences[0].size === 'unknown'
              ? 'No setting was ridden twice with sensors, so it cannot be said which of these are larger than noise.'
              : 'Nothing is larger than the scatter of repeated runs.'
          }}
        </p>
        <div class="scroll" tabindex="0" role="group" aria-label="Table, scrolls sideways">
          <table>
            <thead>
              <tr>
                <th scope="col">What</th>
                <th scope="col">A</th>
                <th scope="col">B</th>
                <th scope="col">B − A</th>
                <th scope="col">Normal scatter</th>
              </tr>
            </thead>
            <tbody v-for="group in shownBySection" :key="group.section">
              <tr class="section">
                <th scope="rowgroup" colspan="5">
                  {{ group.section }}
                  <span v-if="group.pace" class="soft small num">{{ group.pace }}</span>
                </th>
              </tr>
              <tr v-for="d in group.rows" :key="d.key" :class="d.size === 'clear' ? 'clear' : 'within'">
                <td>
                  <EndMark v-if="d.end" :end="d.end" small /> {{ d.end ? `${d.end} ${d.name}` : d.name
                  }}<span class="soft small">, {{ d.unit }}</span>
                </td>
                <td class="num">{{ d.a }}</td>
                <td class="num">{{ d.b }}</td>
                <td class="num">
                  <b>{{ d.difference }}</b>
                  <span v-if="d.ofPace" class="soft small of-pace">{{ `of it ${d.ofPace} by pace` }}</span>
                </td>
                <td class="num">
                  {{ d.scatter ?? 'not known' }}
                  <span class="small of-pace">{{ sizeWords[d.size] }}</span>
                </td>
              </tr>
            </tbody>
          </table>
        </div>
      </section>
      <section class="card-paper stage">
        <p class="soft small">A filled, B as lines</p>
        <MirrorTrace
          v-if="a.drawable.value"
          :main="a.drawable.value"
          :other="c.drawable.value"
          :pieces="laid?.pieces ?? null"
          :sections="b.trail.sections"
          :wrong-depths="wrongDepths[0]"
          label="Depth of runs A and B over time"
        />
        <p v-if="laid" class="soft small num">{{ laid.words }}</p>
      </section>
      <DepthBySection
        :analysis="recordingOf(runA)!.analysis"
        :other="recordingOf(runB)!.analysis"
        :sections="b.trail.sections"
        :wrong-depths="wrongDepths[0]"
        :other-wrong-depths="wrongDepths[1]"
      />
      <SignalFigures :analysis="recordingOf(runA)!.analysis" :other="recordingOf(runB)!.analysis" />
    </template>
    <p v-else class="soft">With a sensor file on both runs, they are compared section by section here.</p>
  </div>
</template>

<style scoped>
.of-pace {
  display: block;
}
.verdict table.facts {
  width: auto;
}
.verdict .facts :is(th, td) {
  text-align: left;
  padding-right: 2rem;
}
.pick {
  display: flex;
  flex-wrap: wrap;
  gap: 0.8rem;
  align-items: center;
}
.pick label {
  display: flex;
  gap: 0.4rem;
  align-items: center;
  font-weight: 700;
}
.verdict,
.table,
.stage {
  padding: 1rem 1.2rem;
  margin-bottom: 0.9rem;
}
.verdict p {
  margin: 0.2rem 0;
}
.verdict h3 {
  margin-top: 0.7rem;
}
.unlike {
  color: var(--rust);
  font-weight: 600;
}
.check {
  display: flex;
  gap: 0.4rem;
}
.scroll {
  overflow-x: auto;
}
table {
  width: 100%;
  border-collapse: collapse;
}
th,
td {
  text-align: left;
  padding: 0.3rem 0.8rem 0.3rem 0;
  border-bottom: 1px solid var(--line);
}
td.num,
.table thead th:nth-child(n + 2) {
  text-align: right;
}
.section th {
  padding-top: 0.8rem;
}
.within {
  color: var(--ink-soft);
}
.within b {
  font-weight: 400;
}
.clear b {
  background: var(--sun-soft);
  color: var(--ink);
  border-radius: 5px;
  padding: 0 0.3em;
}
.bar-btn {
  color: inherit;
  border: 1px solid rgb(255 255 255 / 45%);
}
</style>
