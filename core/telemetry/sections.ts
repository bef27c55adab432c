import type { SectionSpan } from '#contract/recording'
import type { TrailGate, TrailSection } from '#contract/trail'
import type { CleanRecording } from './cleanRecording.ts'
import { gateRules, passGates } from './gates.ts'
import { isLengthSaid, layoutLengthM, layoutLengthsM } from './sectionLength.ts'
import { filled, integrated } from './wayCourse.ts'

export interface PlacedSections {
  spans: SectionSpan[]
  by: 'distance' | 'marks' | 'share-of-length' | 'places'
  /** What makes the edges unsure, as a sentence; null when nothing does. */
  doubt: string | null
}

/** What a person and the trail say of where sections lie. */
export interface Placing {
  /** Set by hand, section by section. */
  marks?: readonly SectionSpan[]
  /** When the trail begins in this recording, s. */
  lineS?: number | null
  gates?: readonly TrailGate[]
}

/** Way ridden and length of the trail may differ so much before it is told. */
const toldDifference = 0.1

/**
 * Where the named sections lie in a recording: by the person's marks; else in metres from the line that somebody marked;
 * else by places on the ground that the trail knows; else over the whole way ridden; else by each section's share of the
 * trail's length, which is only a guess and says so. Standing about adds no metres.
 */
export function placeSections(
  recording: CleanRecording,
  sections: readonly TrailSection[],
  { marks = [], lineS = null, gates = [] }: Placing = {},
): PlacedSections {
  const durationS = recording.samples / recording.sampleRateHz
  if (marks.length > 0) {
    const spans = marks
      .map((m) => ({ ...m, endS: Math.min(m.endS, durationS) }))
      .filter((m) => m.endS > m.startS)
    return { spans, by: 'marks', doubt: null }
  }
  // What somebody said of this recording stands above what the trail knows.
  const byPlaces = lineS === null && gates.length > 0 ? placeByGates(recording, sections, gates) : null
  if (byPlaces) return byPlaces
  const { distanceM, speedMS, sampleRateHz } = recording
  const distance = distanceM ?? (speedMS && integrated(speedMS, sampleRateHz))
  const clock = distance && wayClock(distance, recording.sampleRateHz)
  if (!clock || !(clock.endM > clock.startM)) {
    const startS = lineS ?? 0
    const ends = edgesOf(sections.map(layoutLengthM))
    const edges = ends.map((m) => startS + (m / ends[sections.length]) * (durationS - startS))
    return { spans: spansOf(sections, edges), by: 'share-of-length', doubt: null }
  }
  const fromM = lineS === null ? clock.startM : clock.wayAt(lineS)
  const riddenM = clock.endM - fromM
  if (!(riddenM > 0))
    return {
      spans: [],
      by: 'distance',
      doubt: 'The line lies where the ride has ended; say again where the trail begins in this recording.',
    }
  const ends = edgesOf(layoutLengthsM(sections, riddenM))
  const lengthM = ends[sections.length]
  const off = riddenM / lengthM - 1
  // From a line on, metres are metres: what was ridden past the trail is cut off. Without one they can only be shared out.
  const scale = lineS !== null && off > toldDifference ? 1 : riddenM / lengthM
  const edges = ends.map((m) => clock.timeAt(fromM + m * scale))
  // Standing at either end is no part of the trail.
  edges[0] = lineS ?? clock.startS
  if (scale !== 1) edges[edges.length - 1] = clock.endS
  return {
    spans: spansOf(sections, edges),
    by: 'distance',
    doubt: doubtOf(sections, riddenM, lineS !== null),
  }
}

/** Sentence for a way that is not as long as its trail, or a trail of which nobody knows how long it is. */
function doubtOf(sections: readonly TrailSection[], riddenM: number, fromLine: boolean): string | null {
  const unsaid = sections.filter((s) => !isLengthSaid(s))
  // One section is all that was ridden, however long.
  if (unsaid.length > 0 && sections.length === 1) return null
  const lengthM = sections.reduce((t, s) => t + layoutLengthM(s), 0)
  if (unsaid.length > 0)
    return `Nobody has said how long ${unsaid.map((s) => `“${s.name}”`).join(', ')} ${unsaid.length === 1 ? 'is' : 'are'}, so the sections were laid out by what is usual: place them in this recording, or say how long they are.`
  if (Math.abs(riddenM / lengthM - 1) <= toldDifference) return null
  const [ridden, length] = [riddenM, lengthM].map(Math.round)
  if (!fromLine)
    return `${ridden} m were ridden and the trail is ${length} m long, so its sections may lie elsewhere: say where the trail begins in this recording, or correct the lengths.`
  return ridden > length
    ? `${ridden} m were ridden from the line on and the trail is ${length} m long; what lies beyond was left out. Check the lengths if the trail goes on.`
    : `Only ${ridden} m were ridden from the line on and the trail is ${length} m long, so its sections were laid closer together; check the lengths.`
}

