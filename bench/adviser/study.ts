import { stepsOf } from '#core/adviser/candidates'
import { testRider, type Family, type TestRider } from './riders.ts'
import { strategies, type StrategyName } from './strategies.ts'

export interface StudyRow {
  strategy: StrategyName
  sensors: boolean
  mumbles: boolean
  riders: number
  /** Runs until it said settled; those that never did count as more than all. */
  settleMedian: number | null
  settleP90: number | null
  settledShare: number
  /** Runs until what it would keep is within half a point of the best, and stays so to the end. */
  reachMedian: number | null
  reachP90: number | null
  /** Mean rating points that what it would keep loses, after so many runs. */
  regretAfter: Record<8 | 12 | 20 | 30, number>
  /** Share of "settled" that were wrong: more than what the rider would notice was left. */
  falseSettled: number
  /** Share of "settled" after which one adjuster alone, within what one change may do, would have gained that much. */
  oneChangeLeft: number
}

export const mostRuns = 40
const checkpoints = [8, 12, 20, 30] as const
const reached = 0.5

/** How one strategy does with riders drawn from consecutive seeds, families taken in turn. */
export function study(
  strategy: StrategyName,
  riders: { firstSeed: number; count: number; families: Family[] },
  sensors: boolean,
  mumbles = false,
): StudyRow {
  const settle: number[] = []
  const reach: number[] = []
  const regret: Record<number, number[]> = { 8: [], 12: [], 20: [], 30: [] }
  let settled = 0
  let wrong = 0
  let oneLeft = 0
  for (let i = 0; i < riders.count; i++) {
    const seed = riders.firstSeed + i
    const rider = testRider(seed, { family: riders.families[i % riders.families.length], sensors, mumbles })
    const way = strategies[strategy](rider, seed)
    let ride = rider.start
    let stopped: number | null = null
    const losses: number[] = []
    for (let run = 1; run <= mostRuns; run++) {
      const step = way.next(rider.ride(ride, run))
      losses.push(rider.lossAt(way.keep()))
      ride = step.ride
      if (step.settled) {
        stopped = run
        break
      }
    }
    const lossAfter = (n: number) => losses[Math.min(n, losses.length) - 1]
    for (const n of checkpoints) regret[n].push(lossAfter(n))
    settle.push(stopped ?? Infinity)
    const lastBad = losses.findLastIndex((x) => x > reached)
    reach.push(lastBad === losses.length - 1 ? Infinity : lastBad + 2)
    if (stopped !== null) {
      settled++
      const noticed = Math.max(reached, rider.ratingSd)
      if (lossAfter(stopped) > noticed) wrong++
      if (bestSingleGain(rider, ride) > noticed) oneLeft++
    }
  }
  const mean = (x: number[]) => x.reduce((s, v) => s + v, 0) / x.length
  return {
    strategy,
    sensors,
    mumbles,
    riders: riders.count,
    settleMedian: quantile(settle, 0.5),
    settleP90: quantile(settle, 0.9),
    settledShare: settled / riders.count,
    reachMedian: quantile(reach, 0.5),
    reachP90: quantile(reach, 0.9),
    regretAfter: { 8: mean(regret[8]), 12: mean(regret[12]), 20: mean(regret[20]), 30: mean(regret[30]) },
    falseSettled: settled > 0 ? wrong / settled : 0,
    oneChangeLeft: settled > 0 ? oneLeft / settled : 0,
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
