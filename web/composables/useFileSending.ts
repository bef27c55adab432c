import { computed, ref } from 'vue'
import type { Recording } from '#contract/recording'
import type { NewLetter } from '../api/letters.ts'
import { useLive } from '../api/live.ts'
import { sendingShare } from '../api/upload.ts'
import { useOutbox } from '../stores/outbox.ts'

/**
 * Sends a file from an open dialog through the outbox: bytes, then reading, with progress; can be cancelled. A file that
 * cannot be sent now waits in the outbox.
 */
export function useFileSending() {
  const outbox = useOutbox()
  const key = ref<string | null>(null)
  const read = ref<{ share: number; doing: string } | null>(null)
  useLive({
    event: (e) => {
      if (e.type === 'ingest' && key.value?.endsWith(e.recordingId))
        read.value = { share: sendingShare + (1 - sendingShare) * e.share, doing: e.doing }
    },
  })
  const letter = computed(() => outbox.letters.find((l) => l.key === key.value) ?? null)
  const progress = computed(() => {
    if (key.value === null) return null
    const sent = letter.value && outbox.state.progress.get(letter.value.id)
    return read.value ?? sent ?? { share: 0, doing: 'Sending' }
  })
  /** @returns the recording, or null when it waits here for the server @throws ApiError */
  async function send(l: NewLetter): Promise<Recording | null> {
    key.value = l.key
    read.value = null
    try {
      const done = await outbox.sendFile<Recording>(l)
      return done.state === 'saved' ? done.saved : null
    } finally {
      key.value = null
    }
  }
  const cancel = () => (letter.value ? outbox.drop([letter.value.id]) : Promise.resolve())
  return { progress, send, cancel }
}
