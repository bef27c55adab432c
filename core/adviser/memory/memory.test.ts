import { describe, expect, it } from 'vitest'
import { clicksForTemperature } from '../../damper/oil.ts'
import { normalFrom, seededRandom } from '../../numeric/random.ts'
import { DayBuilder, shock, space, startPositions } from '../../test/dayBuilder.ts'
import { advise } from '../advise.ts'
import { outlookOf } from '../decide.ts'
import { bracketOf } from '../bracket.ts'
import { rearRebound } from '../../test/dayBuilder.ts'
import { sessionOf } from '../history.ts'
import { learnFrom, type Learnt } from './learnt.ts'
import { memoryFor, memoryRules, type Today } from './memory.ts'
import { memoryWords } from './words.ts'

/** A day on which the rear rebound was best at `best`. */
function dayWithBest(best: number, noise = 0.3, seed = 4, pointsAClick = 0.5): DayBuilder {
  const random = seededRandom(seed)
  const day = new DayBuilder({ ...startPositions, rr: best - 3 })
  for (const rr of [best - 3, best - 1, best + 1, best + 3, best, best, best - 2, best + 2, best]) {
    day.change({ rr })
    const raw = 8.5 - pointsAClick * Math.abs(rr - best) + noise * normalFrom(random)
    const rating = Math.round(raw * 2) / 2
    const words = rr < best - 1 ? [{ word: 'stays-down' as const, end: 'rear' as const }] : []
    day.run(rating, words)
  }
  return day
}
const learnt = (day: DayBuilder, over: Partial<Learnt> = {}): Learnt => ({
  ...learnFrom({ date: '2031-05-02', trailId: 'trail', history: day.history(), space })!,
  ...over,
})
const today = (over: Partial<Today> = {}): Today => ({
  date: '2031-05-03',
  trailId: 'trail',
  conditions: { airTempC: 15, altitudeM: 400, surface: 'damp' },
  space,
  ...over,
})
const rr = (m: ReturnType<typeof memoryFor>) => m!.dials.find((d) => d.adjusterId === 'rr')!

describe('what a day teaches', () => {
  const l = learnt(dayWithBest(9))
  it('is where a dial was best, and how wide', () => {
    const dial = l.dials.find((d) => d.adjusterId === 'rr')!
    expect(Math.abs(dial.place!.value - 9)).toBeLessThan(1)
    expect(dial.place!.sdClicks).toBeLessThan(1.5)
  })
  it('is a narrower place of a rider who feels each click than of one who hardly does', () => {
    const steepness = (pointsAClick: number) =>
      learnt(dayWithBest(9, 0.3, 4, pointsAClick)).dials.find((d) => d.adjusterId === 'rr')!.logSteepness!
    expect(steepness(1).mean).toBeGreaterThan(steepness(0.15).mean + 0.5)
  })
  it('is nothing of a dial that never moved and of which nothing was said', () => {
    expect(l.dials.find((d) => d.adjusterId === 'fc')!.place).toBeNull()
  })
  it('is nothing at all on two runs', () => {
    const short = new DayBuilder().run(6).change({ rr: 8 }).run(7)
    expect(learnFrom({ date: '2031-05-02', trailId: 't', history: short.history(), space })).toBeNull()
  })
  it('is how often a word pointed right: most of the time here, and rarely of a rider who says it anywhere', () => {
    const right = l.words.find((w) => w.word === 'stays-down')!
    expect(right.times).toBe(2)
    expect(right.right / right.times).toBeGreaterThan(0.7)
    const anywhere = new DayBuilder()
    for (const [to, rating] of [
      [7, 8],
      [10, 6],
      [4, 6],
      [7, 8],
      [9, 7],
      [5, 7],
    ] as const)
      anywhere.change({ rr: to }).run(rating, [{ word: to > 7 ? 'stays-down' : 'kicks', end: 'rear' }])
    const loose = learnt(anywhere).words.find((w) => w.word === 'stays-down')!
    expect(loose.right / loose.times).toBeLessThan(right.right / right.times)
  })
  it('does not depend on what an earlier day had taught', () => {
    const day = dayWithBest(9)
    const memory = memoryFor(today(), [learnt(dayWithBest(4))])
    const h = day.history()
    const again = learnFrom({ date: '2031-05-02', trailId: 't', history: { ...h, memory }, space })!
    expect(again.dials).toEqual(l.dials)
  })
})

