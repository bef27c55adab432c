import { describe, expect, it } from 'vitest'
import type { Adjuster } from '#contract/adjuster'
import { toCount } from '../adjusters/count.ts'
import { adjusterRange } from '../adjusters/range.ts'
import { positionWords, shortName } from '../adjusters/words.ts'
import { coil } from '../adviser/test/fieldCase.ts'
import { InputError } from '../errors.ts'
import { seededRandom } from '../numeric/random.ts'
import { fork, shock } from '../test/dayBuilder.ts'
import { numberWords } from './lexicon.ts'
import { parseCommand } from './parse.ts'

/** A turn as it may be: a dial of either end, counted from anywhere, and where it goes. */
interface Turn {
  end: 'fork' | 'shock'
  dial: Adjuster & { kind: 'click' }
  from: number
  to: number
}
const bases = ['closed-0', 'closed-1', 'open'] as const
const dialRoles = [
  'rebound',
  'low-speed-rebound',
  'high-speed-rebound',
  'compression',
  'low-speed-compression',
  'high-speed-compression',
] as const

function drawnTurn(seed: number): Turn {
  const random = seededRandom(seed)
  const below = (n: number) => Math.floor(random() * n)
  const clicks = 6 + below(20)
  const from = below(clicks + 1)
  const to = (from + 1 + below(clicks)) % (clicks + 1)
  const dial = {
    id: 'dial',
    alias: null,
    tool: 'hand',
    kind: 'click',
    role: dialRoles[below(dialRoles.length)],
    clicks,
    step: 1,
    countBase: bases[below(3)],
  } as const
  return { end: random() < 0.5 ? 'fork' : 'shock', dial, from, to }
}

function read(line: string, { end, dial, from }: Turn): string {
  const [own, other] = end === 'fork' ? [fork, shock] : [shock, fork]
  const unit = { ...own, adjusters: [dial] }
  const space = end === 'fork' ? { front: unit, rear: other } : { front: other, rear: unit }
  const c = parseCommand(line, space, new Map([['dial', from]]))
  return c.kind === 'change' ? c.moves.map((m) => `${m.adjuster.id} ${m.from}→${m.to}`).join() : c.kind
}
function readOrRefused(line: string, turn: Turn): string {
  try {
    return read(line, turn)
  } catch (e) {
    if (e instanceof InputError) return 'refused'
    throw e
  }
}
const wordOf = (n: number) => [...numberWords].find(([, x]) => x === n)?.[0] ?? String(n)
const turns = Array.from({ length: 60 }, (_, i) => drawnTurn(4100 + i))
const waysOf = ({ dial, from, to }: Turn) => {
  const [lower, higher] = dial.role.includes('rebound') ? ['slower', 'faster'] : ['firmer', 'softer']
  return to > from ? [higher, lower] : [lower, higher]
}

