<script setup lang="ts">
import { computed, ref, shallowRef, watch } from 'vue'
import { v7 as uuid } from 'uuid'
import type { DayBundle } from '#contract/endpoints'
import type { ImportMapping, RecordingUpload } from '#contract/recording'
import type { Run } from '#contract/run'
import { suggestMapping } from '#core/telemetry/mapping'
import { ApiError } from '../../api/client.ts'
import { useFileSending } from '../../composables/useFileSending.ts'
import { useNotices } from '../../stores/notices.ts'
import { durationWords } from '../../support/dates.ts'
import { runGeometry, strokesOf } from '../../support/runGeometry.ts'
import { tooLargeWords } from '../../support/uploadSize.ts'
import { fileKinds, kindOfFile } from '#core/formats/fileKinds'
import { useFileReader } from '../../composables/useFileReader.ts'
import type { FileLook, Looking, Trial } from '../../workers/file.worker.ts'
import DialectFields from './DialectFields.vue'
import DropArea from './DropArea.vue'
import MappingTable from './MappingTable.vue'
import UploadProgress from './UploadProgress.vue'
import DialogFrame from '../shell/DialogFrame.vue'

const props = defineProps<{ bundle: DayBundle; run: Run; number: number; dropped: File | null }>()
const open = defineModel<boolean>('open', { required: true })
const emit = defineEmits<{ imported: [] }>()
const notices = useNotices()

const file = shallowRef<File | null>(null)
const look = shallowRef<FileLook | null>(null)
const mapping = ref<ImportMapping | null>(null)
const trial = shallowRef<Trial | null>(null)
const fault = ref('')
const remembered = ref(false)
const remember = ref(true)
/** One recording per chosen file, however often it is asked for: an answer that was lost makes no second one. */
let recordingId = ''
/** The same file is on another run; only a person knows whether it belongs here too. */
const elsewhere = ref('')
const said = ref<Looking>({})
/** It could not be made out by itself; how it is written can be said. */
const unread = ref(false)
const { progress, send, cancel } = useFileSending()
const { reader, knownMapping } = useFileReader()
const geometry = computed(() => runGeometry(props.bundle, props.run.id))
const strokes = computed(() => strokesOf(geometry.value))
async function take(f: File) {
  file.value = f
  recordingId = uuid()
  fault.value = elsewhere.value = ''
  look.value = mapping.value = trial.value = null
  said.value = {}
  unread.value = false
  fault.value = fileKinds[kindOfFile(f.name)].neverFirst ?? tooLargeWords(f.size)
  if (fault.value) return
  try {
    look.value = await reader().look(f)
    const known = await knownMapping(look.value)
    remembered.value = known !== null
    if (known) {
      const { delimiter, decimal, quote, firstRowLine } = known
      said.value = { delimiter, decimal, quote, firstRowLine }
      look.value = await reader().look(f, { ...said.value })
    }
    mapping.value = known ?? suggestMapping(look.value.layout)
  } catch (e) {
    unread.value = true
    fault.value = e instanceof Error ? e.message : String(e)
  }
}
/** What was said of how the file is written: it is looked at again by that. */
async function lookAgain(how: Looking) {
  if (!file.value) return
  fault.value = ''
  try {
    const widthBefore = look.value?.layout.columns.length
    const namesOnly = how.namesIn !== said.value.namesIn
    said.value = how
    look.value = await reader().look(file.value, { ...how })
    // Another spelling of the names changes nothing that was set.
    if (namesOnly && mapping.value && widthBefore === look.value.layout.columns.length) return
    const { quote, firstRowLine } = how
    mapping.value = { ...suggestMapping(look.value.layout), quote, firstRowLine }
    remembered.value = false
  } catch (e) {
    // Said wrongly or not, the fields stay open: only they can put it right.
    mapping.value = trial.value = null
    fault.value = e instanceof Error ? e.message : String(e)
  }
}
let trialNo = 0
watch(
  mapping,
  async (m) => {
    if (!m || !look.value) return
    const mine = ++trialNo
    const result = await reader().attempt(JSON.parse(JSON.stringify(m)), geometry.value)
    if (mine === trialNo) trial.value = result
  },
  { deep: true },
)
async function start(again = false) {
  if (!file.value || !mapping.value) return
  fault.value = elsewhere.value = ''
  const meta: RecordingUpload = {
    uploadId: recordingId,
    runId: props.run.id,
    fileName: file.value.name,
    mapping: mapping.value,
    spans: [],
    remember: remember.value,
    again,
  }
  try {
    const r = await send({
      kind: 'recording',
      key: `recording:${recordingId}`,
      params: { id: recordingId },
      // A plain copy: a reactive proxy cannot be kept.
      body: JSON.parse(JSON.stringify(meta)),
      file: file.value,
    })
    notices.show(
      r
        ? `${file.value.name}: ${durationWords(r.durationS)} min at ${Math.round(r.sampleRateHz)} Hz, on run ${props.number}.`
        : `${file.value.name} waits here and is sent to run ${props.number} when the server is in reach again.`,
    )
    emit('imported')
    open.value = false
  } catch (e) {
    const words = e instanceof Error ? e.message : String(e)
    if (e instanceof ApiError && e.problem?.code === 'recording.elsewhere') elsewhere.value = words
    else fault.value = words
  }
}
const good = computed(() => (trial.value?.ok ? trial.value : null))
const rangeWords = computed(() =>
  good.value?.ranges
    .map((r) => `${r.end} ${r.lowPct.toFixed(0)} to ${r.highPct.toFixed(0)} % of travel`)
    .join(', '),
)
// Last: a file that was dropped is taken at once when the dialog is made open.
watch(
  open,
  (is) => {
    if (!is) return
    file.value = look.value = trial.value = mapping.value = null
    fault.value = ''
    if (props.dropped) void take(props.dropped)
  },
  { immediate: true },
)
</script>

