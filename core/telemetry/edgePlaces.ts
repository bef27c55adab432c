import type { SectionSpan } from '#contract/recording'
import type { TrailGate, TrailSection } from '#contract/trail'
import type { CleanRecording } from './cleanRecording.ts'

/** Where on the ground the sections of a recording begin and the last one ends; none without positions. */
export function edgePlaces(
  recording: CleanRecording,
  sections: readonly TrailSection[],
  spans: readonly SectionSpan[],
): TrailGate[] {
  if (!recording.way) return []
  const { track, offsetS } = recording.way
  const { timeS, eastM, northM } = track
  const placeAt = (atS: number) => {
    const t = atS - offsetS
    if (!(t >= timeS[0] && t <= timeS[timeS.length - 1])) return null
    let i = 0
    while (i < timeS.length - 2 && timeS[i + 1] < t) i++
    const part = (t - timeS[i]) / (timeS[i + 1] - timeS[i])
    const between = (x: Float64Array) => x[i] + part * (x[i + 1] - x[i])
    return track.toPlace(between(eastM), between(northM))
  }
  const gate = (at: TrailGate['at'], atS: number | undefined): TrailGate[] => {
    const place = atS === undefined ? null : placeAt(atS)
    return place ? [{ at, ...place }] : []
  }
  const spanOf = (id: string) => spans.find((s) => s.sectionId === id)
  return [
    ...sections.flatMap((s) => gate(s.id, spanOf(s.id)?.startS)),
    ...gate('finish', spanOf(sections[sections.length - 1]?.id ?? '')?.endS),
  ]
}
