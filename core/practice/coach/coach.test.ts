import { describe, expect, it } from 'vitest'
import type { PracticeAct } from '../day.ts'
import { practiceDay } from '../day.ts'
import { awayMin, coachDay, openMin, takesMin, type CoachAct } from './clock.ts'
import { coachRiders, ridersOf } from './riders.ts'

const riders = ridersOf(4)
const ride: PracticeAct = { do: 'ride', ringMm: { front: 128, rear: 48 } }
const by = (rider: number, act: PracticeAct): CoachAct => ({ rider, act })
const wait: CoachAct = { wait: true }
const dialOf = (i: number) => riders[i].dials[0].adjuster.id
const turn = (i: number): PracticeAct => ({
  do: 'turn',
  to: { [dialOf(i)]: riders[i].written[dialOf(i)] + 1 },
  linked: false,
  text: '',
  source: 'own-idea',
})
const day = (...acts: CoachAct[]) => coachDay(riders, acts)

describe('riders of a tent of practice', () => {
  it('are three of different drills, the same for the same number, others for another', () => {
    const drawn = Array.from({ length: 60 }, (_, seed) =>
      ridersOf(seed + 1).map((r) => `${r.drill.key} ${r.seed}`),
    )
    for (const three of drawn) {
      expect(three).toHaveLength(coachRiders)
      expect(new Set(three.map((x) => x.split(' ')[0])).size).toBe(coachRiders)
      expect(three.join()).not.toContain('first-lesson')
    }
    expect(ridersOf(7).map((r) => r.start)).toEqual(ridersOf(7).map((r) => r.start))
    expect(new Set(drawn.map(String)).size).toBe(60)
  })
})

describe('the clock of a tent of practice', () => {
  it('runs for the coach: what is done with one takes time from the others', () => {
    const d = day(by(0, ride), by(1, { do: 'look', adjusterId: dialOf(1) }), by(1, turn(1)), by(1, ride))
    expect(d.minute).toBe(2 * takesMin.ride + takesMin.look + takesMin.turn)
    expect(d.leftMin).toBe(openMin - d.minute)
    expect(d.riders.map((r) => r.backAtMin)).toEqual([takesMin.ride + awayMin, d.minute + awayMin, null])
  })
  it('lets nothing be done with a rider who is out, and everything once they are back', () => {
    const out = day(by(0, ride), by(0, turn(0)))
    expect([out.minute, out.riders[0].acts]).toEqual([takesMin.ride, [ride]])
    const back = day(by(0, ride), wait, by(0, turn(0)))
    expect(back.minute).toBe(takesMin.ride + awayMin + takesMin.turn)
    expect(back.riders[0].acts).toEqual([ride, turn(0)])
  })
  it('waits for the one who is back first, and not at all where nobody is out', () => {
    expect(day(wait).minute).toBe(0)
    const d = day(by(0, ride), by(1, ride), wait)
    expect(d.minute).toBe(takesMin.ride + awayMin)
    expect(d.riders.map((r) => r.backAtMin)).toEqual([null, 2 * takesMin.ride + awayMin, null])
  })
  it('closes the track: who is out comes back, nobody goes out again', () => {
    const often = Array.from({ length: 9 }, () => [by(0, ride), wait]).flat()
    const d = day(...often)
    const rode = Math.ceil(openMin / (takesMin.ride + awayMin))
    expect(d.riders[0].day.runs).toHaveLength(rode)
    expect([d.leftMin, d.over]).toEqual([0, true])
    expect(day(...often.slice(0, -1).slice(0, 2 * rode - 1)).over).toBe(false)
  })
  it('is over too when everybody is happy, and nothing is done with who is', () => {
    const settle: PracticeAct = { do: 'settle' }
    const two = day(by(0, settle), by(1, settle), by(1, ride))
    expect([two.over, two.riders[1].acts]).toEqual([false, [settle]])
    expect(day(by(0, settle), by(1, settle), by(2, settle)).over).toBe(true)
  })
  it('counts the minutes that each stood, and only those', () => {
    const d = day(by(0, ride), by(1, turn(1)), by(1, ride), wait)
    expect(d.minute).toBe(takesMin.ride + awayMin)
    expect(d.riders.map((r) => r.stoodMin)).toEqual([
      takesMin.ride,
      2 * takesMin.ride + takesMin.turn,
      d.minute,
    ])
    const [happy] = day(by(0, { do: 'settle' }), by(1, ride), wait).riders
    expect(happy.stoodMin).toBe(takesMin.settle)
  })
  it('makes of each the day that practice alone would make, but for the clock', () => {
    const d = day(by(0, ride), by(1, ride), wait, by(0, turn(0)), by(0, ride), wait, wait)
    const alone = practiceDay(riders[0], [ride, turn(0), ride])
    const inTent = d.riders[0].day
    expect(inTent.bundle.feels).toEqual(alone.bundle.feels)
    expect(inTent.positions).toEqual(alone.positions)
    const starts = inTent.bundle.runs.map((r) => Date.parse(r.startedAt))
    expect(starts[1] - starts[0]).toBe((d.riders[0].hereSinceMin - awayMin - takesMin.ride) * 60_000)
    // What was turned was turned between the two.
    const turnedAt = Date.parse(inTent.bundle.setups.at(-1)!.madeAt)
    expect(turnedAt).toBeGreaterThan(starts[0])
    expect(turnedAt).toBeLessThan(starts[1])
  })
})
