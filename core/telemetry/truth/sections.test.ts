import { describe, expect, it } from 'vitest'
import type { TrailGate, TrailSection } from '#contract/trail'
import { approach, hairpinTrail, rideTrack, type RiddenTrack } from '../../test/track.ts'
import { recordingOf } from '../../test/synthetic.ts'
import { analyse } from '../analyse.ts'
import type { CleanRecording } from '../cleanRecording.ts'
import { layWay } from '../layWay.ts'
import { placeSections } from '../sections.ts'

const totalM = hairpinTrail.reduce((s, l) => s + l.lengthM, 0)
const approachM = approach.reduce((s, l) => s + l.lengthM, 0)
/** Six sections of unlike length; edges fall on straights, into hairpins and beside their other arm. */
const edgesM = [0, 150, 250, 365, 560, 700, totalM]
const sections: TrailSection[] = edgesM.slice(1).map((end, i) => ({
  id: `s${i}`,
  name: `s${i}`,
  kind: 'roots',
  lengthM: end - edgesM[i],
  severity: 1,
}))
type How = Parameters<typeof rideTrack>[1]
const how = (change: Partial<How>): How => ({
  rateHz: 10,
  wanderM: 3,
  wander: 'slow',
  standS: 30,
  seed: 1,
  ...change,
})
/** A recording with that track under it. */
function recorded(track: RiddenTrack): CleanRecording {
  const durationS = track.fixes[track.fixes.length - 1].timeS
  const r = recordingOf((t) => 25 + 5 * Math.sin(9 * t), null, { durationS, sampleRateHz: 50 })
  layWay(r, track.fixes, 0)
  return r
}
/** Gates at the true places of the edges of a trail that begins so far along the track. */
const gatesOf = (track: RiddenTrack, fromM: number): TrailGate[] =>
  edgesM.map((m, i) => ({ at: sections[i]?.id ?? 'finish', ...track.placeAt(fromM + m) }))
/** How far each edge lies from the truth, m along the way. */
function missesM(track: RiddenTrack, fromM: number, spans: { startS: number; endS: number }[]): number[] {
  const alongAt = (s: number) => {
    let i = 0
    while (i < track.fixes.length - 1 && track.fixes[i].timeS < s) i++
    return track.alongM[i]
  }
  const edges = [...spans.map((s) => s.startS), spans[spans.length - 1].endS]
  return edges.map((s, i) => Math.abs(alongAt(s) - fromM - edgesM[i]))
}

describe.each(['slow', 'white'] as const)('a track whose receiver wanders by 3 m (%s)', (wander) => {
  const seeds = Array.from({ length: 8 }, (_, i) => 50 + i)
  it('finds its sections by places within 8 m, hairpins, standing and an approach of 300 m included', () => {
    const all: number[] = []
    for (const seed of seeds) {
      const track = rideTrack([...approach, ...hairpinTrail], how({ wander, seed }))
      const placed = placeSections(recorded(track), sections, { gates: gatesOf(track, approachM) })
      expect(placed.by).toBe('places')
      expect(placed.spans).toHaveLength(sections.length)
      const misses = missesM(track, approachM, placed.spans)
      if (placed.doubt === null) all.push(...misses)
    }
    expect(all.length).toBeGreaterThan(0.7 * seeds.length * edgesM.length)
    expect(Math.max(...all)).toBeLessThan(8)
  })
  it('the start line alone is enough for metres from it on, or says that they are unsure', () => {
    for (const seed of seeds) {
      const track = rideTrack([...approach, ...hairpinTrail], how({ wander, seed }))
      const startOnly = gatesOf(track, approachM).slice(0, 1)
      const placed = placeSections(recorded(track), sections, { gates: startOnly })
      const misses = missesM(track, approachM, placed.spans)
      expect(misses[0]).toBeLessThan(8)
      // What a receiver wanders makes the way longer by some per cent: metres from one line drift apart.
      for (const [i, miss] of misses.entries()) expect(miss).toBeLessThan(8 + 0.05 * edgesM[i])
    }
  })
  it('a ride with more way than the trail and no line is told to be unsure', () => {
    const track = rideTrack([...approach, ...hairpinTrail], how({ wander }))
    expect(placeSections(recorded(track), sections).doubt).toMatch(
      /were ridden and the trail is 9\d\d m long/,
    )
  })
  it('standing at both ends is no way: without an approach it is placed within some metres by the whole of it', () => {
    for (const seed of seeds) {
      const track = rideTrack(hairpinTrail, how({ wander, seed }))
      const placed = placeSections(recorded(track), sections)
      expect(placed.by).toBe('distance')
      expect(placed.doubt).toBeNull()
      for (const miss of missesM(track, 0, placed.spans)) expect(miss).toBeLessThan(25)
      // The first section begins when the bike leaves, not with the recording.
      expect(placed.spans[0].startS).toBeGreaterThan(15)
    }
  })
})

