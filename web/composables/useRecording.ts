import { shallowRef, watch, type Ref } from 'vue'
import type { End } from '#contract/common'
import { buildPyramid, type Pyramid } from '#core/signal/pyramid'
import { apiBase, reach } from '../api/client.ts'
import type { ReadRecording } from '../support/figures.ts'

export interface DrawableChannel {
  depthPct: Float32Array
  pyramid: Pyramid
}
export type DrawableRecording = { recording: ReadRecording } & Partial<Record<End, DrawableChannel>>

/** A recording with the min/max blocks that its channels are drawn from. @param depthPct per end, % of travel */
export function drawableOf(
  recording: ReadRecording,
  depthPct: Partial<Record<End, Float32Array>>,
): DrawableRecording {
  const result: DrawableRecording = { recording }
  for (const end of ['front', 'rear'] as const) {
    const depths = depthPct[end]
    if (depths) result[end] = { depthPct: depths, pyramid: buildPyramid(depths) }
  }
  return result
}

/**
 * Loads the cleaned channels of a recording and the min/max blocks they are drawn from. One that was read again stays
 * drawn as it was until its new channels are here.
 */
export function useRecording(source: Ref<ReadRecording | null>) {
  const drawable = shallowRef<DrawableRecording | null>(null)
  const fault = shallowRef('')
  watch(
    source,
    async (r, old, onCleanup) => {
      if (r?.id !== old?.id) drawable.value = null
      fault.value = ''
      if (!r) return
      const cancel = new AbortController()
      onCleanup(() => cancel.abort())
      try {
        const response = await reach(`${apiBase}/recordings/${r.id}/channels`, { signal: cancel.signal })
        const all = new Float32Array(await response.arrayBuffer())
        const of = (end: End) => {
          const i = r.ends.indexOf(end)
          return i < 0 ? undefined : all.subarray(i * r.samples, (i + 1) * r.samples)
        }
        drawable.value = drawableOf(r, { front: of('front'), rear: of('rear') })
      } catch (e) {
        if (!cancel.signal.aborted) fault.value = e instanceof Error ? e.message : String(e)
      }
    },
    { immediate: true },
  )
  return { drawable, fault }
}