describe('one turn said in many ways', () => {
  it('is the same turn', () => {
    for (const turn of turns) {
      const { end, dial, from, to } = turn
      const part = dial.role
      const by = Math.abs(to - from)
      const [way] = waysOf(turn)
      const [at, there] = [toCount(dial, from), toCount(dial, to)]
      const stop = to === 0 ? 'closed' : 'open'
      const lines = [
        `${end} ${part} ${way} ${by}`,
        `${by} ${way} ${end} ${part}`,
        `${end} ${part} ${by} clicks ${way}`,
        `Make the ${end} ${part} ${wordOf(by)} clicks ${way}.`,
        `${end} ${part} ${way} +${by}`,
        `  ${end.toUpperCase()}   ${part.replaceAll('-', ' ').toUpperCase()} ${way} ${by} `,
        `${end === 'fork' ? 'front' : 'rear'} ${shortName(dial)} ${way} ${by}`,
        `${end} ${part} ${to > from ? 'out' : 'in'} ${by}`,
        `${end} ${part} ${there}`,
        `${end} ${part} to ${wordOf(there)}`,
        `${end} ${part} ${at} → ${there}`,
        `${end} ${part} from ${at} to ${there}`,
        `${end} ${part} ${at}->${there} ${way}`,
        `${end} ${part} ${positionWords(dial, to)}`,
        `${end} ${part} ${way} to ${there}`,
        `${end} ${part} ${there > at ? '+' : '-'}${by}`,
        `${end} ${part} ${to} from closed`,
        `${end} ${part} ${adjusterRange(dial).max - to} from open`,
        ...(to === 0 || to === dial.clicks ? [`${end} ${part} 0 from ${stop}`] : []),
      ]
      for (const line of lines)
        expect(readOrRefused(line, turn), `${line} (${dial.countBase})`).toBe(`dial ${from}→${to}`)
    }
  })

  it('is never the other way, nor done where it must not be', () => {
    for (const turn of turns) {
      const { end, dial, from, to } = turn
      const part = dial.role
      const by = Math.abs(to - from)
      const [way, other] = waysOf(turn)
      const [at, there] = [toCount(dial, from), toCount(dial, to)]
      for (const line of [
        `${end} ${part} ${other} to ${there}`,
        `${end} ${part} ${at} → ${there} ${other}`,
        `${end} ${part} ${way} -${by}`,
        `${end} ${part} -${by} ${way}`,
        `${end} ${part} not ${way} ${by}`,
        `don’t make the ${end} ${part} ${by} ${way}`,
        `no ${way} ${end} ${part} than ${by}`,
        `${end} ${part} ${at + (at > 1 ? -1 : 1)} → ${there}`,
        `${end} tyre ${part} ${way} ${by}`,
      ])
        expect(readOrRefused(line, turn), `${line} (${dial.countBase})`).toBe('refused')
    }
  })

  it.each([
    ['fork psi softer -3', 'fp 77'],
    ['fork down -3 psi', 'fp 77'],
    ['fork psi firmer +3', 'fp 83'],
    ['fork psi softer +3', 'refused'],
    ['fork psi firmer -3', 'refused'],
    ['fork up -3 psi', 'refused'],
    ['add -2 psi to the fork', 'refused'],
    ['take the fork to 84 psi', 'fp 84'],
    ['fork down to 84 psi', 'refused'],
    ['fork up to 84 psi', 'fp 84'],
    ['fork psi firmer to 75', 'refused'],
    ['fork .2 bar up', 'fp 82.9'],
    ['fork eighty-four psi', 'fp 84'],
    ['shock one eighty five psi', 'rp 185'],
    ['shock psi two hundred', 'rp 200'],
    ['shock psi to a hundred and ninety', 'rp 190'],
    ['one volume spacer out of the shock', 'rs 0'],
  ])('of what is pumped and packed: %s → %s', (line, expected) => {
    const positions = new Map(Object.entries({ fp: 80, rp: 180, rs: 1 }))
    const said = () => {
      try {
        const c = parseCommand(line, { front: fork, rear: shock }, positions)
        return c.kind === 'change'
          ? c.moves.map((m) => `${m.adjuster.id} ${Math.round(m.to * 10) / 10}`).join()
          : c.kind
      } catch (e) {
        if (e instanceof InputError) return 'refused'
        throw e
      }
    }
    expect(said()).toBe(expected)
  })

  // A coil goes to the next one that is owned; 80 N/mm are 457 lb/in.
  it.each([
    ['firmer spring', 80],
    ['softer spring', 70],
    ['shock spring firmer', 80],
    ['shock spring 70', 70],
    ['shock spring to 80', 80],
    ['shock spring 77', 'command.no-step'],
    ['shock spring 1 firmer', 'command.no-step'],
    ['shock spring firmer to 70', 'command.other-way'],
  ])('of a coil: %s → %s', (line, expected) => {
    const said = (at: number) => {
      try {
        const c = parseCommand(
          line,
          { front: fork, rear: { ...shock, adjusters: [coil] } },
          new Map([['coil', at]]),
        )
        return c.kind === 'change' ? c.moves[0].to : c.kind
      } catch (e) {
        if (e instanceof InputError) return e.code
        throw e
      }
    }
    expect(said(75)).toBe(expected)
    // There is no coil beyond the last.
    if (line === 'firmer spring') expect(said(80)).toBe('command.out-of-range')
  })
})
