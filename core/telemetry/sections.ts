import type { SectionSpan } from '#contract/recording'
import type { TrailSection } from '#contract/trail'
import type { CleanRecording } from './cleanRecording.ts'

export interface PlacedSections {
  spans: SectionSpan[]
  by: 'distance' | 'marks' | 'share-of-length'
}

/**
 * Where the named sections lie in a recording: by the person's marks, else by measured distance, else by each
 * section's share of the trail's length, which is only a guess and says so.
 */
export function placeSections(
  recording: CleanRecording,
  sections: readonly TrailSection[],
  marks: readonly SectionSpan[],
): PlacedSections {
  const durationS = recording.samples / recording.sampleRateHz
  if (marks.length > 0) {
    const spans = marks
      .map((m) => ({ ...m, endS: Math.min(m.endS, durationS) }))
      .filter((m) => m.endS > m.startS)
    return { spans, by: 'marks' }
  }
  const distance = recording.distanceM ?? integrate(recording.speedMS, recording.sampleRateHz)
  const total = sections.reduce((s, x) => s + x.lengthM, 0)
  const timeAt =
    distance && ridden(distance) > 0
      ? (share: number) => timeAtShare(distance, recording.sampleRateHz, share)
      : null
  let done = 0
  const spans = sections.map((s) => {
    const a = done / total
    done += s.lengthM
    const b = done / total
    return {
      sectionId: s.id,
      startS: timeAt ? timeAt(a) : a * durationS,
      endS: timeAt ? timeAt(b) : b * durationS,
    }
  })
  return { spans: spans.filter((s) => s.endS > s.startS), by: timeAt ? 'distance' : 'share-of-length' }
}

function integrate(speedMS: Float64Array | null, rate: number): Float64Array | null {
  if (!speedMS) return null
  const out = new Float64Array(speedMS.length)
  for (let i = 1; i < out.length; i++)
    out[i] = out[i - 1] + (Number.isFinite(speedMS[i]) ? speedMS[i] / rate : 0)
  return out
}

/** Distance between the first and the last value that is there. */
function ridden(distance: Float64Array): number {
  const known = distance.filter(Number.isFinite)
  return known.length ? known[known.length - 1] - known[0] : 0
}

/** First time at which a share of the ridden distance is reached. */
function timeAtShare(distance: Float64Array, rate: number, share: number): number {
  let first = 0
  while (first < distance.length && !Number.isFinite(distance[first])) first++
  let last = distance.length - 1
  while (last > first && !Number.isFinite(distance[last])) last--
  const goal = distance[first] + share * (distance[last] - distance[first])
  if (share >= 1) return distance.length / rate
  let i = first
  while (i < last && !(distance[i] >= goal)) i++
  return i / rate
}
