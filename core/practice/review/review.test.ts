import { describe, expect, it } from 'vitest'
import { drillOf } from '../drills.ts'
import { hiddenRider, type HiddenRider } from '../hiddenRider.ts'
import { bestPlaces, type Positions } from '../landscape.ts'
import type { PracticeAct } from '../day.ts'
import { lossesOf, lostInAll } from './losses.ts'
import { reviewOf } from './review.ts'

const ride: PracticeAct = { do: 'ride', ringMm: { front: 128, rear: 48 } }
const turn = (to: Positions, source: 'own-idea' | 'proposal' = 'own-idea'): PracticeAct => ({
  do: 'turn',
  to,
  linked: false,
  text: '',
  source,
})
const settle: PracticeAct = { do: 'settle' }
const rider = (drill: string, seed = 1) => hiddenRider(drillOf(drill)!, seed)
const bestOf = (r: HiddenRider): Positions => {
  const best = bestPlaces(r.likesAt(1))
  return Object.fromEntries(r.dials.map((d, k) => [d.adjuster.id, best[k]]))
}
const said = (r: HiddenRider, acts: PracticeAct[], run: number) =>
  reviewOf(r, acts).remarks.find((m) => m.runs.includes(run))

describe('the review of a day of practice', () => {
  const kicks = rider('kicks')
  const best = bestOf(kicks)
  const { rr, rp, fp, fr } = kicks.start

  it('praises a baseline, and misses it where something was turned first', () => {
    expect(said(kicks, [ride], 1)).toMatchObject({ standing: 'well-done' })
    expect(said(kicks, [turn({ fr: fr + 2 }), ride], 1)?.says).toMatch(/no baseline/)
  })

  it('names a spring that was off when a damper was turned first, once, and not after sag was read', () => {
    const slower = [ride, turn({ rr: rr - 2 }), ride]
    expect(said(kicks, slower, 2)).toMatchObject({ standing: 'missed' })
    expect(said(kicks, [...slower, turn({ rr: rr - 4 }), ride], 3)?.says).not.toMatch(/spring/)
    expect(said(kicks, [ride, { do: 'read', end: 'rear' }, turn({ rr: rr - 2 }), ride], 2)?.says).not.toMatch(
      /spring/,
    )
    // Sag of the other end tells nothing of this one.
    expect(said(kicks, [ride, { do: 'read', end: 'front' }, turn({ rr: rr - 2 }), ride], 2)?.says).toMatch(
      /rear spring/,
    )
    // The front's spring is right: its damper may be turned.
    expect(said(kicks, [ride, turn({ fr: fr + 2 }), ride], 2)?.says).not.toMatch(/spring/)
  })

  it('counts what is found by what was hidden, not by the rating', () => {
    for (let seed = 1; seed < 30; seed++) {
      const r = rider('kicks', seed)
      const acts = [ride, turn({ rp: bestOf(r).rp }), ride]
      expect(said(r, acts, 2)).toMatchObject({ standing: 'found' })
      expect(said(r, acts, 2)?.says).toMatch(/biggest step/)
    }
  })

  it('holds what was noted by hand against what was said, by word, end and rating', () => {
    const byHand: PracticeAct = { ...ride, byHand: true } as PracticeAct
    // A rider who names something on its first run.
    const seed = Array.from({ length: 60 }, (_, k) => k + 1).find((n) => {
      const { marks } = rider('kicks', n).tell(rider('kicks', n).start, 1)
      return marks.length === 1 && marks[0].end === 'rear'
    })!
    const r = rider('kicks', seed)
    const told = r.tell(r.start, 1)
    const marks = told.marks.map((m, i) => ({ ...m, id: String(i) }))
    const of = (rating: number | null, heard: typeof marks) =>
      said(r, [byHand, { do: 'note', run: 1, feel: { rating, marks: heard, verdicts: [], note: '' } }], 1)!
    expect(of(told.rating, marks)).toMatchObject({ standing: 'well-done' })
    // How strongly, and where on the trail, is for whoever listens.
    expect(of(told.rating, [{ ...marks[0], sectionId: null, strength: 1 }]).standing).toBe('well-done')
    expect(of(told.rating, []).says).toMatch(/^The rider’s words were “.*”, rear; noted was nothing of it$/)
    expect(of(told.rating, [{ ...marks[0], end: 'front' }]).says).toMatch(/, rear; noted was “.*”, front$/)
    expect(of(told.rating, [...marks, { ...marks[0], id: 'x', word: 'pedal-bob' }]).says).toMatch(
      /never said/,
    )
    expect(of(told.rating - 1, marks).says).toBe(
      `The rider gave it a ${told.rating}; noted was ${told.rating - 1}`,
    )
    expect(of(null, marks)).toMatchObject({ standing: 'missed' })
    expect(said(r, [byHand], 1)?.says).toMatch(/nobody noted it/)
    // Noted by itself it is right by its nature.
    expect(said(r, [ride], 1)).toMatchObject({ standing: 'well-done' })
  })

  it('knows two things at once, also when each was said to be on by itself, and what a card linked', () => {
    const both = { rp: best.rp, fp: fp + 4 }
    expect(said(kicks, [ride, turn(both), ride], 2)?.says).toMatch(/^2 things at once/)
    expect(said(kicks, [ride, turn({ rp: best.rp }), turn({ fp: fp + 4 }), ride], 2)?.says).toMatch(
      /^2 things/,
    )
    expect(said(kicks, [ride, turn(both, 'proposal'), ride], 2)?.says).not.toMatch(/at once/)
    // Put back and another one turned: against the baseline that is one thing.
    const next = [ride, turn({ fp: fp + 6 }), ride, turn({ fp }), turn({ rp: best.rp }), ride]
    expect(said(kicks, next, 3)).toMatchObject({ standing: 'found' })
  })

  it('praises to put back what was worse, and asks for a question only where one was open', () => {
    const worse = [ride, turn({ rp: rp - 9 }), ride]
    expect(said(kicks, worse, 2)).toMatchObject({ standing: 'open' })
    expect(said(kicks, worse, 2)?.says).toMatch(/When does it kick/)
    const asked = [
      ride,
      { do: 'ask', question: 'kicks-when', end: 'rear' } as const,
      turn({ rp: rp - 9 }),
      ride,
    ]
    expect(said(kicks, asked, 2)?.says).toMatch(/points further away/)
    expect(said(kicks, [...worse, turn({ rp }), ride], 3)).toMatchObject({ standing: 'well-done' })
    // Away from what was good is not put back, though it was ridden before.
    const away = [ride, turn({ rp: best.rp }), ride, turn({ rp }), ride]
    expect(said(kicks, away, 3)?.standing).not.toBe('well-done')
  })

  it('tells the same again from circling', () => {
    const acts = [ride, ride, ride]
    expect(said(kicks, acts, 2)).toMatchObject({ standing: 'well-done' })
    expect(said(kicks, acts, 3)).toMatchObject({ standing: 'open' })
  })

  it('praises to count before it is believed, and misses a turn on a count that was wrong, once it is one', () => {
    const lost = rider('lost-count', 2)
    const { rr } = lost.written
    const look: PracticeAct = { do: 'look', adjusterId: 'rr' }
    expect(said(lost, [look, ride], 1)).toMatchObject({ standing: 'found' })
    expect(said(lost, [ride, look, turn({ rr }), ride], 2)?.says).toMatch(/^Looked .*rear rebound/)
    // Another dial tells nothing of this one.
    expect(said(lost, [{ do: 'look', adjusterId: 'fr' }, ride], 1)?.says).not.toMatch(/^Looked/)
    const blind = [ride, turn({ rr: rr + (lost.start.rr > rr ? -1 : 1) }), ride]
    expect(said(lost, blind, 2)).toMatchObject({ standing: 'missed' })
    expect(said(lost, blind, 2)?.says).toMatch(/^Rear rebound was turned on a count that was wrong/)
    // Where every count is right, to turn it is no fault.
    expect(said(kicks, [ride, look, turn({ rr: kicks.start.rr + 1 }), ride], 2)?.says).not.toMatch(
      /count|Looked/,
    )
  })

  it('takes what leaked for no change of a hand, and its gauge for a find', () => {
    const leak = rider('slow-leak', 2)
    const acts = [ride, ride, ride, ride]
    for (const m of reviewOf(leak, acts).remarks) expect(m.says).not.toMatch(/turned|nearer|further|at once/)
    const gauged: PracticeAct[] = [
      ...acts,
      { do: 'look', adjusterId: 'rp' },
      turn({ rp: leak.start.rp }),
      ride,
    ]
    expect(said(leak, gauged, 5)?.says).toMatch(/^Looked .*rear pressure/)
    // What was filled up again stands as it stood: one looks at it anew after the next run.
    expect(said(leak, [...gauged, { do: 'look', adjusterId: 'rp' }, ride], 6)?.says).toMatch(/^Looked/)
  })

  it('does not take the noon for a change', () => {
    const noon = rider('noon-heat', 3)
    const acts = Array.from({ length: 6 }, () => ride)
    for (const m of reviewOf(noon, acts).remarks) expect(m.says).not.toMatch(/points/)
    expect(reviewOf(noon, acts).left).toBeGreaterThan(noon.noticeable)
  })

  it('ends as it was ended', () => {
    const fix = turn({ rp: best.rp })
    expect(reviewOf(kicks, [ride, fix, ride, ride, settle]).ending.says).toBe('Stopped in time')
    expect(reviewOf(kicks, [ride, fix, ride, ride, settle]).headline).toBe('You found it in two runs')
    expect(reviewOf(kicks, [ride, fix, settle]).ending.says).toMatch(/never ridden/)
    expect(reviewOf(kicks, [ride, settle]).ending).toMatchObject({ standing: 'missed' })
    expect(reviewOf(kicks, [ride, settle]).headline).toMatch(/^Stopped \d\.\d points short after one run$/)
    expect(reviewOf(kicks, [ride, fix, ride, ride, ride, ride, settle]).ending.says).toMatch(
      /right since run 2/,
    )
    expect(reviewOf(kicks, [ride]).ending).toMatchObject({ standing: 'open' })
    expect(reviewOf(rider('sent-to-you'), [ride, ride, settle]).headline).toMatch(/^Nothing was wrong/)
  })

  it('reckons a day to its full length: whoever stops rides on what is left', () => {
    const stopped = [ride, settle]
    expect(lostInAll(kicks, stopped, 12)).toBeCloseTo(12 * kicks.lossAt(kicks.start, 1), 9)
    const found = [ride, turn({ rp: best.rp }), ride, settle]
    expect(lostInAll(kicks, found, 12)).toBeCloseTo(kicks.lossAt(kicks.start, 1), 9)
    expect(lossesOf(kicks, found)).toEqual({ runs: [kicks.lossAt(kicks.start, 1), 0], left: 0 })
  })
})
