<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import IconFlag from '~icons/lucide/flag'
import { endpoints } from '#contract/endpoints'
import type { SectionSpan } from '#contract/recording'
import type { ReadRecording } from '../../support/figures.ts'
import type { TrailSection } from '#contract/trail'
import { alignPieces } from '#core/signal/align'
import { call } from '../../api/client.ts'
import { useRecording, type DrawableRecording } from '../../composables/useRecording.ts'
import { useNotices } from '../../stores/notices.ts'
import NumberField from '../shell/NumberField.vue'

/** Where the sections lie in a recording: by hand, on the trace, or as another run has them. */
const props = defineProps<{
  main: DrawableRecording
  sections: TrailSection[]
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
const fromAnalysis = (): Row[] =>
  props.sections.map((s) => {
    const found = props.main.recording.analysis.sections.find((x) => x.sectionId === s.id)
    return {
      sectionId: s.id,
      name: s.name,
      startS: found ? round(found.startS) : null,
      endS: found ? round(found.endS) : null,
    }
  })
const rows = ref<Row[]>(fromAnalysis())
watch(
  () => props.main.recording,
  () => (rows.value = fromAnalysis()),
)

/** Which edge the next tap on the trace sets. */
const edge = ref<{ row: number; key: 'startS' | 'endS' } | null>(null)
function pick(row: number, key: 'startS' | 'endS') {
  edge.value = edge.value?.row === row && edge.value.key === key ? null : { row, key }
  emit('picking', edge.value !== null)
}
watch(
  () => props.picked,
  (at) => {
    const e = edge.value
    if (at === null || !e) return
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
  return e
    ? `Tap the trace where ${rows.value[e.row].name} ${e.key === 'startS' ? 'begins' : 'ends'}.`
    : 'Type seconds, or press a flag and tap the trace.'
})
const pressed = (row: number, key: 'startS' | 'endS') => edge.value?.row === row && edge.value.key === key

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
async function save(spans: SectionSpan[]) {
  busy.value = true
  const done = await notices.attempt(() =>
    call(endpoints.placeSections, { id: props.main.recording.id }, { spans }),
  )
  busy.value = false
  if (done) emit('placed')
}
const spans = computed(() =>
  rows.value.flatMap((r) =>
    r.startS !== null && r.endS !== null ? [{ sectionId: r.sectionId, startS: r.startS, endS: r.endS }] : [],
  ),
)
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
    <p v-if="copyFault || wrong" class="fault" role="alert">{{ copyFault || wrong }}</p>
    <div class="acts">
      <button
        type="button"
        class="btn btn-primary"
        :disabled="busy || !!wrong || !spans.length"
        @click="save(spans)"
      >
        {{ busy ? 'Counting again …' : 'Count by these' }}
      </button>
      <button type="button" class="btn btn-plain" :disabled="busy" @click="save([])">
        Place them by distance again
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
}
</style>
