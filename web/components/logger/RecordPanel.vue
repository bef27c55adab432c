<script setup lang="ts">
import { computed, ref } from 'vue'
import { v7 as uuid } from 'uuid'
import type { StoredRecording } from '#contract/logger'
import type { ImportMapping, Recording, RecordingUpload } from '#contract/recording'
import { importFaults } from '#core/devices/liveWatch'
import { loggerCalls, offload } from '../../api/logger.ts'
import { useFileSending } from '../../composables/useFileSending.ts'
import type { Logger } from '../../composables/useLogger.ts'
import { useNotices } from '../../stores/notices.ts'
import { durationWords } from '../../support/dates.ts'
import { oneAtATime, twiceMs } from '../../support/oneAtATime.ts'

/** Record, take it off the device, put it on a run. */
const props = defineProps<{
  logger: Logger
  mapping: ImportMapping | null
  runs: readonly { id: string; text: string; taken: boolean }[]
}>()
const runId = defineModel<string>('runId', { required: true })
const emit = defineEmits<{ attached: [recording: Recording] }>()
const notices = useNotices()

const running = computed(() => props.logger.state.value?.recording ?? null)
const index = computed(() => props.logger.index.value!)
/** Start and stop stand in one place: a second tap of the same hand is neither. */
const startOrStop = oneAtATime(
  (what: 'start' | 'stop') =>
    notices.attempt(async () => {
      await loggerCalls[what](index.value)
      if (what === 'stop') await props.logger.lookAtStored()
      await props.logger.refresh()
    }),
  { restMs: twiceMs },
)

/** Off the device first, then onto the run. */
const taking = ref<number | null>(null)
const { progress: sending, send, cancel: cancelSending } = useFileSending()
const progress = computed(() =>
  taking.value !== null
    ? { share: 0.3 * taking.value, doing: 'Taking it off the device' }
    : sending.value && { share: 0.3 + 0.7 * sending.value.share, doing: sending.value.doing },
)
const fault = ref('')
let aborting: AbortController | null = null
function cancel() {
  aborting?.abort()
  void cancelSending()
}
const free = computed(() => props.runs.find((r) => r.id === runId.value && !r.taken))

async function attach(s: StoredRecording) {
  if (!props.mapping || !free.value) return
  fault.value = ''
  aborting = new AbortController()
  const { signal } = aborting
  try {
    taking.value = 0
    const file = await offload(index.value, s.id, (share) => (taking.value = share), signal)
    taking.value = null
    const id = uuid()
    const meta: RecordingUpload = {
      uploadId: id,
      runId: runId.value,
      fileName: s.name,
      mapping: props.mapping,
      spans: [],
      remember: false,
      again: false,
    }
    const body = JSON.parse(JSON.stringify(meta))
    const recording = await send({ kind: 'recording', key: `recording:${id}`, params: { id }, body, file })
    if (!recording) return notices.show(`${s.name} waits here and is sent when the server is in reach again.`)
    props.logger.tell(importFaults(recording.issues.map((i) => i.code)))
    notices.show(`${s.name} is on ${free.value?.text ?? 'the run'}.`)
    emit('attached', recording)
  } catch (e) {
    fault.value = signal.aborted
      ? 'Cancelled; nothing was put on the run.'
      : e instanceof Error
        ? e.message
        : String(e)
  } finally {
    taking.value = null
    aborting = null
  }
}
const remove = (s: StoredRecording) =>
  notices.attempt(async () => {
    await loggerCalls.remove(index.value, s.id)
    await props.logger.lookAtStored()
  })
const percent = computed(() => Math.round(100 * (progress.value?.share ?? 0)))
const kb = (bytes: number) => `${Math.round(bytes / 1024)} kB`
const storedWords = (s: StoredRecording) =>
  `${durationWords(s.seconds)} min, ${kb(s.bytes)}${s.complete ? '' : ', broken off by the device'}`
const runningWords = computed(() =>
  running.value
    ? running.value.finished
      ? `${durationWords(running.value.seconds)} min: the trail has ended`
      : `${durationWords(running.value.seconds)} min so far`
    : '',
)
</script>

<template>
  <section class="card-paper panel" aria-labelledby="record-title">
    <h2 id="record-title">Record and fetch</h2>
    <p class="soft small">
      Let the bike hang for three seconds when a recording starts and before it stops: that is how a warm or
      leaking chamber is told.
    </p>
    <div class="acts">
      <button v-if="!running" type="button" class="btn btn-sun" @click="startOrStop('start')">
        Start recording
      </button>
      <template v-else>
        <span class="dot" aria-hidden="true"></span>
        <b class="num" role="status">{{ runningWords }}</b>
        <button type="button" class="btn btn-primary" @click="startOrStop('stop')">Stop</button>
      </template>
    </div>
    <template v-if="logger.stored.value.length">
      <label class="onto"
        >Put it on
        <BFormSelect
          v-model="runId"
          size="sm"
          :options="runs.map((r) => ({ value: r.id, text: r.taken ? `${r.text}, has a file` : r.text }))"
        />
      </label>
      <ul>
        <li v-for="s in logger.stored.value" :key="s.id">
          <b>{{ s.name }}</b>
          <span class="num small">{{ storedWords(s) }}</span>
          <button
            type="button"
            class="btn btn-primary"
            :disabled="!mapping || !free || progress !== null"
            @click="attach(s)"
          >
            Put it on the run
          </button>
          <button type="button" class="btn btn-plain" :disabled="progress !== null" @click="remove(s)">
            Delete there
          </button>
        </li>
      </ul>
      <p v-if="!mapping" class="small fault">Calibrate first: without it the readings are only numbers.</p>
      <p v-else-if="!free" class="small soft">That run has a sensor file already; choose another.</p>
    </template>
    <div v-if="progress" class="progress-row" role="status">
      <BProgress :value="percent" :max="100" variant="success" class="grow" />
      <span class="num">{{ `${progress.doing}, ${percent} %` }}</span>
      <button type="button" class="btn btn-plain" @click="cancel">Cancel</button>
    </div>
    <p v-if="fault" class="fault" role="alert">{{ fault }}</p>
  </section>
</template>

<style scoped>
.panel {
  padding: 0.8rem 1rem;
}
.acts,
.progress-row,
.onto {
  display: flex;
  gap: 0.7rem;
  align-items: center;
  margin-top: 0.5rem;
}
.dot {
  width: 14px;
  height: 14px;
  border-radius: 50%;
  background: var(--rust);
}
ul {
  list-style: none;
  padding: 0;
  margin: 0.5rem 0;
}
li {
  display: grid;
  grid-template-columns: 1fr auto auto auto;
  gap: 0.4rem 0.8rem;
  align-items: center;
  padding: 0.35rem 0;
  border-top: 1px solid var(--line);
}
.grow {
  flex: 1;
}
@media (max-width: 640px) {
  li {
    grid-template-columns: 1fr 1fr;
  }
}
</style>