describe('a line that somebody marks', () => {
  const track = rideTrack([...approach, ...hairpinTrail], how({ wanderM: 1 }))
  const r = recorded(track)
  const lineS = track.fixes[track.alongM.findIndex((m) => m >= approachM)].timeS
  it('cuts off what was ridden before', () => {
    const placed = placeSections(r, sections, { lineS })
    expect(placed).toMatchObject({ by: 'distance', doubt: null })
    expect(placed.spans[0].startS).toBeCloseTo(lineS, 1)
    for (const miss of missesM(track, approachM, placed.spans)) expect(miss).toBeLessThan(12)
  })
  it('and what was ridden beyond, and says so', () => {
    const further = rideTrack([...approach, ...hairpinTrail, ...approach], how({ wanderM: 1 }))
    const placed = placeSections(recorded(further), sections, { lineS })
    expect(placed.doubt).toContain('what lies beyond was left out')
    for (const [i, miss] of missesM(further, approachM, placed.spans).entries())
      expect(miss).toBeLessThan(8 + 0.03 * edgesM[i])
  })
  it('stands above the places that the trail knows: it was said of this recording', () => {
    const wrong = gatesOf(track, approachM - 150)
    const placed = placeSections(r, sections, { lineS, gates: wrong })
    expect(placed.by).toBe('distance')
    expect(placed.spans[0].startS).toBeCloseTo(lineS, 1)
  })
  it('behind the end of the ride places nothing, and says so', () => {
    const endS = track.fixes[track.fixes.length - 1].timeS
    const placed = placeSections(r, sections, { lineS: endS })
    expect(placed.spans).toEqual([])
    expect(placed.doubt).toContain('where the ride has ended')
  })
  it('a trail that was not ridden to its end is told', () => {
    const short = sections.map((s) => ({ ...s, lengthM: 1.4 * s.lengthM! }))
    expect(placeSections(r, short, { lineS }).doubt).toMatch(/Only \d+ m were ridden/)
  })
})

describe('places of the trail', () => {
  const first = rideTrack(hairpinTrail, how({ wanderM: 1, seed: 7 }))
  const marks = sections.map((s, i) => {
    const at = (m: number) => first.fixes[first.alongM.findIndex((x) => x >= Math.min(m, totalM - 0.5))].timeS
    return { sectionId: s.id, startS: at(edgesM[i]), endS: at(edgesM[i + 1]) }
  })
  const kept = analyse(recorded(first), sections, { marks }).edgePlaces
  it('come from a run whose sections somebody placed, and find those of the next', () => {
    expect(kept.map((g) => g.at)).toEqual([...sections.map((s) => s.id), 'finish'])
    const second = rideTrack([...approach, ...hairpinTrail], how({ wanderM: 1, seed: 8, pace: 0.8 }))
    // The approach leads to the same hill from elsewhere: its tracks begin at the same origin.
    const shifted = { ...second, fixes: second.fixes }
    const placed = placeSections(recorded(shifted), sections, { gates: gatesOf(second, approachM) })
    for (const miss of missesM(second, approachM, placed.spans)) expect(miss).toBeLessThan(5)
    const again = rideTrack(hairpinTrail, how({ wanderM: 1, seed: 9, pace: 0.7 }))
    const own = placeSections(recorded(again), sections, { gates: kept })
    expect(own.by).toBe('places')
    for (const miss of missesM(again, 0, own.spans)) expect(miss).toBeLessThan(6)
  })
  it('on another hill are passed by nobody: metres are used, and nothing is claimed by them', () => {
    const elsewhere = kept.map((g) => ({ ...g, latitudeDeg: g.latitudeDeg + 0.2 }))
    expect(placeSections(recorded(first), sections, { gates: elsewhere }).by).toBe('distance')
  })
  it('one of them moved aside is told, and the others stand', () => {
    const moved = kept.map((g, i) => (i === 3 ? { ...g, longitudeDeg: g.longitudeDeg + 0.0008 } : g))
    const placed = placeSections(recorded(first), sections, { gates: moved })
    expect(placed.doubt).toContain('1 of 7 places')
    for (const miss of missesM(first, 0, placed.spans)) expect(miss).toBeLessThan(10)
  })
  it('a recording without positions has none', () => {
    expect(
      analyse(
        recordingOf((t) => 25 + 5 * Math.sin(9 * t), null),
        sections,
      ).edgePlaces,
    ).toEqual([])
  })
})
