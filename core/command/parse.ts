import type { Adjuster, AdjusterRole } from '#contract/adjuster'
import type { End } from '#contract/common'
import type { SetupSpace } from '../adviser/dayHistory.ts'
import { InputError } from '../errors.ts'
import { fromCount, toCount } from '../adjusters/count.ts'
import { adjusterRange, canStandAt } from '../adjusters/range.ts'
import { adjusterName, positionWords } from '../adjusters/words.ts'
import { canonicalUnits, fromChosen, type UnitChoice } from '../units/choice.ts'

/** What a typed line asks for. */
export type Command =
  { kind: 'undo' } | { kind: 'change'; moves: { end: End; adjuster: Adjuster; from: number; to: number }[] }

const ends: Record<string, End> = {
  front: 'front',
  fork: 'front',
  f: 'front',
  rear: 'rear',
  shock: 'rear',
  r: 'rear',
}

const parts: [string[], AdjusterRole[]][] = [
  [
    ['rebound', 'reb'],
    ['rebound', 'low-speed-rebound'],
  ],
  [['lsr'], ['low-speed-rebound', 'rebound']],
  [['hsr'], ['high-speed-rebound']],
  [
    ['compression', 'comp'],
    ['compression', 'low-speed-compression'],
  ],
  [['lsc'], ['low-speed-compression', 'compression']],
  [['hsc'], ['high-speed-compression']],
  [['psi', 'bar', 'pressure', 'air'], ['main-pressure']],
  [['spacer', 'spacers'], ['spacers']],
  [['spring', 'coil'], ['spring-rate']],
  [['preload'], ['preload']],
  [['lever'], ['lever']],
]

/** +1: canonical up (open, or a firmer spring). */
const directions: Record<string, { sign: 1 | -1; of: 'rebound' | 'firmness' }> = {
  slower: { sign: -1, of: 'rebound' },
  faster: { sign: 1, of: 'rebound' },
  firmer: { sign: -1, of: 'firmness' },
  softer: { sign: 1, of: 'firmness' },
}

/**
 * Reads one line such as "rear reb slower 1", "f psi +2", "shock lsc 9", "fork spacer +1 psi -4", "undo".
 * Bare numbers are positions in the part's own count; signed numbers and slower/faster/firmer/softer are steps.
 * Two parts in one line are one linked change.
 *
 * @param positions canonical position per adjuster id, as on the bike now
 * @throws InputError 'command.…' with a sentence that says what would be understood
 */
export function parseCommand(
  line: string,
  space: SetupSpace,
  positions: ReadonlyMap<string, number>,
): Command {
  const words = line.trim().toLowerCase().split(/\s+/).filter(Boolean)
  if (words.length === 0) throw new InputError('command.empty')
  if (words[0] === 'undo') return { kind: 'undo' }
  const moves: Extract<Command, { kind: 'change' }>['moves'] = []
  let end: End | null = null
  let i = 0
  while (i < words.length) {
    if (words[i] in ends && !(moves.length > 0 && i === words.length - 1)) {
      end = ends[words[i++]]
      continue
    }
    const roles = parts.find(([names]) => names.includes(words[i]))?.[1]
    if (!roles)
      throw new InputError('command.unknown-word', {
        word: words[i],
        hint: end ? `say a part: ${partHint(space, end)}` : 'start with fork or shock',
      })
    if (!end) throw new InputError('command.no-end')
    const word = words[i++]
    const adjuster = findAdjuster(space, end, roles, word)
    const from = positions.get(adjuster.id)
    if (from === undefined)
      throw new InputError('command.unread', { end, what: adjusterName(adjuster).toLowerCase() })
    const amount = readAmount(words.slice(i), adjuster, from, spokenUnits(word, space.units))
    i += amount.used
    moves.push({ end, adjuster, from, to: check(adjuster, amount.to, from) })
  }
  if (!end || moves.length === 0)
    throw new InputError('command.no-amount', { example: 'rear rebound slower 1' })
  return { kind: 'change', moves }
}

/** Words that could come next, for completion. */
export function completions(line: string, space: SetupSpace): string[] {
  const words = line.toLowerCase().split(/\s+/)
  const typed = words[words.length - 1]
  const before = words.slice(0, -1).filter(Boolean)
  const end = [...before]
    .reverse()
    .map((w) => ends[w])
    .find(Boolean)
  const known =
    before.length === 0
      ? ['fork', 'shock', 'undo']
      : !end
        ? []
        : [...partNames(space, end), 'slower', 'faster', 'firmer', 'softer']
  return known.filter((k) => k.startsWith(typed) && k !== typed)
}

