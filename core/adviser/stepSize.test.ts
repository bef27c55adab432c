import { describe, expect, it } from 'vitest'
import type { ProposedMove } from '#contract/proposal'
import { familyOf } from '../adjusters/words.ts'
import { DayBuilder, space } from '../test/dayBuilder.ts'
import { advise } from './advise.ts'
import type { DayHistory, SetupSpace } from './dayHistory.ts'
import { drawnBike, drawnDay } from './test/drawnDay.ts'

/** Clicks that a proposal takes rebound beyond anywhere it stood on this day. */
function beyondRidden(h: DayHistory, bike: SetupSpace): number[] {
  const { moves } = advise(h, bike)
  const isRebound = (m: ProposedMove) =>
    familyOf(bike[m.end]!.adjusters.find((a) => a.id === m.adjusterId)!) === 'rebound'
  return moves.filter(isRebound).map((m) => {
    const places = h.setups.flatMap((s) =>
      s.positions.filter((p) => p.adjusterId === m.adjusterId).map((p) => p.value),
    )
    return Math.min(...places.map((p) => Math.abs(m.to - p)))
  })
}

describe('rebound, which can throw a rider', () => {
  it('goes no further than two clicks beyond where it was ridden, whatever speaks for it', () => {
    const days = Array.from({ length: 30 }, (_, i) => drawnDay(7160 + i))
    const far = days.flatMap((h) => beyondRidden(h, drawnBike))
    expect(far.length).toBeGreaterThan(5)
    expect(Math.max(...far)).toBeLessThanOrEqual(2)
  })

  it('is brought back over what was ridden in one go, and on to the usual step', () => {
    const day = new DayBuilder()
      .run(7, [{ word: 'good', end: 'rear' }])
      .change({ rr: 6 })
      .run(5, [{ word: 'stays-down', end: 'rear' }])
      .change({ rr: 4 })
      .run(2, [{ word: 'stays-down', end: 'rear', strength: 3 }])
      .run(2, [{ word: 'stays-down', end: 'rear', strength: 3 }])
    const { kind, moves } = advise(day.history(), space)
    expect([kind, moves.map((m) => m.adjusterId)]).toEqual(['change', ['rr']])
    expect(moves[0].to).toBeGreaterThanOrEqual(7)
    expect(moves[0].to).toBeLessThanOrEqual(9)
  })
})
