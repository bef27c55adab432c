<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import IconFlag from '~icons/lucide/flag'
import { endpoints } from '#contract/endpoints'
import type { SectionSpan } from '#contract/recording'
import type { ReadRecording } from '../../support/figures.ts'
import type { Trail } from '#contract/trail'
import { alignPieces } from '#core/signal/align'
import { call } from '../../api/client.ts'
import { useRecording, type DrawableRecording } from '../../composables/useRecording.ts'
import { useGarage } from '../../stores/garage.ts'
import { useNotices } from '../../stores/notices.ts'
import NumberField from '../shell/NumberField.vue'

/** Where the sections lie in a recording: by hand, on the trace, or as another run has them. */
const props = defineProps<{
  main: DrawableRecording
  trail: Trail
  others: readonly { recording: ReadRecording; text: string }[]
  /** A moment that was tapped on the trace. */
  picked: number | null
}>()
const emit = defineEmits<{ placed: []; picking: [on: boolean] }>()
const notices = useNotices()

interface Row {
  sectionId: string
  name: string
  startS: number | null
  endS: number | null
}
const round = (s: number) => Math.round(s * 10) / 10
const fromAnalysis = ({ recording }: DrawableRecording): Row[] =>
  props.trail.sections.map((s) => {
    const found = recording.analysis.sections.find((x) => x.sectionId === s.id)
    return {
      sectionId: s.id,
      name: s.name,
      startS: found ? round(found.startS) : null,
      endS: found ? round(found.endS) : null,
    }
  })
const rows = ref<Row[]>(fromAnalysis(props.main))
const touched = (main: DrawableRecording) => JSON.stringify(rows.value) !== JSON.stringify(fromAnalysis(main))
watch(
  () => props.main,
  (main, before) => {
    // Figures are also made again in the background: that must not take away what is being typed.
    if (!touched(before)) rows.value = fromAnalysis(main)
  },
)

/** When the trail begins here; the sections are then laid in metres from it. */
const lineS = ref<number | null>(null)
const keptLineS = ({ recording }: DrawableRecording) =>
  recording.lineS === null ? null : round(recording.lineS)
watch(
  () => props.main,
  (main, before) => {
    if (!before || lineS.value === keptLineS(before)) lineS.value = keptLineS(main)
  },
  { immediate: true },
)
const hasWay = computed(() => props.main.recording.analysis.sectionsBy !== 'share-of-length')
/** The first hit that goes so deep marks a line that every run has: a kerb, a root, the first drop. */
const hitPct = ref<number | null>(50)
const hitFault = ref('')
function fromHit() {
  const least = hitPct.value
  const end = props.main.front ?? props.main.rear
  const at = least === null || !end ? -1 : end.depthPct.findIndex((d) => d >= least)
  hitFault.value = at < 0 ? `Nothing in this run goes ${least ?? '?'} % deep.` : ''
  if (at >= 0) lineS.value = round(at / props.main.recording.sampleRateHz)
}

/** Which edge the next tap on the trace sets. */
const edge = ref<{ row: number; key: 'startS' | 'endS' } | 'line' | null>(null)
function pickLine() {
  edge.value = edge.value === 'line' ? null : 'line'
  emit('picking', edge.value !== null)
}
function pick(row: number, key: 'startS' | 'endS') {
  edge.value = pressed(row, key) ? null : { row, key }
  emit('picking', edge.value !== null)
}
watch(
  () => props.picked,
  (at) => {
    const e = edge.value
    if (at === null || !e) return
    if (e === 'line') {
      lineS.value = round(at)
      edge.value = null
      emit('picking', false)
      return
    }
    set(e.row, e.key, round(at))
    // Sections meet: the next tap is the end of the same one, then the next one's.
    edge.value = e.key === 'startS' ? { row: e.row, key: 'endS' } : null
    emit('picking', edge.value !== null)
  },
)
function set(row: number, key: 'startS' | 'endS', v: number | null) {
  rows.value = rows.value.map((r, i) => {
    if (i === row) return { ...r, [key]: v }
    if (key === 'endS' && i === row + 1 && (r.startS === null || r.startS === rows.value[row].endS))
      return { ...r, startS: v }
    return r
  })
}
const pickWords = computed(() => {
  const e = edge.value
  if (e === 'line') return 'Tap the trace where the trail begins.'
  return e
    ? `Tap the trace where ${rows.value[e.row].name} ${e.key === 'startS' ? 'begins' : 'ends'}.`
    : 'Type seconds, or press a flag and tap the trace.'
})
const pressed = (row: number, key: 'startS' | 'endS') =>
  edge.value !== null && edge.value !== 'line' && edge.value.row === row && edge.value.key === key

const otherId = ref('')
const other = computed(() => props.others.find((o) => o.recording.id === otherId.value)?.recording ?? null)
const loaded = useRecording(other)
const copyFault = ref('')
function copy() {
  const from = loaded.drawable.value
  if (!from) return
  const end = (['rear', 'front'] as const).find((e) => from[e] && props.main[e])
  const pieces = end
    ? alignPieces(
        { depth: from[end]!.depthPct, rateHz: from.recording.sampleRateHz },
        { depth: props.main[end]!.depthPct, rateHz: props.main.recording.sampleRateHz },
        from.recording.analysis.sections,
      )
    : null
  copyFault.value = pieces ? '' : 'The two runs are too unlike to copy from; place the sections by hand.'
  if (!pieces) return
  const { durationS } = props.main.recording
  const clamp = (s: number) => round(Math.min(durationS, Math.max(0, s)))
  rows.value = rows.value.map((r) => {
    const i = from.recording.analysis.sections.findIndex((s) => s.sectionId === r.sectionId)
    const p = pieces[i]
    return p ? { ...r, startS: clamp(p.startS + p.lagS), endS: clamp(p.endS + p.lagS) } : r
  })
}

