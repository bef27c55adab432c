import { describe, expect, it } from 'vitest'
import type { Adjuster } from '#contract/adjuster'
import type { Setup } from '#contract/setup'
import { countedRuns, historyOf, keyOfRun } from '../adviser/history.ts'
import { DayBuilder, fork, frontPressure, frontRebound, shock } from '../test/dayBuilder.ts'
import { assumed, knownAfterTurn, readBy, setBy, withLaterReadings, withTurns } from './known.ts'
import { wishedPsi } from '../adviser/sagWish.ts'
import { knownSagPct } from './sagOf.ts'
import { changesMade, standingChanges, undoable } from './undo.ts'

const hand = { at: '2031-05-02T10:00:00Z' }
const parts = new Map(
  [fork, shock].flatMap((u) => u.adjusters.map((part) => [part.id, { part, end: u.end }] as const)),
)

describe('how a place is known after a turn', () => {
  it('one click from an assumed seven is an assumed eight', () => {
    expect(knownAfterTurn(assumed('typical'), frontRebound, 8, hand).how).toBe('assumed')
    expect(knownAfterTurn(readBy(hand), frontRebound, 8, hand).how).toBe('set')
  })
  it('a stop is felt and a gauge is seen, whatever was known', () => {
    expect(knownAfterTurn(assumed('typical'), frontRebound, 12, hand).how).toBe('set')
    expect(knownAfterTurn(assumed('typical'), frontRebound, 0, hand).how).toBe('set')
    expect(knownAfterTurn(assumed('typical'), frontPressure, 82, hand).how).toBe('set')
    const lever: Adjuster = {
      id: 'l',
      alias: null,
      tool: 'hand',
      kind: 'lever',
      role: 'lever',
      positions: ['Open', 'Middle', 'Firm'],
    }
    expect(knownAfterTurn(undefined, lever, 1, hand).how).toBe('set')
  })
  it('what was not turned stays as it was known, to the minute', () => {
    const start = withTurns([], new Map([['fr', 6], ['fc', 8]]), parts, hand) // prettier-ignore
    const later = withTurns(start, new Map([['fr', 7]]), parts, { at: '2031-05-02T11:00:00Z' })
    expect(later.find((p) => p.adjusterId === 'fc')).toEqual(start.find((p) => p.adjusterId === 'fc'))
    expect(later.find((p) => p.adjusterId === 'fr')!.known.at).toBe('2031-05-02T11:00:00Z')
    // The same place again is no turn.
    expect(withTurns(start, new Map([['fr', 6]]), parts, { at: '2031-05-02T11:00:00Z' })).toEqual(start)
  })
  it('a part that the units do not have is not made up', () => {
    expect(withTurns([], new Map([['zz', 3]]), parts, hand)).toEqual([])
  })
})

const after = (list: Setup[], over: Partial<Setup>): Setup[] => {
  const last = list[list.length - 1]
  return [...list, { ...last, id: `s${list.length + 1}`, parentId: last.id, ...over }]
}
const reason = (source: Setup['reason']['source'], undoes: string | null = null): Setup['reason'] => ({
  text: '',
  source,
  linked: false,
  proposalId: null,
  undoes,
  fromSetupId: null,
})

