<script setup lang="ts">
import { onScopeDispose, ref, shallowRef } from 'vue'
import { v7 as uuid } from 'uuid'
import type { BundleChoices, BundleLook } from '#contract/bundle'
import { endpoints } from '#contract/endpoints'
import { ApiError, call } from '../../api/client.ts'
import { sendBytes } from '../../api/upload.ts'
import { useNotices } from '../../stores/notices.ts'
import { takenWords } from '../../support/bundleWords.ts'
import DropArea from '../importing/DropArea.vue'
import UploadProgress from '../importing/UploadProgress.vue'
import BundlePreview from './BundlePreview.vue'

/** A bundle to bring in: sent, looked at, and taken once a person has seen what it would do. */
defineProps<{ carrying: { doing: string; share: number } | null }>()
const emit = defineEmits<{ work: [doing: () => Promise<unknown>] }>()
const notices = useNotices()
const file = shallowRef<File | null>(null)
const look = shallowRef<BundleLook | null>(null)
const sending = ref<{ share: number; doing: string } | null>(null)
const fault = ref('')
let id = ''
let given = new AbortController()
let isTaking = false
// What was sent and only looked at is somebody's data: it does not lie about when the page is left.
onScopeDispose(() => void (isTaking || drop()))

async function take(f: File) {
  await drop()
  file.value = f
  fault.value = ''
  id = uuid()
  given = new AbortController()
  sending.value = { share: 0, doing: 'Sending' }
  emit('work', async () => {
    try {
      await sendBytes(`data/arrivals/${id}`, f, (p) => (sending.value = p), given.signal, 1)
      sending.value = null
      look.value = await call(endpoints.lookAtBundle, { id })
    } catch (e) {
      fault.value = e instanceof ApiError ? e.message : 'This file could not be sent.'
      file.value = null
    } finally {
      sending.value = null
    }
  })
}
/** What was sent and not brought in stays nowhere. */
async function drop() {
  given.abort()
  const was = id
  id = ''
  look.value = null
  file.value = null
  if (was) await call(endpoints.dropBundle, { id: was }).catch(() => undefined)
}
function bring(choices: BundleChoices) {
  emit('work', async () => {
    try {
      isTaking = true
      const done = await call(endpoints.takeBundle, { id }, choices).finally(() => (isTaking = false))
      id = ''
      look.value = null
      file.value = null
      notices.show(`Brought in: ${takenWords(done)}. It can be taken back below.`)
    } catch (e) {
      // Something was changed here since: what it would do now is another thing.
      if (!(e instanceof ApiError) || e.problem?.code !== 'bundle.overtaken') throw e
      fault.value = e.message
      look.value = await call(endpoints.lookAtBundle, { id })
    }
  })
}
</script>

<template>
  <section class="card-paper" aria-labelledby="bring-title">
    <h2 id="bring-title">Bring in</h2>
    <p>
      A bundle that another Wild Spring wrote. You see first what is new, what is the same and what differs,
      and choose; then all of it is brought in, or nothing.
    </p>
    <UploadProgress v-if="sending" v-bind="sending" @cancel="drop" />
    <UploadProgress v-else-if="file && !look && carrying" v-bind="carrying" @cancel="drop" />
    <BundlePreview
      v-else-if="look"
      :key="JSON.stringify(look.differing)"
      :look="look"
      @bring="bring"
      @leave="drop"
    />
    <DropArea
      v-else
      :file="null"
      invitation="Choose a bundle, or drop it here"
      hint="wild-spring-….zip"
      accept=".zip,application/zip"
      class="drop-here"
      @take="take"
    />
    <p v-if="fault" class="fault" role="alert">{{ fault }}</p>
  </section>
</template>

<style scoped>
section {
  padding: 1rem 1.2rem;
}
section > p {
  margin: 0.5rem 0 0;
}
.drop-here {
  margin-top: 0.7rem;
}
</style>
