import { describe, expect, it } from 'vitest'
import type { DayBundle } from '#contract/endpoints'
import { DayBuilder, fork, shock } from '#core/test/dayBuilder'
import { bestRun, wayBack } from './goBack.ts'

/** Only what the way back reads. */
const bundleOf = (d: DayBuilder): DayBundle => {
  const h = d.history()
  return {
    units: [fork, shock],
    setups: h.setups,
    runs: h.runs.map((r) => r.run),
    feels: h.runs.flatMap((r) => r.feel ?? []),
  } as unknown as DayBundle
}
const told = () =>
  bundleOf(
    new DayBuilder()
      .run(null, [], { kind: 'warm-up' })
      .run(6)
      .change({ rr: 9 })
      .run(8)
      .change({ rr: 10 })
      .run(5),
  )
const now = (b: DayBundle) => b.setups.at(-1)!

describe('the way back to what was ridden', () => {
  it('is the turns from what is on the bike to what was on it', () => {
    const b = told()
    expect(wayBack(b, now(b), 3)).toMatchObject({
      number: 3,
      moves: [{ end: 'rear', adjuster: { id: 'rr' }, from: 10, to: 9 }],
    })
    expect(wayBack(b, now(b), 2)).toMatchObject({ moves: [{ from: 10, to: 7 }] })
  })
  it('knows the best-rated run: the latest of equals, never a warm-up, never an unrated one', () => {
    const b = told()
    expect(wayBack(b, now(b), 'best')).toMatchObject({ number: 3 })
    const equals = bundleOf(new DayBuilder().run(7).change({ rr: 9 }).run(7).change({ rr: 10 }).run(5))
    expect(bestRun(equals)?.id).toBe(equals.runs[1].id)
    expect(bestRun(bundleOf(new DayBuilder().run(9, [], { kind: 'warm-up' })))).toBeNull()
    expect(bestRun(bundleOf(new DayBuilder().run(null)))).toBeNull()
  })
  it('knows the baseline: the first run that counts, never a warm-up', () => {
    const b = told()
    expect(wayBack(b, now(b), 'baseline')).toMatchObject({ number: 2, moves: [{ from: 10, to: 7 }] })
    const warm = bundleOf(new DayBuilder().run(null, [], { kind: 'warm-up' }))
    expect(wayBack(warm, now(warm), 'baseline')).toEqual({
      fault: 'No run counts yet, so there is no baseline to go back to.',
    })
  })
  it('says why there is nothing to turn', () => {
    const b = told()
    expect(wayBack(b, now(b), 4)).toEqual({ fault: 'What was ridden on run 4 is on the bike now.' })
    expect(wayBack(b, now(b), 9)).toEqual({ fault: 'There is no run 9 today; they go from 1 to 4.' })
    expect(wayBack({ ...b, runs: [] }, now(b), 'best')).toEqual({ fault: 'No run was logged today.' })
    expect(wayBack({ ...b, feels: [] }, now(b), 'best')).toEqual({ fault: 'No counted run is rated yet.' })
  })
  it('turns nothing that nobody has read since, and nothing onto another unit', () => {
    const b = told()
    const unread = { ...now(b), positions: now(b).positions.filter((p) => p.adjusterId !== 'rr') }
    expect(wayBack(b, unread, 2)).toEqual({
      fault: 'Nobody has read where rear rebound stands; count or read it first.',
    })
    expect(wayBack(b, { ...now(b), rearUnitId: 'another' }, 2)).toEqual({
      fault: 'On run 2 another fork or shock was on the bike.',
    })
  })
})
