import { describe, expect, it } from 'vitest'
import { space, startPositions } from '../test/dayBuilder.ts'
import { canonicalUnits } from '../units/choice.ts'
import { completions } from './complete.ts'
import { parseCommand } from './parse.ts'

const positions = new Map(Object.entries(startPositions))
const moves = (line: string) => {
  const c = parseCommand(line, space, positions)
  return c.kind !== 'change' ? c.kind : c.moves.map((m) => `${m.adjuster.id} ${m.from}→${m.to}`).join(', ')
}

describe('the command line', () => {
  it('moves by the rider’s words', () => {
    expect(moves('rear reb slower 1')).toBe('rr 7→6')
    expect(moves('shock rebound faster 2')).toBe('rr 7→9')
    expect(moves('fork lsc firmer')).toBe('fc 8→7')
    expect(moves('f psi firmer 3')).toBe('fp 80→83')
  })
  it('steps with a sign, sets without one', () => {
    expect(moves('f psi +2')).toBe('fp 80→82')
    expect(moves('fork lsc 9')).toBe('fc 8→9')
  })
  it('takes bar where it is said, or where the person reads bar', () => {
    expect(moves('f bar 5.6')).toMatch(/^fp 80→81\.22/)
    const c = parseCommand(
      'f pressure +0.2',
      { ...space, units: { ...canonicalUnits, pressure: 'bar' } },
      positions,
    )
    expect(c.kind === 'change' && c.moves[0].to).toBeCloseTo(80 + 0.2 * 14.5038, 3)
    expect(moves('f psi +2')).toBe('fp 80→82')
  })
  it('a dial counted from open is set in its own count', () => {
    // 14 clicks, counted from open: "5" stands 9 clicks from closed, and +1 closes one click.
    expect(moves('shock rebound 5')).toBe('rr 7→9')
    expect(moves('shock rebound +1')).toBe('rr 7→6')
  })
  it('takes two parts as one linked change', () => {
    expect(moves('shock spacer +1 psi -4')).toBe('rs 1→2, rp 180→176')
  })
  it('knows undo', () => {
    expect(moves('undo')).toBe('undo')
  })
  const bad: [string, RegExp][] = [
    ['', /Type what to change/],
    ['rebound slower 1', /which end/],
    ['rear hsc softer 1', /has no hsc; it has rebound, psi, spacer/],
    ['rear wobble 3', /not understood/],
    ['rear rebound', /how far/],
    ['rear rebound firmer 1', /slower or faster/],
    ['fork lsc 20', /goes from 0 clicks to 16 clicks/],
    ['f psi 400', /40 psi to 140 psi; 400 is outside/],
    ['fork lsc 8.5', /steps of 1/],
    ['fork lsc 8', /already there/],
  ]
  for (const [line, sentence] of bad) {
    it(`refuses "${line}" with a sentence that helps`, () => {
      expect(() => moves(line)).toThrow(sentence)
    })
  }
  it('completes words', () => {
    expect(completions('sh', space)).toEqual(['shock'])
    expect(completions('rear re', space)).toEqual(['rebound'])
  })
})
