import { describe, expect, it } from 'vitest'
import type { RunFigures } from '#contract/settingFigures'
import { normalRange } from './normalFigures.ts'

const nothing = {
  rideHeightPct: 30,
  depthP95Pct: 60,
  supportPct: 5,
  smallBumpPct: 2,
  valleyDriftPctPerHit: null,
  reboundP95MmS: 900,
  diveRisePct: null,
}
const run = (runId: string, trailId: string, rideHeightPct: number): RunFigures => ({
  runId,
  trailId,
  setupId: 's',
  dayId: 'd',
  front: { ...nothing, rideHeightPct },
  rear: null,
})
const height = (all: RunFigures[]) =>
  normalRange(all, { runId: 'now', trailId: 'a' }, 'front', 'rideHeightPct')

describe('what is normal for a bike', () => {
  it('is what it did on this trail, not on others, and not on this run', () => {
    const all = [
      run('now', 'a', 40),
      run('1', 'a', 22),
      run('2', 'a', 24),
      run('3', 'a', 23),
      run('4', 'b', 10),
    ]
    expect(height(all)).toEqual({ low: 22, high: 24, runs: 3, on: 'trail' })
  })
  it('is what it did elsewhere where this trail has too few runs', () => {
    const all = [run('now', 'a', 40), run('1', 'a', 22), run('2', 'a', 24), run('4', 'b', 10)]
    expect(height(all)).toEqual({ low: 10, high: 24, runs: 3, on: 'bike' })
  })
  it('is not known from two runs, of an end without a sensor, or of a figure no ride told', () => {
    const all = [run('now', 'a', 40), run('1', 'a', 22), run('2', 'a', 24)]
    expect(height(all)).toBeNull()
    const more = [...all, run('3', 'a', 23)]
    const at = { runId: 'now', trailId: 'a' }
    expect(normalRange(more, at, 'rear', 'rideHeightPct')).toBeNull()
    expect(normalRange(more, at, 'front', 'valleyDriftPctPerHit')).toBeNull()
  })
})
