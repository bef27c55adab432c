import { describe, expect, it } from 'vitest'
import { rideHeightTargets, spaceOf } from '../adviser/history.ts'
import { metricFindings } from '../causes/metricRules.ts'
import { springCauses } from '../causes/kinds.ts'
import { drillOf } from './drills.ts'
import { hiddenRider } from './hiddenRider.ts'
import { practiceBike, unitsOf } from './kit.ts'
import type { Positions } from './landscape.ts'
import { playOut } from './players/play.ts'
import { recordedRide } from './recorded.ts'
import { rideOf } from './ride.ts'

const riderOf = (key: string, seed: number) => hiddenRider(drillOf(key)!, seed)
const both = unitsOf(null)
const targets = rideHeightTargets(spaceOf([both.front, both.rear], practiceBike), 'axle')
const whole = (rider: ReturnType<typeof riderOf>, p: Positions, run = 1) =>
  recordedRide(rider, p, run).analysis!.whole
/** Where this rider wants everything. */
const right = (rider: ReturnType<typeof riderOf>): Positions => {
  const likes = rider.likesAt(1)
  return Object.fromEntries(likes.dials.map((d, k) => [d.adjuster.id, d.fromClicks(likes.best[k])]))
}
const blamed = (rider: ReturnType<typeof riderOf>, p: Positions, run = 1) =>
  metricFindings(recordedRide(rider, p, run).analysis!, targets).filter((f) => f.weight > 0)

describe('what sensors keep of a ride of practice', () => {
  it('is the ride that went by: as deep on average and at its deepest, read back from its file', () => {
    const rider = riderOf('few-dials', 3)
    const course = rideOf(rider, rider.start, 1)
    const kept = whole(rider, rider.start)
    for (const end of ['front', 'rear'] as const) {
      const depths = course.depthPct[end]
      // The low-pass before every figure takes the tip off a peak.
      expect(Math.abs(kept[end]!.depthMaxPct - Math.max(...depths))).toBeLessThan(1.5)
      // Flight is no ride height: the mean of all lies a little lower.
      const mean = depths.reduce((s, x) => s + x, 0) / depths.length
      expect(kept[end]!.rideHeightPct - mean).toBeGreaterThan(-0.5)
      expect(kept[end]!.rideHeightPct - mean).toBeLessThan(3)
    }
  })

  it('is the same for the same run, and another for the next', () => {
    const rider = riderOf('kicks', 4)
    const [a, again, next] = [1, 1, 2].map((n) => recordedRide(rider, rider.start, n).analysis)
    expect(again).toEqual(a)
    expect(next).not.toEqual(a)
  })

  it.each(['front', 'rear'] as const)(
    'never clears a rebound that is four clicks off at the %s: that nothing packs down says little',
    (end) => {
      const rider = riderOf('few-dials', 6)
      const dial = rider.dials.find((d) => d.end === end && d.adjuster.role === 'rebound')!
      const suits = right(rider)
      for (const [off, kind] of [
        [-4, 'rebound-slow'],
        [4, 'rebound-fast'],
      ] as const) {
        const at = dial.fromClicks(dial.toClicks(suits[dial.adjuster.id]) + off)
        const figures = recordedRide(rider, { ...suits, [dial.adjuster.id]: at }, 1).analysis!
        const said = metricFindings(figures, targets).filter((f) => f.end === end && f.kind === kind)
        expect(
          said.reduce((t, f) => t + f.weight, 0),
          kind,
        ).toBeGreaterThan(-0.3)
      }
    },
  )

  it('blames no spring on a bike that suits its rider, whoever rides', () => {
    for (const [key, seed] of [
      ['kicks', 5],
      ['few-dials', 6],
      ['made-firmer', 7],
      ['dives', 8],
    ] as const) {
      const rider = riderOf(key, seed)
      const kinds = blamed(rider, right(rider))
        .filter((f) => f.topic.startsWith('ride height'))
        .map((f) => f.kind)
      expect(kinds, key).toEqual([])
    }
  })

  it('shows a spring that is far too soft or too firm, at its end and not at the other', () => {
    const rider = riderOf('kicks', 5)
    const place = right(rider)
    const springs = (psi: number) =>
      blamed(rider, { ...place, rp: place.rp + psi })
        .filter((f) => f.topic.startsWith('ride height') && springCauses.includes(f.kind))
        .map((f) => `${f.end} ${f.kind}`)
    expect(springs(-50)).toEqual(['rear spring-soft'])
    expect(springs(60)).toEqual(['rear spring-firm'])
  })

  it('sinks with a sensor that creeps, by what it creeps a run, at that end only; speeds know nothing of it', () => {
    const rider = riderOf('creeping-sensor', 2)
    const sound = hiddenRider({ ...drillOf('creeping-sensor')!, creeps: undefined }, 2)
    const [told, sure] = [rider, sound].map((r) => whole(r, r.start, 4))
    expect(told.front!.rideHeightPct - sure.front!.rideHeightPct).toBeCloseTo(12, 0)
    // A front that never looks extended never looks like flight: what counts as riding is a little longer.
    expect(Math.abs(told.rear!.rideHeightPct - sure.rear!.rideHeightPct)).toBeLessThan(0.5)
    expect(told.front!.reboundP95MmS / sure.front!.reboundP95MmS).toBeCloseTo(1, 2)
  })

  it('is looked at by those who want it, every ride of theirs and no other’s', () => {
    const rider = riderOf('few-dials', 2)
    const seen = (sensors: boolean) => {
      const runs: string[][] = []
      playOut(
        rider,
        {
          sensors,
          act: ({ bundle }) => {
            runs.push(bundle.recordings.map((r) => r.runId))
            return bundle.runs.length < 2 ? 'ride' : { do: 'settle' }
          },
        },
        3,
      )
      return runs
    }
    expect(seen(true)).toEqual([['practice-run-1'], ['practice-run-1', 'practice-run-2']])
    expect(seen(false)).toEqual([[], []])
  })
})
