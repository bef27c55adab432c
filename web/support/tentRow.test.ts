import { describe, expect, it } from 'vitest'
import type { DayBundle } from '#contract/endpoints'
import { DayBuilder, fork, shock } from '#core/test/dayBuilder'
import { changedSinceStart, laneOf } from '#core/tent/lane'
import { asBefore, tentDayOf } from './tentRow.ts'

const dayOf = (d: DayBuilder): DayBundle => {
  const h = d.history()
  return {
    day: { id: 'day', startSetupId: h.startSetupId },
    bike: { id: 'bike', currentSetupId: h.currentSetupId },
    units: [fork, shock],
    setups: h.setups.map((s, i) => ({
      ...s,
      dayId: i ? 'day' : null,
      parentId: h.setups[i - 1]?.id ?? null,
    })),
    runs: h.runs.map((r) => r.run),
    feels: h.runs.flatMap((r) => r.feel ?? []),
  } as unknown as DayBundle
}

describe('what a tent reckons from a day', () => {
  it('is reckoned once for a day that did not change, and anew for one that did', () => {
    const day = dayOf(new DayBuilder().run(6).change({ rr: 6 }).run(7))
    expect(tentDayOf(day)).toBe(tentDayOf(day))
    expect(tentDayOf(day).lane).toEqual(laneOf(day))
    expect(tentDayOf(day).changed).toEqual(changedSinceStart(day))
    const further = dayOf(new DayBuilder().run(6).change({ rr: 6 }).run(7).change({ rr: 5 }).run(7.5))
    expect(tentDayOf(further).lane.runs).toHaveLength(3)
    expect(tentDayOf({ ...day, runs: day.runs.slice(0, 1) }).lane.runs).toHaveLength(1)
  })
})

describe('a list that holds the same', () => {
  const [a, b] = [{ id: 1 }, { id: 2 }]
  it('is the list as it was; another thing, another order or length is a new one', () => {
    const before = [a, b]
    expect(asBefore(before, [a, b])).toBe(before)
    expect(asBefore(before, [b, a])).toEqual([b, a])
    expect(asBefore(before, [a])).toEqual([a])
    expect(asBefore(before, [a, { id: 2 }])).not.toBe(before)
    expect(asBefore(undefined, [a])).toEqual([a])
  })
})