describe('how it holds today', () => {
  const day = learnt(dayWithBest(9))
  it('is never surer than another day allows, and surer with two days that agree', () => {
    const one = rr(memoryFor(today(), [day]))
    const two = rr(memoryFor(today(), [day, learnt(dayWithBest(9, 0.3, 8), { dayId: 'b' })]))
    expect(one.place!.sd).toBeGreaterThanOrEqual(memoryRules.leastSd)
    expect(two.place!.sd).toBeLessThanOrEqual(one.place!.sd)
  })
  it('is known less well on another trail, after a season, or when a temperature or the ground is missing', () => {
    // A day that left some doubt: what is surer than any memory may be tells no difference.
    const dials = day.dials.map((d) => (d.place ? { ...d, place: { ...d.place, sdClicks: 2 } } : d))
    const doubtful = { ...day, dials }
    const usual = rr(memoryFor(today(), [doubtful])).place!.sd
    for (const over of [
      { trailId: 'other' },
      { date: '2031-10-02' },
      { conditions: { airTempC: null, altitudeM: 400, surface: 'damp' as const } },
      { conditions: { airTempC: 15, altitudeM: 400, surface: null } },
    ])
      expect(rr(memoryFor(today(over), [doubtful])).place!.sd).toBeGreaterThan(usual)
  })
  it('moves with the oil: on a hot day the same rebound stands further closed', () => {
    const hot = rr(memoryFor(today({ conditions: { airTempC: 32, altitudeM: 400, surface: 'damp' } }), [day]))
    const by = rr(memoryFor(today(), [day])).place!.mean - hot.place!.mean
    // 14 clicks of a dial are 16 click-equivalents.
    expect(by).toBeCloseTo((clicksForTemperature(15, 32) * 16) / 14, 1)
    expect(by).toBeGreaterThan(0.5)
  })
  it('is forgotten for a unit that was re-valved since, not for one that was before', () => {
    const revalved = (revalvedOn: string) => ({
      space: { ...space, rear: { ...shock, revalved: true, revalvedOn } },
    })
    expect(rr(memoryFor(today(revalved('2031-05-03')), [day])).place).toBeNull()
    expect(rr(memoryFor(today(revalved('2031-04-01')), [day])).place).not.toBeNull()
  })
  it('never goes to another unit', () => {
    const other = { ...shock, id: 'other', adjusters: [{ ...rearRebound, id: 'or' }] }
    const m = memoryFor(today({ space: { ...space, rear: other } }), [day])!
    expect(m.dials.find((d) => d.adjusterId === 'or')!.place).toBeNull()
    expect(m.dials.some((d) => d.adjusterId === 'rr')).toBe(false)
  })
  it('no earlier day is no memory', () => expect(memoryFor(today(), [])).toBeNull())
})

describe('a day that starts from it', () => {
  const memory = memoryFor(today(), [
    learnt(dayWithBest(10)),
    learnt(dayWithBest(10, 0.3, 9), { dayId: 'b' }),
  ])
  const story = () => new DayBuilder({ ...startPositions, rr: 6 }).run(6).run(6)
  it('goes to where the dial was best, and says why', () => {
    const p = advise(story().remembering(memory).history(), space)
    expect(p.moves.map((m) => m.adjusterId)).toEqual(['rr'])
    expect(p.moves[0].to).toBeGreaterThan(6)
    expect(p.speaksFor.map((e) => e.text).join(' ')).toMatch(/Earlier days: rear rebound is best near/)
  })
  it('judged on its own it says nothing of earlier days', () => {
    const p = advise(story().history(), space)
    expect(JSON.stringify(p)).not.toMatch(/Earlier days/)
  })
  it('lets the day itself have the last word when it says otherwise, again and again', () => {
    const day = new DayBuilder({ ...startPositions, rr: 6 }).remembering(memory)
    for (const [to, rating] of [
      [6, 7.5],
      [9, 5],
      [6, 7.5],
      [10, 4.5],
      [5, 8],
      [9, 5],
      [5, 8],
      [4, 7.5],
      [5, 8],
    ] as const)
      day.change({ rr: to }).run(rating)
    const h = day.history()
    const s = outlookOf(h, space)
    const bracket = bracketOf(h, rearRebound, sessionOf(h), s)!
    expect(bracket.high).toBeLessThan(9)
  })
  it('is no evidence of happiness: nothing ridden is still nothing known', () => {
    const p = advise(new DayBuilder().remembering(memory).history(), space)
    expect(p.kind).toBe('log-first-run')
  })
})

describe('in words', () => {
  it('names the place in the part’s own count, its width, and the scatter', () => {
    const words = memoryWords(memoryFor(today(), [learnt(dayWithBest(9))])!, space)
    // 9 from closed is 5 from open, and that dial counts from open.
    expect(words[0]).toMatch(/^Rear rebound: best near [456]; .*(felt|feel the same)/)
    expect(words.join(' ')).not.toMatch(/Front/)
  })
})