<template>
  <DialogFrame v-model:open="open" :title="`Sensor file for run ${number}`" size="xl" firm>
    <div class="import">
      <DropArea
        :file="file"
        invitation="Drop a sensor file here, or pick one"
        hint="Any delimited text: comma, semicolon, tab; decimal point or comma; time in minutes, s, ms, µs, a clock, or none"
        accept=".csv,.tsv,.txt,.log,text/*"
        @take="take"
      />
      <p v-if="fault" class="fault" role="alert">{{ fault }}</p>
      <DialectFields
        v-if="file && (look || unread)"
        :look="look"
        :said="said"
        :date-order="mapping?.dateOrder"
        @say="lookAgain"
        @order="(o) => mapping && (mapping = { ...mapping, dateOrder: o })"
      />
      <div v-if="elsewhere" class="caution" role="alert">
        <span>{{ elsewhere }}</span>
        <BButton variant="plain" @click="start(true)">It belongs to both</BButton>
      </div>
      <template v-if="look && mapping">
        <p v-if="remembered" class="soft small">
          Columns as you set them for the last file with this header.
        </p>
        <MappingTable v-model="mapping" :look="look" :strokes="strokes" />
        <p v-if="trial && !trial.ok" class="fault" role="alert">{{ trial.message }}</p>
        <div v-if="good" class="found">
          <p>
            <b class="num"
              >{{ durationWords(good.durationS) }} min at {{ Math.round(good.sampleRateHz) }} Hz</b
            >; {{ rangeWords }}
          </p>
          <p v-for="i in good.issues" :key="i.code" class="small issue">{{ i.message }}</p>
        </div>
        <label class="check"
          ><input v-model="remember" type="checkbox" class="form-check-input" /> Remember these columns for
          files with the same header</label
        >
        <UploadProgress v-if="progress" v-bind="progress" @cancel="cancel" />
        <div v-else class="acts">
          <BButton variant="primary" :disabled="!good" @click="start()">Put it on run {{ number }}</BButton>
          <BButton variant="plain" @click="open = false">Cancel</BButton>
        </div>
      </template>
    </div>
  </DialogFrame>
</template>

<style scoped>
.import {
  display: grid;
  gap: 0.8rem;
}
.import p {
  margin: 0;
}
.fault {
  color: var(--rust);
  font-weight: 600;
}
.found {
  background: var(--front-soft);
  color: var(--ink);
  border-radius: 10px;
  padding: 0.6rem 0.9rem;
}
.issue::before {
  content: '! ';
  font-weight: 700;
}
.check,
.acts {
  display: flex;
  gap: 0.6rem;
  align-items: center;
}
</style>