/** Metres along the trail at which its sections begin, and at which the last one ends. */
function edgesOf(lengthsM: readonly number[]): number[] {
  const edges = [0]
  for (const m of lengthsM) edges.push(edges[edges.length - 1] + m)
  return edges
}

const spansOf = (sections: readonly TrailSection[], edgesS: readonly number[]): SectionSpan[] =>
  sections
    .map((s, i) => ({ sectionId: s.id, startS: edgesS[i], endS: edgesS[i + 1] }))
    .filter((s) => s.endS > s.startS)

/** By the places of the trail; edges between two that were passed lie in metres between them. null when none was passed. */
function placeByGates(
  recording: CleanRecording,
  sections: readonly TrailSection[],
  gates: readonly TrailGate[],
): PlacedSections | null {
  if (!recording.way) return null
  const { track, offsetS } = recording.way
  const passed = passGates(track, sections, gates)
  const edgeGates = gates.filter((g) => g.at === 'finish' || sections.some((s) => s.id === g.at)).length
  const known = passed.flatMap((p, edge) => (p ? [{ ...p, edge }] : []))
  if (known.length === 0) return null
  const lengths = edgesOf(sections.map(layoutLengthM))
  const durationS = recording.samples / recording.sampleRateHz
  const wayAtEdge = lengths.map((m, edge) => {
    const a = known.findLast((k) => k.edge <= edge)
    const b = known.find((k) => k.edge >= edge)
    if (a && b)
      return a.edge === b.edge
        ? a.wayM
        : a.wayM + ((b.wayM - a.wayM) * (m - lengths[a.edge])) / (lengths[b.edge] - lengths[a.edge])
    // Before the first and after the last, metres are metres.
    const one = (a ?? b)!
    return one.wayM + m - lengths[one.edge]
  })
  const timeAt = (wayM: number) => {
    let i = 0
    while (i < track.wayM.length - 1 && track.wayM[i + 1] < wayM) i++
    const step = track.wayM[i + 1] - track.wayM[i]
    const part = step > 0 ? Math.min(1, Math.max(0, (wayM - track.wayM[i]) / step)) : 0
    return track.timeS[i] + part * (track.timeS[Math.min(i + 1, track.timeS.length - 1)] - track.timeS[i])
  }
  const edgesS = wayAtEdge.map((wayM, edge) => {
    const own = known.find((k) => k.edge === edge)
    const at = offsetS + (own ? own.timeS : timeAt(wayM))
    return Math.min(durationS, Math.max(0, at))
  })
  const missed = edgeGates - known.length
  const far = known.filter((k) => k.missM > gateRules.surelyM).length
  const doubt =
    missed + far > 0
      ? `${missed + far} of ${edgeGates} places of the trail were not passed within ${gateRules.surelyM} m; the sections there are laid by metres and may be off.`
      : null
  return { spans: spansOf(sections, edgesS), by: 'places', doubt }
}

/** Riding begins where so many metres are ridden in so many seconds, at the last moment slower than a walk before it. */
const setOff = { seconds: 10, metres: 20, walkMS: 1 } as const

/**
 * Distance and time of a ride, both ways, from setting off to arriving: what a standing bike's receiver wanders is left
 * out at either end. Gaps of the distance are crossed by its last value. null without any distance.
 */
function wayClock(distance: Float64Array, rate: number) {
  const known = filled(distance)
  if (!known) return null
  const last = known.length - 1
  const second = Math.max(1, Math.round(rate))
  /** First sample of riding, looking from one end. @param at the distance from there, in samples */
  const riding = (at: (i: number) => number): number => {
    const ahead = setOff.seconds * second
    for (let i = 0; i + ahead <= last; i++) {
      if (at(i + ahead) - at(i) < setOff.metres) continue
      let k = i + ahead
      while (k > i && at(k) - at(Math.max(0, k - second)) >= setOff.walkMS) k--
      return k
    }
    return 0
  }
  const first = riding((i) => known[i])
  const end = last - riding((i) => known[last] - known[last - i])
  return {
    startS: first / rate,
    endS: (end === last ? known.length : end) / rate,
    startM: known[first],
    endM: known[end],
    timeAt(goalM: number): number {
      let i = first
      while (i < end && !(known[i] >= goalM)) i++
      return i / rate
    },
    wayAt: (atS: number): number => known[Math.min(last, Math.max(0, Math.round(atS * rate)))],
  }
}
