<script setup lang="ts">
import { computed, ref, shallowRef, watch } from 'vue'
import { v7 as uuid } from 'uuid'
import { endpoints, type DayBundle } from '#contract/endpoints'
import type { AddedFile, AddedFileUpload, ImportMapping, Recording } from '#contract/recording'
import { suggestMapping } from '#core/telemetry/mapping'
import { apiBase, call } from '../../api/client.ts'
import { useFileSending } from '../../composables/useFileSending.ts'
import { acceptedFiles, fileKinds, kindOfFile } from '#core/formats/fileKinds'
import { useFileReader } from '../../composables/useFileReader.ts'
import { useNotices } from '../../stores/notices.ts'
import { tooLargeWords } from '../../support/uploadSize.ts'
import type { FileLook } from '../../workers/file.worker.ts'
import NumberField from '../shell/NumberField.vue'
import { runGeometry, strokesOf } from '../../support/runGeometry.ts'
import DropArea from './DropArea.vue'
import MappingTable from './MappingTable.vue'
import UploadProgress from './UploadProgress.vue'
import DialogFrame from '../shell/DialogFrame.vue'

/** The files of a recording: another logger's, or a track of the way, laid on its clock. */
const props = defineProps<{ recording: Recording; bundle: DayBundle }>()
const open = defineModel<boolean>('open', { required: true })
const strokes = computed(() => strokesOf(runGeometry(props.bundle, props.recording.runId)))
const emit = defineEmits<{ changed: [] }>()
const notices = useNotices()
const { reader, knownMapping } = useFileReader()

const file = shallowRef<File | null>(null)
const look = shallowRef<FileLook | null>(null)
const mapping = ref<ImportMapping | null>(null)
const offsetS = ref<number | null>(null)
const fault = ref('')
let fileId = ''
const { progress, send, cancel } = useFileSending()
const kind = computed(() => kindOfFile(file.value?.name ?? ''))
const isMapped = computed(() => fileKinds[kind.value].mapped)
watch(open, () => {
  file.value = look.value = mapping.value = null
  fault.value = ''
  offsetS.value = null
})
async function take(f: File) {
  file.value = f
  fileId = uuid()
  look.value = mapping.value = null
  fault.value = tooLargeWords(f.size)
  if (fault.value || !isMapped.value) return
  try {
    look.value = await reader().look(f)
    mapping.value = (await knownMapping(look.value)) ?? suggestMapping(look.value.layout)
  } catch (e) {
    fault.value = e instanceof Error ? e.message : String(e)
  }
}
async function add() {
  if (!file.value) return
  fault.value = ''
  const meta: AddedFileUpload = {
    uploadId: fileId,
    fileName: file.value.name,
    kind: kind.value,
    mapping: isMapped.value ? mapping.value : null,
    offsetS: offsetS.value,
  }
  try {
    const r = await send({
      kind: 'addedFile',
      key: `recording:${props.recording.id}`,
      params: { id: props.recording.id, fileId },
      body: JSON.parse(JSON.stringify(meta)),
      file: file.value,
    })
    notices.show(
      r
        ? `${file.value.name} is joined to the recording.`
        : `${file.value.name} waits here and is joined when the server is in reach again.`,
    )
    open.value = false
    emit('changed')
  } catch (e) {
    fault.value = e instanceof Error ? e.message : String(e)
  }
}
async function takeOff(f: AddedFile) {
  const done = await notices.attempt(() => call(endpoints.dropFile, { id: props.recording.id, fileId: f.id }))
  if (done) emit('changed')
}
const byWords: Record<AddedFile['offsetBy'], string> = {
  given: 'as you said',
  clock: 'by their clocks',
  matched: 'by likeness',
  start: 'both begin together',
}
const fileWords = (f: AddedFile) =>
  `begins at ${f.offsetS.toFixed(1)} s of the recording, ${byWords[f.offsetBy]}`
const address = (f: AddedFile) => `${apiBase}/recordings/${props.recording.id}/files/${f.id}/original`
const ready = computed(
  () => file.value !== null && !tooLargeWords(file.value.size) && (!isMapped.value || mapping.value !== null),
)
</script>

<template>
  <DialogFrame v-model:open="open" title="Files of this recording" size="xl" firm>
    <div class="files">
      <ul>
        <li>
          <b>{{ recording.fileName }}</b><span class="soft small">sets the clock</span>
        </li>
        <li v-for="f in recording.addedFiles" :key="f.id">
          <a :href="address(f)" :download="f.fileName">{{ f.fileName }}</a>
          <span class="soft small num">{{ fileWords(f) }}</span>
          <button type="button" class="btn btn-plain btn-sm" @click="takeOff(f)">Remove</button>
        </li>
      </ul>
      <DropArea
        :file="file"
        invitation="Drop a GPX track or a second logger’s file here, or pick one"
        hint="A track brings distance and speed; a second logger the channels that are missing"
        :accept="acceptedFiles"
        @take="take"
      />
      <MappingTable v-if="look && mapping" v-model="mapping" :look="look" :strokes="strokes" />
      <NumberField
        v-if="file"
        v-model="offsetS"
        label="It begins at"
        unit="s of the recording"
        hint="leave it empty to find out by clocks or likeness"
        class="offset"
      />
      <p v-if="fault" class="fault" role="alert">{{ fault }}</p>
      <UploadProgress v-if="progress" v-bind="progress" @cancel="cancel" />
      <div v-else class="acts">
        <button type="button" class="btn btn-primary" :disabled="!ready" @click="add">Join it</button>
      </div>
    </div>
  </DialogFrame>
</template>

<style scoped>
.files {
  display: grid;
  gap: 0.8rem;
}
ul {
  list-style: none;
  padding: 0;
  margin: 0;
}
li {
  display: flex;
  gap: 0.9rem;
  align-items: center;
  padding: 0.3rem 0;
  border-bottom: 1px solid var(--line);
}
li .small {
  flex: 1;
}
.offset {
  max-width: 320px;
}
.acts {
  display: flex;
  gap: 0.6rem;
  align-items: center;
}
</style>
