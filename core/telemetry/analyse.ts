import type { End } from '#contract/common'
import type { Analysis, RecordingEvent, SpanMetrics, Spectrum } from '#contract/recording'
import type { SectionKind, TrailSection } from '#contract/trail'
import { handArmGain } from '../signal/handArm.ts'
import { bandRms, inBands, welch, welchSegment } from '../signal/spectrum.ts'
import { standardGravity } from '../units/convert.ts'
import { coreVersion } from '../version.ts'
import { contact } from './contact.ts'
import { findEvents } from './events.ts'
import type { CleanRecording } from './cleanRecording.ts'
import { loadedStretches } from './loads.ts'
import { endMetrics, ridingMean } from './metrics.ts'
import { endMotion, workspaceFor, type EndMotion } from './motion.ts'
import { edgePlaces } from './edgePlaces.ts'
import { placeSections, type Placing } from './sections.ts'
import { wheelbaseMatch } from './wheelbase.ts'

const mostEvents = 2000
const hardestHits = 20
const mostHitPoints = 400
/** Bands of the drawn spectrum: a tenth wider each, 0.25 to about 60 Hz. */
export const spectrumBands = { startHz: 0.25, ratio: 1.1, count: 58 } as const
const spectrumRateHz = 240
const brakingKinds: readonly SectionKind[] = ['braking-bumps', 'flat-turn']

/** Everything a recording says: figures for the whole run and per section, its events and spectra. */
export function analyse(
  recording: CleanRecording,
  sections: readonly TrailSection[],
  placing: Placing = {},
  onProgress: (share: number, doing: string) => void = () => {},
): Analysis {
  const rate = recording.sampleRateHz
  const work = workspaceFor(recording.samples)
  const motions = recording.ends.map((end, i) => {
    onProgress(0.9 + 0.03 * i, `Filtering ${end}`)
    return endMotion(recording, end, work)
  })
  onProgress(0.96, 'Counting hits')
  const { riding, flights } = contact(motions, recording.speedMS)
  const touchdowns = flights.map(([, end]) => end)
  const events = [...motions.flatMap(findEvents), ...motions.flatMap((m) => landings(m, touchdowns))]
  const strikes = motions.flatMap((m) => hardest(m))
  events.sort((a, b) => a.startS - b.startS)
  const placed = placeSections(recording, sections, placing)
  const motionOf = (end: End) => motions.find((m) => m.end === end)
  const [front, rear] = [motionOf('front'), motionOf('rear')]

  const isBraking = (sectionId: string) => {
    const kind = sections.find((s) => s.id === sectionId)?.kind
    return kind !== undefined && brakingKinds.includes(kind)
  }

  const endFigures = (startS: number, endS: number) => {
    const from = Math.max(0, Math.round(startS * rate))
    const to = Math.min(recording.samples, Math.round(endS * rate))
    const of = (m: EndMotion | undefined) => (m && to > from ? endMetrics(m, riding, events, from, to) : null)
    return { front: of(front), rear: of(rear) }
  }
  const brakingSections = placed.spans.filter((s) => isBraking(s.sectionId))
  /** Ride height outside the sections that are braked in; dive is held against it. */
  const unbraked = (m: EndMotion | undefined): number | null => {
    if (!m || brakingSections.length === 0) return null
    const outside = riding.slice()
    for (const s of brakingSections) outside.fill(0, Math.round(s.startS * rate), Math.round(s.endS * rate))
    return ridingMean(m.depthPct, outside, 0, recording.samples)
  }
  const outsideBraking = { front: unbraked(front), rear: unbraked(rear) }
  const durationS = recording.samples / rate
  const wholeEnds = endFigures(0, durationS)
  const stretches =
    wholeEnds.front && wholeEnds.rear
      ? loadedStretches(motions, {
          front: wholeEnds.front.rideHeightPct,
          rear: wholeEnds.rear.rideHeightPct,
        })
      : null
  const span = (sectionId: string | null, startS: number, endS: number): SpanMetrics => {
    const whole = sectionId === null
    const ends = whole ? wholeEnds : endFigures(startS, endS)
    const within = (s: { startS: number }) => s.startS >= startS && s.startS < endS
    if (sectionId !== null && isBraking(sectionId))
      for (const end of ['front', 'rear'] as const) {
        const m = ends[end]
        const height = outsideBraking[end]
        if (m) m.diveRisePct = height === null ? null : m.rideHeightPct - height
      }
    const match = front && rear ? wheelbaseMatch(front, rear, startS, endS) : null
    const ratio = (a?: number, b?: number) => (a !== undefined && b !== undefined && b > 0 ? a / b : null)
    return {
      sectionId,
      startS,
      endS,
      ...ends,
      balancePct: ends.front && ends.rear ? ends.front.rideHeightPct - ends.rear.rideHeightPct : null,
      airtimeS: motions.length === 2 ? airtime(flights, startS * rate, endS * rate) / rate : null,
      compressionSpeedRatio: ratio(ends.front?.compressionP95MmS, ends.rear?.compressionP95MmS),
      reboundSpeedRatio: ratio(ends.front?.reboundP95MmS, ends.rear?.reboundP95MmS),
      wheelbaseCorrelation: match?.correlation ?? null,
      wheelbaseLagS: match?.lagS ?? null,
      buzzMS2: buzz(recording, startS, endS),
      brakings: stretches ? stretches.brakings.filter(within).length : null,
      loadedTurns: stretches ? stretches.turns.filter(within).length : null,
      landings: motions.length === 2 ? touchdowns.filter((i) => within({ startS: i / rate })).length : null,
    }
  }
  const whole = span(null, 0, durationS)
  const sectionSpans = placed.spans.map((s) => span(s.sectionId, s.startS, s.endS))
  onProgress(0.975, 'Taking the spectrum')
  return {
    coreVersion,
    rearAt: recording.rearAt,
    whole,
    sections: sectionSpans,
    sectionsBy: placed.by,
    sectionsDoubt: placed.doubt,
    edgePlaces: edgePlaces(recording, sections, placed.spans),
    events: [...strikes, ...events].slice(0, mostEvents).sort((a, b) => a.startS - b.startS),
    spectra: { front: spectrum(front), rear: spectrum(rear) },
    hitPoints: { front: hitPoints(front), rear: hitPoints(rear) },
  }
}

