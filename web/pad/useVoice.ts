import { onScopeDispose, ref, shallowRef } from 'vue'
import { voiceLimits } from '#contract/pad'
import { oneAtATime } from '../support/oneAtATime.ts'

/** Whether this page may hear at all: browsers let pages on plain http hear nothing. */
export const canHear = (): boolean =>
  window.isSecureContext && 'mediaDevices' in navigator && typeof MediaRecorder !== 'undefined'

/** Half a minute of voice, kept on the phone until it is sent. */
export function useVoice() {
  const voice = shallowRef<Blob | null>(null)
  const recording = ref(false)
  const fault = ref('')
  let recorder: MediaRecorder | null = null
  let timer: ReturnType<typeof setTimeout> | undefined
  let whole: Promise<void> = Promise.resolve()

  // Asked twice, a second microphone would be left on.
  const start = oneAtATime(async (): Promise<void> => {
    fault.value = ''
    let stream: MediaStream
    try {
      stream = await navigator.mediaDevices.getUserMedia({ audio: true })
    } catch {
      fault.value = 'The phone lets nobody listen; say it by keys, or allow the microphone.'
      return
    }
    const parts: Blob[] = []
    const r = new MediaRecorder(stream)
    let done = () => {}
    whole = new Promise((resolve) => (done = resolve))
    r.ondataavailable = (e) => parts.push(e.data)
    r.onstop = () => {
      for (const t of stream.getTracks()) t.stop()
      clearTimeout(timer)
      recording.value = false
      const all = new Blob(parts, { type: r.mimeType })
      voice.value = all.size > 0 && all.size <= voiceLimits.bytes ? all : null
      done()
    }
    recorder = r
    voice.value = null
    recording.value = true
    r.start()
    timer = setTimeout(() => void stop(), voiceLimits.seconds * 1000)
  })
  /** Ends it; the voice is there when it resolves, since the last of it comes a moment later. */
  function stop(): Promise<void> {
    if (recorder?.state === 'recording') recorder.stop()
    return whole
  }
  const forget = () => void (voice.value = null)
  onScopeDispose(() => void stop())
  return { voice, recording, fault, start, stop, forget }
}