function partNames(space: SetupSpace, end: End): string[] {
  const seen = new Set<string>()
  return parts.flatMap(([names, roles]) => {
    const hit = roles.map((r) => space[end]?.adjusters.find((a) => a.role === r)).find((a) => a !== undefined)
    // A single rebound dial answers to "rebound" and to "lsr"; one name is enough.
    if (!hit || seen.has(hit.id)) return []
    seen.add(hit.id)
    return [names[0]]
  })
}

const partHint = (space: SetupSpace, end: End) =>
  partNames(space, end).join(', ') || 'there is nothing to turn'

function findAdjuster(space: SetupSpace, end: End, roles: AdjusterRole[], word: string): Adjuster {
  const unit = space[end]
  const hit = roles.map((r) => unit?.adjusters.find((a) => a.role === r)).find((a) => a !== undefined)
  if (!hit) throw new InputError('command.no-adjuster', { end, what: word, has: partHint(space, end) })
  return hit
}

/** "bar" and "psi" say their unit; other words leave it to the person's choice. */
function spokenUnits(word: string, choice: UnitChoice = canonicalUnits): UnitChoice {
  return word === 'bar' || word === 'psi' ? { ...choice, pressure: word } : choice
}

/** What a typed number means for the part, canonical. */
function canonical(a: Adjuster, n: number, units: UnitChoice): number {
  if (a.kind === 'pressure') return fromChosen('pressure', n, units)
  return a.kind === 'spring-rate' ? fromChosen('springRate', n, units) : n
}

function readAmount(
  rest: string[],
  a: Adjuster,
  from: number,
  units: UnitChoice,
): { to: number; used: number } {
  const word = directions[rest[0]]
  const step = a.kind === 'turn' ? a.stepTurns : a.kind === 'pressure' && units.pressure === 'bar' ? 0.1 : 1
  if (word) {
    const isRebound = a.role.includes('rebound')
    const fits = isRebound === (word.of === 'rebound')
    if (!fits)
      throw new InputError('command.unknown-word', {
        word: rest[0],
        hint: isRebound ? 'rebound is slower or faster' : 'this is firmer or softer',
      })
    // Springs firm up with a higher number, dials with a lower one.
    const dial = a.kind === 'click' || a.kind === 'turn'
    const sign = dial ? word.sign : (-word.sign as 1 | -1)
    const n = /^\d+([.,]\d+)?$/.test(rest[1] ?? '') ? Number(rest[1].replace(',', '.')) : null
    return { to: from + sign * canonical(a, n ?? step, units), used: n === null ? 1 : 2 }
  }
  const text = rest[0]?.replace(',', '.')
  if (text === undefined || !/^[+-]?\d+(\.\d+)?$/.test(text)) {
    throw new InputError('command.no-amount', {
      example: a.role.includes('rebound') ? 'rear rebound slower 1' : 'fork psi +2',
    })
  }
  // A signed number moves the count as the person counts it: on a dial counted from open, +1 closes one click.
  if (/^[+-]/.test(text)) {
    const counted = toCount(a, from) + canonical(a, Number(text), units)
    return { to: countOr(a, counted), used: 1 }
  }
  return { to: countOr(a, canonical(a, Number(text), units)), used: 1 }
}

function countOr(a: Adjuster, count: number): number {
  try {
    return fromCount(a, count)
  } catch (e) {
    if (!(e instanceof InputError)) throw e
    throw rangeError(a, count)
  }
}

function rangeError(a: Adjuster, got: number): InputError {
  const r = adjusterRange(a)
  const shown = [positionWords(a, r.min), positionWords(a, r.max)]
  return new InputError('command.out-of-range', { what: adjusterName(a), min: shown[0], max: shown[1], got })
}

function check(a: Adjuster, to: number, from: number): number {
  const r = adjusterRange(a)
  if (to < r.min - 1e-9 || to > r.max + 1e-9) throw rangeError(a, Math.round(toCount(a, to) * 100) / 100)
  if (!canStandAt(a, to))
    throw new InputError('command.no-step', {
      what: adjusterName(a),
      step: r.step || 'the springs you own',
      got: to,
    })
  if (Math.abs(to - from) < 1e-6) throw new InputError('command.no-change', { what: adjusterName(a) })
  return to
}