/** Samples of flight between two samples. */
function airtime(flights: readonly (readonly [number, number])[], from: number, to: number): number {
  return flights.reduce((sum, [a, b]) => sum + Math.max(0, Math.min(b, to) - Math.max(a, from)), 0)
}

/** The hit after each touchdown. */
function landings(m: EndMotion, touchdowns: readonly number[]): RecordingEvent[] {
  return touchdowns.flatMap((at) => {
    const hit = m.hits.find((h) => h.peakIndex >= at)
    if (!hit || hit.peakIndex - at > 0.6 * m.sampleRateHz) return []
    const place = { startS: at / m.sampleRateHz, endS: hit.peakIndex / m.sampleRateHz }
    return [{ kind: 'landing' as const, end: m.end, ...place, value: hit.peakPct }]
  })
}

/** The hits of highest compression speed, to jump to. */
function hardest(m: EndMotion): RecordingEvent[] {
  return [...m.hits]
    .sort((a, b) => b.compressionMmS - a.compressionMmS)
    .slice(0, hardestHits)
    .map((h) => ({
      kind: 'hit' as const,
      end: m.end,
      startS: h.entryIndex / m.sampleRateHz,
      endS: h.valleyIndex / m.sampleRateHz,
      value: h.compressionMmS,
    }))
}

/** Hand-arm weighted RMS of the bar, m/s²; null without a bar sensor or in a stretch too short for its spectrum. */
function buzz(recording: CleanRecording, startS: number, endS: number): number | null {
  const { barG, sampleRateHz: rate } = recording
  if (!barG) return null
  const density = welch(
    barG.subarray(Math.round(startS * rate), Math.round(endS * rate)),
    rate,
    welchSegment(rate),
  )
  return density && standardGravity * bandRms(density, 1, rate / 2, handArmGain)
}

function spectrum(m: EndMotion | undefined): Spectrum | null {
  if (!m) return null
  // Behind the low-pass at 60 Hz every so-manieth sample will do: of what lies above half that rate, less than 0.1 % of the
  // power there comes down into the bands.
  const every = Math.max(1, Math.floor(m.sampleRateHz / spectrumRateHz))
  const rate = m.sampleRateHz / every
  const thinned = every > 1 ? everyOf(m.depthPct, every) : m.depthPct
  const density = welch(thinned, rate, welchSegment(rate))
  if (!density) return null
  const { startHz, ratio, count } = spectrumBands
  return { startHz, ratio, density: inBands(density, startHz, ratio, count) }
}

function everyOf(x: Float64Array, every: number): Float64Array {
  const out = new Float64Array(Math.ceil(x.length / every))
  for (let i = 0; i < out.length; i++) out[i] = x[i * every]
  return out
}

/** Peak depth and peak rebound speed of each hit, evenly thinned. */
function hitPoints(m: EndMotion | undefined): [number, number][] {
  if (!m) return []
  const every = Math.max(1, Math.ceil(m.hits.length / mostHitPoints))
  return m.hits.filter((_, i) => i % every === 0).map((h) => [h.peakPct, h.reboundMmS])
}
