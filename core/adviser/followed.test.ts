import { describe, expect, it } from 'vitest'
import type { Proposal } from '#contract/proposal'
import type { Feel } from '#contract/run'
import { readBy, setBy } from '../setup/known.ts'
import { advise } from './advise.ts'
import type { DayHistory, HistoryRun } from './dayHistory.ts'
import { drawnBike, drawnDay } from './test/drawnDay.ts'

// What comes after a card was followed, on days that nobody wrote for it.

const later = { at: '2031-05-02T12:00:00Z' }
const presentOf = (h: DayHistory) => h.setups.find((s) => s.id === h.currentSetupId)!
const lastOf = (h: DayHistory) => h.runs[h.runs.length - 1]

function withSetup(h: DayHistory, change: Partial<ReturnType<typeof presentOf>>): DayHistory {
  const now = presentOf(h)
  const id = `next${h.setups.length}`
  return {
    ...h,
    setups: [...h.setups, { ...now, id, parentId: now.id, foundIn: null, ...change }],
    currentSetupId: id,
  }
}
/** The card's moves, made. */
function follow(h: DayHistory, { moves }: Proposal): DayHistory {
  const now = presentOf(h)
  const to = new Map(moves.map((m) => [m.adjusterId, m.to]))
  return withSetup(h, {
    reason: { ...now.reason, source: 'proposal', linked: moves.length > 1 },
    positions: now.positions.map((p) => {
      const value = to.get(p.adjusterId)
      return value === undefined ? p : { ...p, value, known: setBy(later) }
    }),
  })
}
function ride(h: DayHistory, feel: Partial<Feel>): DayHistory {
  const last = lastOf(h)
  const n = last.number + 1
  const run: HistoryRun['run'] = {
    ...last.run,
    id: `run${n}`,
    setupId: h.currentSetupId,
    startedAt: new Date(Date.UTC(2031, 4, 2, 9, 10 * n)).toISOString(),
  }
  const given = { ...last.feel!, answers: [], verdicts: [], ...feel, runId: run.id }
  return { ...h, runs: [...h.runs, { number: n, run, feel: given, analysis: null }] }
}
const against = (h: DayHistory, value: 2 | -2) => [{ againstRunId: lastOf(h).run.id, value }]
/** Dials that a second card turns the same way as a first (1), or back again (-1). */
const turnedAgain = (first: Proposal, second: Proposal, way: 1 | -1) =>
  second.moves.filter((m) =>
    first.moves.some(
      (x) => x.adjusterId === m.adjusterId && Math.sign(m.to - m.from) === way * Math.sign(x.to - x.from),
    ),
  )

const days = Array.from({ length: 24 }, (_, i) => drawnDay(5200 + i))
const changed = days
  .map((h) => ({ h, card: advise(h, drawnBike) }))
  .filter(({ h, card }) => card.kind === 'change' && (lastOf(h).feel?.rating ?? 0) >= 3)

describe('after a turn that was proposed was made', () => {
  it('there are such days', () => expect(changed.length).toBeGreaterThan(5))
  it('it is ridden before anything else', () => {
    for (const { h, card } of changed) expect(advise(follow(h, card), drawnBike).kind).toBe('ride-it')
  })
  it('and rode two points better without a word, it is not taken back', () => {
    for (const { h, card } of changed) {
      const rating = Math.min(10, lastOf(h).feel!.rating! + 2)
      const next = advise(ride(follow(h, card), { rating, marks: [], verdicts: against(h, 2) }), drawnBike)
      // What was clearly better before is gone back to all the same.
      const best = Math.max(...h.runs.map((r) => r.feel?.rating ?? 0))
      if (rating >= best) expect(next.kind, card.headline).not.toBe('go-back')
      expect(turnedAgain(card, next, -1), `${card.headline}, then ${next.headline}`).toEqual([])
    }
  })
  it('and rode two points worse with the same words, it goes no further and is not called good', () => {
    for (const { h, card } of changed) {
      const rating = lastOf(h).feel!.rating! - 2
      const next = advise(ride(follow(h, card), { rating, verdicts: against(h, -2) }), drawnBike)
      expect(next.kind, card.headline).not.toBe('leave-it')
      expect(turnedAgain(card, next, 1), `${card.headline}, then ${next.headline}`).toEqual([])
    }
  })
  it('and rode much worse and was taken back, it is not turned again, nor is anybody asked or sent to and fro', () => {
    let goneBack = 0
    let wentOn = 0
    for (const { h, card } of changed) {
      const worse = ride(follow(h, card), { rating: 1, verdicts: against(h, -2) })
      const back = advise(worse, drawnBike)
      if (back.kind !== 'go-back') continue
      goneBack++
      const to = worse.setups.find((s) => s.id === back.setupId)!
      const now = presentOf(worse)
      const day = withSetup(worse, {
        reason: { ...now.reason, source: 'revert' },
        positions: to.positions,
      })
      const next = advise(day, drawnBike)
      expect(next.kind, `${card.headline}, then ${next.headline}`).toMatch(/^(change|read|ride-it)$/)
      expect(turnedAgain(card, next, 1), `${card.headline}, then ${next.headline}`).toEqual([])
      if (next.kind !== 'change') continue
      wentOn++
      const ridden = advise(ride(follow(day, next), { rating: 6, marks: [], verdicts: [] }), drawnBike)
      expect(ridden.kind, next.headline).not.toBe('untangle')
    }
    expect(goneBack).toBeGreaterThan(3)
    expect(wentOn).toBeGreaterThan(0)
  })
  it('or the same was ridden again and was the same, it is not turned the other way', () => {
    for (const { h, card } of changed) {
      const next = advise(ride(h, {}), drawnBike)
      expect(turnedAgain(card, next, -1), `${card.headline}, then ${next.headline}`).toEqual([])
    }
  })
})

describe('who reads what is asked for and answers what can be answered', () => {
  it('comes to a ride or a turn after four cards at most', () => {
    for (const h of days) {
      let day = h
      const cards: string[] = []
      for (;;) {
        const p = advise(day, drawnBike)
        cards.push(p.headline)
        if (p.kind === 'ask' && p.question) day = answered(day, p.question)
        else if (p.kind === 'read') day = read(day, p.readEnd ?? null)
        else break
        expect(cards.length, cards.join(' | ')).toBeLessThan(5)
      }
    }
  })
})
function answered(h: DayHistory, { id, end }: NonNullable<Proposal['question']>): DayHistory {
  const last = lastOf(h)
  const answers = [
    ...last.feel!.answers,
    { question: id, end, answer: 'cannot-say' } as Feel['answers'][number],
  ]
  return { ...h, runs: [...h.runs.slice(0, -1), { ...last, feel: { ...last.feel!, answers } }] }
}
/** Every part read and found where it was written; sag, where it was asked for, right. */
function read(h: DayHistory, end: 'front' | 'rear' | null): DayHistory {
  const now = presentOf(h)
  return withSetup(h, {
    reason: { ...now.reason, source: 'reading', linked: true },
    positions: now.positions.map((p) => ({ ...p, known: readBy(later) })),
    foundIn: end && {
      airTempC: 15,
      altitudeM: 400,
      place: '',
      postureFront: null,
      postureRear: null,
      sagFrontPct: end === 'front' ? 20 : null,
      sagRearPct: end === 'rear' ? 30 : null,
    },
  })
}