const busy = ref(false)
async function save(spans: SectionSpan[], line: number | null = null) {
  busy.value = true
  const done = await notices.attempt(() =>
    call(endpoints.placeSections, { id: props.main.recording.id }, { spans, lineS: line }),
  )
  busy.value = false
  if (done) emit('placed')
}
const spans = computed(() =>
  rows.value.flatMap((r) =>
    r.startS !== null && r.endS !== null ? [{ sectionId: r.sectionId, startS: r.startS, endS: r.endS }] : [],
  ),
)
/** Only what is not in doubt is worth keeping: all runs after it would be laid by it. */
const places = computed(() => {
  const { edgePlaces, sectionsDoubt } = props.main.recording.analysis
  return sectionsDoubt === null ? edgePlaces : []
})
const garage = useGarage()
async function keepPlaces() {
  busy.value = true
  const kept = await notices.attempt(() => garage.saveTrail({ ...props.trail, gates: places.value }))
  busy.value = false
  if (!kept) return
  notices.show('Kept with the trail: runs with positions find their sections by them.')
  emit('placed')
}
const wrong = computed(() => {
  const bad = rows.value.find((r) => r.startS !== null && r.endS !== null && r.endS <= r.startS)
  return bad ? `${bad.name} must end after it begins.` : ''
})
const options = computed(() => props.others.map((o) => ({ value: o.recording.id, text: o.text })))
</script>

<template>
  <section class="card-paper placer" aria-labelledby="placer-title">
    <h2 id="placer-title">Where the sections lie</h2>
    <p class="soft small" role="status">{{ pickWords }}</p>
    <div class="rows">
      <div v-for="(r, i) in rows" :key="r.sectionId" class="row">
        <NumberField
          :model-value="r.startS"
          :label="`${r.name} begins`"
          unit="s"
          @update:model-value="(v) => set(i, 'startS', v)"
        />
        <button
          type="button"
          class="btn btn-plain"
          :aria-pressed="pressed(i, 'startS')"
          :aria-label="`Set the begin of ${r.name} on the trace`"
          @click="pick(i, 'startS')"
        >
          <IconFlag aria-hidden="true" />
        </button>
        <NumberField
          :model-value="r.endS"
          :label="`${r.name} ends`"
          unit="s"
          @update:model-value="(v) => set(i, 'endS', v)"
        />
        <button
          type="button"
          class="btn btn-plain"
          :aria-pressed="pressed(i, 'endS')"
          :aria-label="`Set the end of ${r.name} on the trace`"
          @click="pick(i, 'endS')"
        >
          <IconFlag aria-hidden="true" />
        </button>
      </div>
    </div>
    <div v-if="options.length" class="copy">
      <label class="form-label" for="copy-from">As they lie in</label>
      <BFormSelect id="copy-from" v-model="otherId" size="sm" :options="options" />
      <button type="button" class="btn btn-plain" :disabled="!loaded.drawable.value" @click="copy">
        Copy by likeness
      </button>
    </div>
    <div v-if="hasWay" class="line">
      <NumberField v-model="lineS" label="Or: the trail begins at" unit="s" />
      <button
        type="button"
        class="btn btn-plain"
        :aria-pressed="edge === 'line'"
        aria-label="Set where the trail begins on the trace"
        @click="pickLine"
      >
        <IconFlag aria-hidden="true" />
      </button>
      <NumberField v-model="hitPct" label="or at the first hit over" unit="%" />
      <button type="button" class="btn btn-plain" @click="fromHit">Take that hit</button>
      <button type="button" class="btn btn-plain" :disabled="busy || lineS === null" @click="save([], lineS)">
        Count in metres from there
      </button>
    </div>
    <p v-if="copyFault || wrong || hitFault" class="fault" role="alert">
      {{ copyFault || wrong || hitFault }}
    </p>
    <div class="acts">
      <button
        type="button"
        class="btn btn-primary"
        :disabled="busy || !!wrong || !spans.length"
        @click="save(spans)"
      >
        {{ busy ? 'Counting again …' : 'Count by these' }}
      </button>
      <button type="button" class="btn btn-plain" :disabled="busy" @click="save([])">Place them again</button>
      <button v-if="places.length" type="button" class="btn btn-plain" :disabled="busy" @click="keepPlaces">
        Keep these places with the trail
      </button>
    </div>
  </section>
</template>

<style scoped>
.placer {
  padding: 0.9rem 1.1rem;
  margin-bottom: 0.9rem;
}
.rows {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(360px, 1fr));
  gap: 0 1.4rem;
}
.row {
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto minmax(0, 1fr) auto;
  gap: 0.4rem;
  align-items: end;
  padding: 0.3rem 0;
  border-bottom: 1px solid var(--line);
}
.row button[aria-pressed='true'] {
  background: var(--sun);
}
.line {
  display: grid;
  grid-template-columns: minmax(0, 12rem) auto minmax(0, 12rem) auto auto;
  justify-content: start;
  gap: 0.4rem 0.6rem;
  align-items: end;
  margin-top: 0.7rem;
}
.line button[aria-pressed='true'] {
  background: var(--sun);
}
.copy,
.acts {
  display: flex;
  gap: 0.6rem;
  align-items: center;
  margin-top: 0.7rem;
}
.copy :deep(select) {
  width: auto;
}
@media (max-width: 560px) {
  .rows {
    grid-template-columns: 1fr;
  }
  .line {
    grid-template-columns: minmax(0, 1fr) auto;
  }
}
</style>
