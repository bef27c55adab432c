import { describe, expect, it } from 'vitest'
import type { Mark } from '#contract/run'
import { otherUnits } from '../test/otherUnits.ts'
import { advise } from './advise.ts'
import type { DayHistory, HistoryRun, SetupSpace } from './dayHistory.ts'
import { drawnBike, drawnDay } from './test/drawnDay.ts'

// What says nothing must change nothing: one day, told in other words or in another order, gets the same card.

const eachFeel = (h: DayHistory, change: (marks: Mark[]) => Mark[]): DayHistory => ({
  ...h,
  runs: h.runs.map((r) => (r.feel ? { ...r, feel: { ...r.feel, marks: change(r.feel.marks) } } : r)),
})
const eachUnit = (
  change: (list: NonNullable<SetupSpace['front']>['adjusters']) => typeof list,
): SetupSpace => ({
  front: { ...drawnBike.front!, adjusters: change(drawnBike.front!.adjusters) },
  rear: { ...drawnBike.rear!, adjusters: change(drawnBike.rear!.adjusters) },
})
function withRun(h: DayHistory, run: Partial<HistoryRun['run']>): DayHistory {
  const last = h.runs[h.runs.length - 1]
  const startedAt = '2031-05-02T15:00:00Z'
  const more = { ...last, number: last.number + 1, run: { ...last.run, id: 'more', startedAt, ...run } }
  return { ...h, runs: [...h.runs, more] }
}
const renamed = (h: DayHistory): DayHistory =>
  JSON.parse(
    JSON.stringify(h).replace(/"(run|setup)(\d+)"/g, (_, kind, n) => `"${kind}-${99 - Number(n)}"`),
  ) as DayHistory

const same: [string, (h: DayHistory) => [DayHistory, SetupSpace?]][] = [
  ['its words tapped in another order', (h) => [eachFeel(h, (m) => [...m].reverse())]],
  [
    'a word of both ends tapped at each of them',
    (h) => [
      eachFeel(h, (marks) =>
        marks.flatMap((m): Mark[] =>
          m.end === 'both'
            ? [
                { ...m, end: 'front' },
                { ...m, id: `${m.id}r`, end: 'rear' },
              ]
            : [m],
        ),
      ),
    ],
  ],
  [
    'each word tapped twice',
    (h) => [eachFeel(h, (m) => m.flatMap((x) => [x, { ...x, id: `${x.id}again` }]))],
  ],
  [
    'dials counted from another stop',
    (h) => [
      h,
      eachUnit((list) => list.map((a) => (a.kind === 'click' ? { ...a, countBase: 'closed-1' } : a))),
    ],
  ],
  [
    'positions noted in another order',
    (h) => [{ ...h, setups: h.setups.map((s) => ({ ...s, positions: [...s.positions].reverse() })) }],
  ],
  ['records of other names', (h) => [renamed(h)]],
  ['in other units', (h) => [h, { ...drawnBike, units: otherUnits }]],
  ['a flat tyre after it', (h) => [withRun(h, { kind: 'void', voidReason: 'flat tyre' })]],
  [
    'a warm-up after it',
    (h) => {
      const more = withRun(h, { kind: 'warm-up' })
      return [{ ...more, runs: more.runs.map((r) => (r.run.id === 'more' ? { ...r, feel: null } : r)) }]
    },
  ],
]

/** What a card asks for, whatever it says of it. */
function asks(h: DayHistory, space: SetupSpace = drawnBike): string {
  const p = advise(h, space)
  const moves = p.moves.map((m) => `${m.adjusterId} ${m.from.toFixed(2)} → ${m.to.toFixed(2)}`).sort()
  return [p.kind, ...moves, p.question && `${p.question.id} ${p.question.end}`, p.readEnd]
    .filter(Boolean)
    .join(', ')
}

describe('a day told otherwise gets the same card', () => {
  const days = Array.from({ length: 20 }, (_, i) => drawnDay(4100 + i))
  const cards = days.map((h) => asks(h))
  it('of many kinds', () => expect(new Set(cards).size).toBeGreaterThan(10))
  it.each(same)('%s', (_, otherwise) => {
    for (const [i, h] of days.entries()) expect(asks(...otherwise(h)), `day ${i}`).toBe(cards[i])
  })
})
