import { describe, expect, it } from 'vitest'
import type { DayPlan } from '#contract/dayPlan'
import type { TentNote } from '#contract/tent'
import { bundleOf, type Happened } from '../test/bundle.ts'
import { parseTentLine } from '../tent/line.ts'
import { plansOf } from '../tent/plansOf.ts'
import { conditionWords, parsePlan } from './plan.ts'
import { openPlans, planState } from './state.ts'

const read = (text: string) => {
  const plan = parsePlan(text)
  if (!plan) throw new Error(`not read: ${text}`)
  return plan
}

describe('a plan with a condition', () => {
  it.each([
    ['if worse, shock reb faster 1', 'worse', 'shock reb faster 1'],
    ['If worse or rki: fork +2', 'worse, or kicks, rear', 'fork +2'],
    ['if kicks then back to run 2', 'kicks, rear', 'back to run 2'],
    ['if below 6, undo', 'rated below 6', 'undo'],
    ['if from 7.5: fork lsc softer 1', 'rated 7.5 or above', 'fork lsc softer 1'],
    ['if it gets worse, back to run 2', 'worse', 'back to run 2'],
    ['if it’s worse, undo', 'worse', 'undo'],
    ['if it is the same: fork +2', 'the same', 'fork +2'],
    ['if it still kicks, shock reb slower 1', 'kicks, rear', 'shock reb slower 1'],
    ['if the rating is below 6, undo', 'rated below 6', 'undo'],
    ['if less than 6, undo', 'rated below 6', 'undo'],
    ['if at least 8, fork lsc softer 1', 'rated 8 or above', 'fork lsc softer 1'],
    // What is said of its not being so is not that it is so.
    ['if not worse, fork +2', null, null],
    ['if no better, undo', null, null],
    ['if it never kicks, undo', null, null],
    ['if the same', null, null],
    ['if worse', null, null],
    ['if worse,', null, null],
    ['if it rains, fork +2', null, null],
    ['if below 11, undo', null, null],
    ['if worse or weird, undo', null, null],
    ['iffy fork +2', null, null],
  ])('reads “%s”', (text, words, line) => {
    const plan = parsePlan(text)
    expect(plan && conditionWords(plan)).toBe(words)
    expect(plan?.line ?? null).toBe(line)
  })
  it('is of the rider whose number stands before it; what cannot be read is never taken for a change', () => {
    expect(parseTentLine('2 if worse, undo', [1, 2])).toMatchObject({
      number: 2,
      entry: { kind: 'plan', plan: { line: 'undo' } },
    })
    expect(parseTentLine('2 if weird, undo', [1, 2])?.entry.kind).toBe('unclear')
  })

  const worse = read('if worse, shock reb faster 1')
  const first: Happened = { at: '09:00', run: 'r1', rating: 6 }
  it('waits for a run that counts, and only for one that came after it', () => {
    const ridden = bundleOf([first, { at: '09:30', run: 'r2', rating: 5, against: ['r1', -1] }])
    expect(planState(worse, ridden, 'r2')).toEqual({ is: 'waits', run: null })
    expect(planState(worse, ridden, 'r1')).toEqual({ is: 'holds', run: 2 })
    const crashed = bundleOf([first, { at: '09:30', run: 'r2', kind: 'void', against: ['r1', -1] }])
    expect(planState(worse, crashed, 'r1')).toEqual({ is: 'waits', run: null })
  })
  it('takes silence for no answer: neither a lower rating nor no word decides what was not asked', () => {
    const quiet = bundleOf([first, { at: '09:30', run: 'r2', rating: 3 }])
    expect(planState(worse, quiet, 'r1')).toEqual({ is: 'unsaid', run: 2 })
    const kicks = read('if rki, shock reb faster 1')
    const others = bundleOf([
      first,
      { at: '09:30', run: 'r2', rating: 8, says: [{ word: 'good', end: 'both' }] },
    ])
    expect(planState(kicks, others, 'r1')).toEqual({ is: 'unsaid', run: 2 })
    const front = bundleOf([first, { at: '09:30', run: 'r2', says: [{ word: 'kicks', end: 'front' }] }])
    expect(planState(kicks, front, 'r1').is).toBe('unsaid')
  })
  it('falls where the run came otherwise, and the first that tells decides', () => {
    const better = bundleOf([
      first,
      { at: '09:30', run: 'r2' },
      { at: '10:00', run: 'r3', against: ['r2', 1] },
      { at: '10:30', run: 'r4', against: ['r3', -1] },
    ])
    expect(planState(worse, better, 'r1')).toEqual({ is: 'fell', run: 3 })
    // Better than some other run is no comparison with the one before.
    const other = bundleOf([
      first,
      { at: '09:30', run: 'r2' },
      { at: '10:00', run: 'r3', against: ['r1', -1] },
    ])
    expect(planState(worse, other, 'r2').is).toBe('unsaid')
  })
  it('is open until it is closed, for its own rider', () => {
    const note = {
      id: 'n',
      version: 1,
      tentId: 't',
      dayId: 'day',
      at: '2031-05-02T09:10:00.000Z',
      kind: 'plan' as const,
      text: 'if worse, undo',
      closedAt: null,
      afterRunId: 'r1',
    }
    const day = bundleOf([first])
    const open = (n: TentNote, plans: DayPlan[] = []) =>
      openPlans(plansOf([n], { day: { ...day.day, plans } }), day)
    expect(open(note)).toMatchObject([{ state: { is: 'waits' }, plan: { line: 'undo' } }])
    expect(open({ ...note, closedAt: note.at })).toEqual([])
    expect(open({ ...note, dayId: 'other' })).toEqual([])
    expect(open({ ...note, kind: 'later' })).toEqual([])
    // What was planned on the day itself stands beside it.
    const own = { id: 'p', at: note.at, text: 'if better, fork +2', afterRunId: null, closedAt: null }
    expect(open(note, [own]).map((p) => p.plan.line)).toEqual(['undo', 'fork +2'])
    // Rated r1 after it was made, and not compared: nobody told what this one hangs on.
    expect(open(note, [own])[1].state.is).toBe('unsaid')
    expect(open(note, [{ ...own, closedAt: note.at }])).toHaveLength(1)
  })
})
