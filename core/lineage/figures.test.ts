import { describe, expect, it } from 'vitest'
import type { RunFigures } from '#contract/settingFigures'
import { figureDifferences, type FigureKey } from './figures.ts'

const nothing = {
  rideHeightPct: 30,
  depthP95Pct: 60,
  supportPct: 5,
  smallBumpPct: 2,
  valleyDriftPctPerHit: null,
  reboundP95MmS: 900,
  diveRisePct: null,
}
let n = 0
const run = (setupId: string, dayId: string, rideHeightPct: number): RunFigures => ({
  runId: `run ${++n}`,
  setupId,
  dayId,
  trailId: 'trail',
  front: { ...nothing, rideHeightPct },
  rear: null,
})
const leasts: Record<FigureKey, number> = {
  rideHeightPct: 0.7,
  depthP95Pct: 2,
  supportPct: 0.4,
  smallBumpPct: 0.15,
  valleyDriftPctPerHit: 0.2,
  reboundP95MmS: 25,
  diveRisePct: 0.7,
}
const height = (all: RunFigures[], a: string[] = ['a'], b: string[] = ['b']) =>
  figureDifferences(all, a, b, leasts).find((d) => d.key === 'rideHeightPct')!

describe('figures of two setups', () => {
  it('are clear only where repeats cannot explain them', () => {
    const all = [run('a', 'd1', 30), run('a', 'd1', 30.4), run('b', 'd1', 34), run('b', 'd1', 34.4)]
    // By hand: sd = √((0.08 + 0.08) / 2) = 0.2828, two degrees; t = 1.886; 1.886 · 0.2828 · √(1/2 + 1/2) = 0.533 < 4.
    expect(height(all)).toMatchObject({ size: 'clear', first: { mean: 30.2, runs: 2 }, second: { runs: 2 } })
    expect(height(all).scatter).toBeCloseTo(0.28284, 4)
    const noisy = [run('a', 'd1', 30), run('a', 'd1', 36), run('b', 'd1', 34), run('b', 'd1', 38)]
    expect(height(noisy).size).toBe('within')
  })
  it('that differ by less than is of use are no news, however well known', () => {
    const all = [run('a', 'd1', 30), run('a', 'd1', 30.01), run('b', 'd1', 30.5), run('b', 'd1', 30.51)]
    expect(height(all).size).toBe('within')
  })
  it('without a repeat have no scatter, and say so', () => {
    expect(height([run('a', 'd1', 30), run('b', 'd1', 40)])).toMatchObject({ size: 'unknown', scatter: null })
  })
  it('of other days are never clear, however far apart', () => {
    const all = [run('a', 'd1', 30), run('a', 'd1', 30.1), run('b', 'd2', 50), run('b', 'd2', 50.1)]
    expect(height(all).size).toBe('other-days')
  })
  it('are of the days that both were ridden on, where there is one', () => {
    const all = [
      run('a', 'd1', 30),
      run('a', 'd1', 30.2),
      run('b', 'd1', 33),
      run('b', 'd2', 99),
      run('a again', 'd3', 10),
    ]
    const d = height(all, ['a', 'a again'])
    expect([d.first.mean, d.second.mean, d.second.runs]).toEqual([30.1, 33, 1])
  })
  it('an end without a sensor, and a figure that a run does not have, are left out', () => {
    const d = figureDifferences([run('a', 'd1', 30), run('b', 'd1', 31)], ['a'], ['b'], leasts)
    expect(new Set(d.map((x) => x.end))).toEqual(new Set(['front']))
    expect(d.map((x) => x.key)).not.toContain('diveRisePct')
  })
})