describe('what is read later', () => {
  const first = new DayBuilder().history().setups
  const place = (s: Setup, id: string) => s.positions.find((p) => p.adjusterId === id)?.value
  const put = (s: Setup, id: string, value: number, known = readBy(hand)): Setup['positions'] => [
    ...s.positions.filter((p) => p.adjusterId !== id),
    { end: 'front', adjusterId: id, value, known },
  ]
  it('an unread dial stood where it was counted all the time before', () => {
    const unread = [{ ...first[0], positions: first[0].positions.filter((p) => p.adjusterId !== 'fr') }]
    const ridden = after(unread, { positions: unread[0].positions })
    const counted = after(ridden, { positions: put(unread[0], 'fr', 9), reason: reason('reading') })
    expect(withLaterReadings(counted).map((s) => place(s, 'fr'))).toEqual([9, 9, 9])
    expect(withLaterReadings(counted)[0].positions.find((p) => p.adjusterId === 'fr')!.known.how).toBe(
      'assumed',
    )
    // What is stored stays as it was.
    expect(place(counted[0], 'fr')).toBeUndefined()
  })
  it('an assumed count that was off was off by the same all along, also after turns', () => {
    const guess = [{ ...first[0], positions: put(first[0], 'fr', 6, assumed('typical')) }]
    const turned = after(guess, { positions: put(guess[0], 'fr', 7, assumed('turned by steps')) })
    const counted = after(turned, { positions: put(turned[1], 'fr', 9), reason: reason('reading') })
    expect(withLaterReadings(counted).map((s) => place(s, 'fr'))).toEqual([8, 9, 9])
  })
  it('a place that somebody set is not corrected backwards', () => {
    const set = [{ ...first[0], positions: put(first[0], 'fr', 6, setBy(hand)) }]
    const counted = after(set, { positions: put(set[0], 'fr', 8), reason: reason('reading') })
    expect(withLaterReadings(counted).map((s) => place(s, 'fr'))).toEqual([6, 8])
  })
  it('runs before and after a count are runs on the same settings', () => {
    const day = new DayBuilder().run(6).run(6)
    const h = day.history()
    const unread = { ...h.setups[0], positions: h.setups[0].positions.filter((p) => p.adjusterId !== 'fr') }
    const setups = after([unread], { positions: put(unread, 'fr', 6), reason: reason('reading') })
    const runs = h.runs.map((r, i) => ({ ...r.run, setupId: setups[i].id }))
    const bundle = {
      trail: { sections: [] },
      day: { conditions: h.conditions, hours: h.hours, startSetupId: unread.id, id: 'day' },
      tent: null,
      bike: { currentSetupId: setups[1].id, tyres: { front: {}, rear: {} } },
      latest: true,
      runs,
      feels: [],
      recordings: [],
      setups,
    } as unknown as Parameters<typeof historyOf>[0]
    const history = historyOf(bundle)
    expect(new Set(countedRuns(history).map((r) => keyOfRun(history, r))).size).toBe(1)
  })
})

describe('undo', () => {
  const start = new DayBuilder().history().setups.map((s) => ({ ...s, dayId: 'day' }))
  const two = after(after(start, { reason: reason('own-idea') }), { reason: reason('proposal') })
  it('walks back through the changes of the day, one by one, and then ends', () => {
    let list = two
    const back: string[] = []
    for (let i = 0; i < 5; i++) {
      const u = undoable(list, 'day')
      if (!u) break
      back.push(u.change.id)
      list = after(list, { positions: u.before.positions, reason: reason('undo', u.change.id) })
    }
    expect(back).toEqual(['setup1', 's2', 's3'].slice(1).reverse())
    expect(undoable(list, 'day')).toBeNull()
  })
  it('is no change, and a change taken back does not count', () => {
    expect(changesMade(two, 'day')).toBe(2)
    const one = after(two, { reason: reason('undo', two[2].id) })
    expect(changesMade(one, 'day')).toBe(1)
    expect(changesMade(after(one, { reason: reason('own-idea') }), 'day')).toBe(2)
  })
  it('a reading is no change; another day’s are not of this day', () => {
    expect(changesMade(after(two, { reason: reason('reading') }), 'day')).toBe(2)
    expect(standingChanges(two, 'other')).toEqual([])
  })
})

describe('the sag that is known of a setup', () => {
  const found = { airTempC: 12, altitudeM: 300, place: '', sagFrontPct: 20, sagRearPct: 36, postureFront: null, postureRear: null } // prettier-ignore
  const base = new DayBuilder().history().setups.map((s) => ({ ...s, foundIn: found }))
  const moved = (id: string, value: number) => ({
    ...base[0],
    foundIn: null,
    positions: base[0].positions.map((p) => (p.adjusterId === id ? { ...p, value } : p)),
  })
  it('is not one that was taken back, but the one before it', () => {
    const slip = { ...base[0], id: 'slip', foundIn: { ...found, sagRearPct: 12 } }
    const back = { ...base[0], id: 'back', foundIn: null, reason: { ...base[0].reason, source: 'undo' as const, undoes: 'slip' } } // prettier-ignore
    expect(knownSagPct([...base, slip], slip, shock)).toBe(12)
    expect(knownSagPct([...base, slip, back], back, shock)).toBe(36)
    expect(wishedPsi([...base, slip, back], shock)).toBe(wishedPsi(base, shock))
  })
  it('holds for another click of a damper, not at another pressure or with another spacer', () => {
    expect(knownSagPct(base, moved('rr', 4), shock)).toBe(36)
    expect(knownSagPct(base, moved('rp', 180.8), shock)).toBe(36)
    expect(knownSagPct(base, moved('rp', 186), shock)).toBeNull()
    expect(knownSagPct(base, moved('rs', 2), shock)).toBeNull()
    expect(knownSagPct(base, moved('rp', 186), fork)).toBe(20)
  })
  it('not on another unit', () => {
    expect(knownSagPct(base, { ...base[0], rearUnitId: 'another' }, shock)).toBeNull()
  })
})
