import { stepsOf } from '#core/adviser/candidates'
import type { Family } from './families.ts'
import { testRider, type TestRider } from './riders.ts'
import { strategies, type StrategyName } from './strategies.ts'
import type { Positions } from '#core/practice/landscape'
import type { Claims, Strategy } from './strategy.ts'

export interface StudyRow {
  strategy: StrategyName
  family: string
  riders: number
  /** Share that came within half a point of the best for good, and after how many runs; null: more than `mostRuns`. */
  reached: number
  reachMedian: number | null
  reachP90: number | null
  /** Mean rating points that what it would keep loses, after so many runs. */
  regretAfter: Record<8 | 12 | 20 | 30, number>
  settledShare: number
  settleMedian: number | null
  /** Share of "settled" that were wrong: more than what the rider would notice was left. */
  falseSettled: number
  /** Share of "settled" after which one adjuster alone, within what one change may do, would have gained that much. */
  oneChangeLeft: number
  /** Share of the 80 % brackets that hold the truth; null where it says none. */
  bracketsHold: number | null
  /** Largest difference of stated and true frequency over the bins with at least 30 statements. */
  changesOff: number | null
  doubtOff: number | null
}

export const mostRuns = 40
const checkpoints = [8, 12, 20, 30] as const
const reachedWithin = 0.5

/** How one strategy does with riders of a family, drawn from consecutive seeds. */
export function study(strategy: StrategyName, family: Family, firstSeed: number, count: number): StudyRow {
  const settle: number[] = []
  const reach: number[] = []
  const regret: Record<number, number[]> = { 8: [], 12: [], 20: [], 30: [] }
  const changes = new Calibration()
  const doubts = new Calibration()
  let [settled, wrong, oneLeft, brackets, held] = [0, 0, 0, 0, 0]
  for (let i = 0; i < count; i++) {
    const rider = testRider(firstSeed + i, family)
    const o = outcome(rider, strategies[strategy](rider, firstSeed + i), rider.start)
    for (const c of o.claims) {
      if (c.change) changes.add(c.change.better, rider.lossAt(c.change.to) < c.here)
      doubts.add(c.doubt, c.here > c.noticeable)
    }
    brackets += o.brackets
    held += o.held
    for (const n of checkpoints) regret[n].push(o.losses[Math.min(n, o.losses.length) - 1])
    settle.push(o.stopped ?? Infinity)
    reach.push(o.reachedAfter)
    if (o.stopped !== null) {
      settled++
      if (o.wrong) wrong++
      if (bestSingleGain(rider, o.ride) > noticedBy(rider)) oneLeft++
    }
  }
  const mean = (x: number[]) => x.reduce((s, v) => s + v, 0) / x.length
  return {
    strategy,
    family: family.name,
    riders: count,
    reached: reach.filter(Number.isFinite).length / count,
    reachMedian: quantile(reach, 0.5),
    reachP90: quantile(reach, 0.9),
    regretAfter: { 8: mean(regret[8]), 12: mean(regret[12]), 20: mean(regret[20]), 30: mean(regret[30]) },
    settledShare: settled / count,
    settleMedian: quantile(settle, 0.5),
    falseSettled: settled > 0 ? wrong / settled : 0,
    oneChangeLeft: settled > 0 ? oneLeft / settled : 0,
    bracketsHold: brackets > 0 ? held / brackets : null,
    changesOff: changes.worst(),
    doubtOff: doubts.worst(),
  }
}

/** A day of one rider with one strategy, held against the truth. */
export interface Outcome {
  /** Points that what it would keep loses, after each run. */
  losses: number[]
  /** The run at which it called itself settled; null: never. */
  stopped: number | null
  /** Settled although more was left than the rider would notice. */
  wrong: boolean
  /** Runs after which what it keeps stays within half a point of the best; Infinity: never. */
  reachedAfter: number
  /** What it rode last. */
  ride: Positions
  /** 80 % brackets said, and those that held the truth. */
  brackets: number
  held: number
  /** What it said after each run, with the points lost there. */
  claims: (Claims & { here: number })[]
}

const noticedBy = (rider: TestRider) => Math.max(reachedWithin, rider.ratingSd)

/** Rides a rider's day until the strategy settles, at most `mostRuns`. */
export function outcome(rider: TestRider, way: Strategy, start: Positions): Outcome {
  let ride = start
  const out: Outcome = {
    losses: [],
    stopped: null,
    wrong: false,
    reachedAfter: Infinity,
    ride,
    brackets: 0,
    held: 0,
    claims: [],
  }
  for (let run = 1; run <= mostRuns && out.stopped === null; run++) {
    const here = rider.lossAt(ride)
    const step = way.next(rider.ride(ride, run))
    out.losses.push(rider.lossAt(way.keep()))
    const claims = way.claims?.()
    if (claims) {
      out.claims.push({ ...claims, here })
      claims.brackets.forEach(({ low, high }, k) => {
        out.brackets++
        // A place between two clicks belongs to both.
        if (rider.best[k] >= low - 0.5 && rider.best[k] <= high + 0.5) out.held++
      })
    }
    ride = step.ride
    if (step.settled) out.stopped = run
  }
  out.ride = ride
  const lastBad = out.losses.findLastIndex((x) => x > reachedWithin)
  if (lastBad < out.losses.length - 1) out.reachedAfter = lastBad + 2
  out.wrong = out.stopped !== null && out.losses[out.losses.length - 1] > noticedBy(rider)
  return out
}

/** Stated chances against what was true, in ten bins. */
class Calibration {
  private readonly bins = Array.from({ length: 10 }, () => ({ n: 0, said: 0, true: 0 }))
  add(said: number, isTrue: boolean): void {
    const bin = this.bins[Math.min(9, Math.floor(said * 10))]
    bin.n++
    bin.said += said
    if (isTrue) bin.true++
  }
  worst(): number | null {
    const off = this.bins.filter((b) => b.n >= 30).map((b) => Math.abs(b.said - b.true) / b.n)
    return off.length > 0 ? Math.max(...off) : null
  }
}

function bestSingleGain(rider: TestRider, ride: Record<string, number>): number {
  const here = rider.lossAt(ride)
  const gains = rider.dials.flatMap((d) =>
    stepsOf(d, ride[d.adjuster.id]).map((to) => here - rider.lossAt({ ...ride, [d.adjuster.id]: to })),
  )
  return Math.max(0, ...gains)
}

function quantile(values: number[], p: number): number | null {
  const sorted = [...values].sort((a, b) => a - b)
  const x = sorted[Math.min(sorted.length - 1, Math.ceil(p * sorted.length) - 1)]
  return Number.isFinite(x) ? x : null
}
