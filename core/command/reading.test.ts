import { describe, expect, it } from 'vitest'
import type { SuspensionUnit } from '#contract/unit'
import { canonicalUnits } from '../units/choice.ts'
import { fork, shock, startPositions } from '../test/dayBuilder.ts'
import { parseCommand } from './parse.ts'

const positions = new Map(Object.entries(startPositions))
const space = { front: fork, rear: shock, units: canonicalUnits }
const read = (line: string, at = positions, on: typeof space = space) => {
  const c = parseCommand(line, on, at)
  return c.kind === 'read' ? c.parts.map((p) => [p.end, p.adjuster.id, p.value, p.was]) : c
}
const was = (id: string) => positions.get(id)

describe('a position that is read', () => {
  // "Where are you?" – "Eight." This shock counts from open: 8 of its 14 clicks are 6 from closed.
  it.each([
    ['read shock reb 8', [['rear', 'rr', 6, was('rr')]]],
    ['counted fork lsc 11', [['front', 'fc', 11, was('fc')]]],
    ['read shock rebound at eight', [['rear', 'rr', 6, was('rr')]]],
    ['found the fork at 78 psi', [['front', 'fp', 78, was('fp')]]],
    ['read shock reb unsure', [['rear', 'rr', null, was('rr')]]],
    ['read shock reb not sure', [['rear', 'rr', null, was('rr')]]],
    [
      'read fork reb 5 and shock reb 8',
      [
        ['front', 'fr', 5, was('fr')],
        ['rear', 'rr', 6, was('rr')],
      ],
    ],
  ])('%s', (line, parts) => {
    expect(read(line)).toEqual(parts)
  })
  it('may be where it was said to stand: that confirms it, where a turn to it would be none', () => {
    const line = `shock reb ${14 - was('rr')!}`
    expect(() => parseCommand(line, space, positions)).toThrow(/already there/)
    expect(read(`read ${line}`)).toEqual([['rear', 'rr', was('rr'), was('rr')]])
  })
  it('may be of a dial that nobody had read, which nothing turns', () => {
    const unread = new Map([...positions].filter(([id]) => id !== 'rr'))
    expect(() => parseCommand('shock reb slower 1', space, unread)).toThrow(/Nobody has read/)
    expect(read('read shock reb 8', unread)).toEqual([['rear', 'rr', 6, undefined]])
  })
  it('is counted as its dial counts', () => {
    const fromClosed: SuspensionUnit = {
      ...shock,
      adjusters: shock.adjusters.map((a) =>
        a.id === 'rr' && a.kind === 'click' ? { ...a, countBase: 'closed-1' as const } : a,
      ),
    }
    expect(read('read shock reb 3', positions, { ...space, rear: fromClosed })).toEqual([
      ['rear', 'rr', 2, was('rr')],
    ])
  })
  it.each([
    ['read', /Say what was read/],
    ['read shock reb', /Say what was read/],
    ['read shock reb slower 1', /Say what was read/],
    ['read shock reb +1', /Say what was read/],
    ['read shock reb 40', /goes from/],
    ['read shock wobble 3', /is not understood/],
  ])('%s is refused: a step, nothing, or a place where it cannot stand', (line, words) => {
    expect(() => parseCommand(line, space, positions)).toThrow(words)
  })
  it('a line without the word stays a turn', () => {
    expect(parseCommand('shock reb 8', space, positions).kind).toBe('change')
  })
})
