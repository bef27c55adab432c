import { describe, expect, it } from 'vitest'
import { InputError } from '../errors.ts'
import { fork, shock, space, startPositions } from '../test/dayBuilder.ts'
import { goBackOf } from './goBack.ts'
import { parseCommand } from './parse.ts'
import { tokensOf } from './tokens.ts'

const positions = new Map(Object.entries(startPositions))
const read = (line: string) => parseCommand(line, space, positions)

describe('going back to settings that were ridden', () => {
  it.each([
    ['back to run 3', 3],
    ['go back to run 12', 12],
    ['go back to 3', 3],
    ['put run 3 back on', 3],
    ['put it back to the settings of run four', 4],
    ['back to run one', 1],
    ['back to what we had in run 2', 2],
    ['bring back run 2’s setup', 2],
    ['back to the last good one', 'best'],
    ['back to last good run', 'best'],
    ['go back to the best', 'best'],
    ['back to the best rated one', 'best'],
    ['back to the baseline', 'baseline'],
    ['go back to where we started', 'baseline'],
    ['put it back to the start settings', 'baseline'],
    // Not these:
    ['back', null],
    ['go back', null],
    ['run 3', null],
    ['the best', null],
    ['back 3', null],
    ['back to run -2', null],
    ['back to run 1.5', null],
    ['back to run 0', null],
    ['back to run 2 or 3', null],
    ['back to runs 2 3', null],
    ['rear rebound back to 3', null],
    ['back to the good', null],
    ['the baseline', null],
    ['back to where it was', null],
    ['fork back to the baseline', null],
  ])('%s → %s', (line, to) => {
    expect(goBackOf(tokensOf(line))).toBe(to)
  })
  it('is a command of its own; a part that is named is a place on its dial', () => {
    expect(read('back to run 3')).toEqual({ kind: 'back-to', run: 3 })
    expect(read('go back')).toEqual({ kind: 'undo' })
    const [r] = shock.adjusters.filter((a) => a.role === 'rebound')
    expect(read('shock rebound back to 5')).toMatchObject({
      kind: 'change',
      moves: [{ end: 'rear', adjuster: { id: r.id } }],
    })
    expect(fork.adjusters.some((a) => a.role === 'rebound')).toBe(true)
  })
  it('half a sentence is refused, not guessed', () => {
    for (const line of ['back to run', 'back to run 2 or 3', 'run 3'])
      expect(() => read(line)).toThrow(InputError)
  })
})
