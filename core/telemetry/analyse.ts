import type { Analysis, SectionSpan, SpanMetrics } from '#contract/recording'
import type { TrailSection } from '#contract/trail'
import { coreVersion } from '../version.ts'
import { contact } from './contact.ts'
import { findEvents } from './events.ts'
import type { CleanRecording } from './ingest.ts'
import { endMetrics } from './metrics.ts'
import { endMotion } from './motion.ts'
import { placeSections } from './sections.ts'

const mostEvents = 2000

/** Everything a recording says: figures for the whole run and per section, and its events. */
export function analyse(
  recording: CleanRecording,
  sections: readonly TrailSection[],
  marks: readonly SectionSpan[] = [],
  onProgress: (share: number, doing: string) => void = () => {},
): Analysis {
  const rate = recording.sampleRateHz
  const motions = recording.ends.map((end, i) => {
    onProgress(0.9 + 0.04 * i, `Filtering ${end}`)
    return endMotion(recording, end)
  })
  onProgress(0.97, 'Counting hits')
  const events = motions.flatMap(findEvents).sort((a, b) => a.startS - b.startS)
  const { riding, airtimeS } = contact(motions, recording.speedMS)
  const placed = placeSections(recording, sections, marks)

  const span = (sectionId: string | null, startS: number, endS: number): SpanMetrics => {
    const from = Math.max(0, Math.round(startS * rate))
    const to = Math.min(recording.samples, Math.round(endS * rate))
    const of = (end: 'front' | 'rear') => {
      const m = motions.find((x) => x.end === end)
      return m && to > from ? endMetrics(m, riding, events, from, to) : null
    }
    const front = of('front')
    const rear = of('rear')
    return {
      sectionId,
      startS,
      endS,
      front,
      rear,
      balancePct: front && rear ? front.rideHeightPct - rear.rideHeightPct : null,
      airtimeS: sectionId === null && motions.length === 2 ? airtimeS : null,
    }
  }
  return {
    coreVersion,
    rearAt: recording.rearAt,
    whole: span(null, 0, recording.samples / rate),
    sections: placed.spans.map((s) => span(s.sectionId, s.startS, s.endS)),
    sectionsBy: placed.by,
    events: events.slice(0, mostEvents),
  }
}
