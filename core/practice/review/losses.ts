import { practiceDay, type PracticeAct } from '../day.ts'
import type { HiddenRider } from '../hiddenRider.ts'

/** Rating points lost at each run, and with what was left on the bike. */
export function lossesOf(rider: HiddenRider, acts: readonly PracticeAct[]): { runs: number[]; left: number } {
  const day = practiceDay(rider, acts)
  return {
    runs: day.runs.map((r) => rider.lossAt(r.positions, r.number)),
    left: rider.lossAt(day.positions, Math.max(1, day.runs.length)),
  }
}

/**
 * Rating points lost over a day of so many runs, the sum. Who stopped earlier rides on what was left on the bike: to stop
 * too soon costs as much as to search on.
 */
export function lostInAll(rider: HiddenRider, acts: readonly PracticeAct[], runs: number): number {
  const day = practiceDay(rider, acts)
  let sum = 0
  for (let n = 1; n <= runs; n++) sum += rider.lossAt(day.runs[n - 1]?.positions ?? day.positions, n)
  return sum
}
