import { describe, expect, it } from 'vitest'
import { benchTasks, isRight, type BenchTask } from './tasks.ts'

const all = Array.from({ length: 300 }, (_, seed) => benchTasks(seed + 1))
const of = (key: string): BenchTask[] => all.map((set) => set.find((t) => t.key === key)!)
const numbersIn = (text: string) => [...text.matchAll(/\d+(?:\.\d+)?/g)].map((m) => Number(m[0]))

describe('tasks of the bench', () => {
  it('are one of each kind, other ones for another seed, the same for the same', () => {
    expect(new Set(all.map((s) => JSON.stringify(s))).size).toBe(all.length)
    expect(benchTasks(9)).toEqual(benchTasks(9))
    for (const set of all) expect(new Set(set.map((t) => t.key)).size).toBe(10)
  })

  it('have one right answer, which is offered and can be given', () => {
    for (const t of all.flat()) {
      expect(isRight(t, t.answer)).toBe(true)
      if (t.kind === 'choice') {
        expect(t.choices.filter((c) => isRight(t, c))).toEqual([t.answer])
        expect(new Set(t.choices).size).toBe(t.choices.length)
        expect(t.choices.length).toBeGreaterThan(1)
      } else {
        expect(isRight(t, t.answer + 2 * t.within + 1)).toBe(false)
        expect(isRight(t, String(t.answer))).toBe(false)
        expect(isRight(t, NaN)).toBe(false)
      }
    }
  })

  it('per cent and millimetres undo each other, by the numbers that are asked', () => {
    for (const t of of('into-per-cent')) {
      const [travel, mm] = numbersIn(t.asks)
      expect(((t.answer as number) / 100) * travel).toBeCloseTo(mm, 0)
    }
    for (const t of of('into-mm')) {
      const [pct, travel] = numbersIn(t.asks)
      expect((100 * (t.answer as number)) / travel).toBeCloseTo(pct, 0)
    }
  })

  it('counts of one dial add up to its clicks, or to one more where the stop is one', () => {
    for (const t of of('count-bases')) {
      const [clicks, said] = numbersIn(t.asks)
      const sum = said + (t.answer as number)
      if (/stop is 1\. .*from open/.test(t.asks)) expect(sum).toBe(clicks + 1)
      else if (/stop being 0\. .*stop is 1/.test(t.asks)) expect(t.answer).toBe(said + 1)
      else expect(sum).toBe(clicks)
      expect(t.answer).toBeGreaterThanOrEqual(0)
    }
  })

  it('a lost count goes on from what was found, never from what was noted, and stays on the dial', () => {
    for (const t of of('recount')) {
      const [noted, found] = numbersIn(t.asks)
      expect(found).not.toBe(noted)
      expect(t.answer).toBe(found - 2)
      expect(t.answer).toBeGreaterThanOrEqual(0)
    }
  })

  it('readings: all three cases come, and two that disagree give no number', () => {
    const answers = of('readings').map((t) => {
      const mm = numbersIn(/read at ([\d., ]+) mm/.exec(t.asks)![1])
      const spread = Math.max(...mm) - Math.min(...mm)
      const isNone = /^No number/.test(String(t.answer))
      if (mm.length === 2) expect(isNone).toBe(spread > 2)
      else {
        // The odd one does not count: what is left is the mean of the two that agree, of the travel that is told.
        const [travel] = numbersIn(t.asks)
        const said = Number(String(t.answer).replace(' %', ''))
        expect(Math.abs(said - (50 * (mm[0] + mm[1])) / travel)).toBeLessThan(0.051)
        expect(t.because).toMatch(/stands apart/)
      }
      return `${mm.length} ${isNone}`
    })
    expect([...new Set(answers)].sort()).toEqual(['2 false', '2 true', '3 false'])
  })

  it('time between bumps: 1 m at 36 km/h is 100 ms, whatever is drawn', () => {
    for (const kmh of [10, 35])
      for (const t of of(`gap-${kmh}`)) {
        const spacingM = Number(/lie ([\d.]+) m/.exec(t.asks)![1])
        expect((t.answer as number) / ((100 * spacingM * 36) / kmh)).toBeCloseTo(1, 1)
      }
  })

  it('creeping wants faster, cycling slower, settling nothing', () => {
    for (const t of of('rebound')) {
      const wanted = /creeps/.test(t.asks) ? /faster/ : /cycling/.test(t.asks) ? /slower/ : /Leave/
      expect(t.answer).toMatch(wanted)
    }
  })

  it('says what keeps up by the two times that it tells', () => {
    const answers = new Set<string>()
    for (const t of of('keeps-up')) {
      const [between, back] = numbersIn(t.because)
      expect(t.answer === 'It keeps up').toBe(back <= between)
      answers.add(String(t.answer))
    }
    expect(answers.size).toBe(2)
  })
})
