import { describe, expect, it } from 'vitest'
import type { TrailGate, TrailSection } from '#contract/trail'
import { approach, hairpinTrail, rideTrack, type RiddenTrack } from '../../test/track.ts'
import { recordingOf } from '../../test/synthetic.ts'
import type { CleanRecording } from '../cleanRecording.ts'
import { layWay } from '../layWay.ts'
import { placeSections } from '../sections.ts'

const lengthOf = (legs: readonly { lengthM: number }[]) => legs.reduce((s, l) => s + l.lengthM, 0)
const totalM = lengthOf(hairpinTrail)
const trailOf = (lengths: readonly (number | null)[]): TrailSection[] =>
  lengths.map((lengthM, i) => ({ id: `s${i}`, name: `Part ${i + 1}`, kind: 'roots', lengthM, severity: 1 }))
const ridden = (legs: Parameters<typeof rideTrack>[0], seed = 1) =>
  rideTrack(legs, { rateHz: 10, wanderM: 1, wander: 'slow', standS: 30, seed })
function recorded(track: RiddenTrack): CleanRecording {
  const durationS = track.fixes[track.fixes.length - 1].timeS
  const r = recordingOf((t) => 25 + 5 * Math.sin(9 * t), null, { durationS, sampleRateHz: 50 })
  layWay(r, track.fixes, 0)
  return r
}
function alongAt(track: RiddenTrack, s: number): number {
  const i = track.fixes.findIndex((f) => f.timeS >= s)
  return track.alongM[i < 0 ? track.alongM.length - 1 : i]
}

describe('a trail of which nobody has said how long it is', () => {
  it('as one section is all that was ridden, and nothing is wrong with that', () => {
    for (const legs of [hairpinTrail, [...approach, ...hairpinTrail, ...hairpinTrail]]) {
      const track = ridden(legs)
      const placed = placeSections(recorded(track), trailOf([null]))
      expect(placed).toMatchObject({ by: 'distance', doubt: null })
      expect(placed.spans).toHaveLength(1)
      expect(alongAt(track, placed.spans[0].startS)).toBeLessThan(5)
      expect(alongAt(track, placed.spans[0].endS)).toBeGreaterThan(lengthOf(legs) - 5)
    }
  })
  it('the one part without a length gets what the others leave, and is said to be unsure', () => {
    const track = ridden(hairpinTrail)
    const placed = placeSections(recorded(track), trailOf([150, null, 300]))
    const edges = [...placed.spans.map((s) => s.startS), placed.spans[2].endS].map((s) => alongAt(track, s))
    const true3 = [0, 150, totalM - 300, totalM]
    for (const [i, m] of edges.entries()) expect(Math.abs(m - true3[i])).toBeLessThan(0.03 * totalM)
    expect(placed.doubt).toMatch(/Nobody has said how long “Part 2” is/)
  })
  it('is never told to be of a length, whatever is ridden', () => {
    for (const lengths of [
      [null, null],
      [150, null],
      [null, null, 300],
    ]) {
      const { doubt, spans } = placeSections(recorded(ridden(hairpinTrail)), trailOf(lengths))
      expect(doubt).not.toMatch(/the trail is \d/)
      expect(spans).toHaveLength(lengths.length)
    }
  })
  it('whose parts said are longer than the ride still has all of its parts, in order', () => {
    const { spans } = placeSections(recorded(ridden(hairpinTrail)), trailOf([totalM, null, 200]))
    expect(spans).toHaveLength(3)
    for (const s of spans) expect(s.endS).toBeGreaterThan(s.startS)
  })
})

describe('places of a trail without lengths', () => {
  const edgesM = [0, 150, 250, 365, 560, 700, totalM]
  const unsaid = trailOf(edgesM.slice(1).map(() => null))
  const gatesOf = (track: RiddenTrack, fromM: number, edges: readonly number[]): TrailGate[] =>
    edges.map((m, i) => ({
      at: i === edges.length - 1 ? 'finish' : `s${i}`,
      ...track.placeAt(fromM + m),
    }))
  it('are passed as they lie, hairpins and an approach included', () => {
    for (let seed = 50; seed < 58; seed++) {
      const track = ridden([...approach, ...hairpinTrail], seed)
      const fromM = lengthOf(approach)
      const placed = placeSections(recorded(track), unsaid, { gates: gatesOf(track, fromM, edgesM) })
      expect(placed).toMatchObject({ by: 'places', doubt: null })
      const edges = [...placed.spans.map((s) => s.startS), placed.spans.at(-1)!.endS]
      for (const [i, s] of edges.entries())
        expect(Math.abs(alongAt(track, s) - fromM - edgesM[i])).toBeLessThan(8)
    }
  })
  it('the line and the end of a long trail as one section are both found', () => {
    const long = hairpinTrail.map((leg) => ({ ...leg, lengthM: 3 * leg.lengthM }))
    const track = ridden([...approach, ...long])
    const gates = gatesOf(track, lengthOf(approach), [0, lengthOf(long)])
    const { spans, doubt, by } = placeSections(recorded(track), trailOf([null]), { gates })
    expect({ by, doubt }).toEqual({ by: 'places', doubt: null })
    expect(Math.abs(alongAt(track, spans[0].startS) - lengthOf(approach))).toBeLessThan(8)
    expect(Math.abs(alongAt(track, spans[0].endS) - lengthOf(approach) - lengthOf(long))).toBeLessThan(8)
  })
})
