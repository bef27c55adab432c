import type { Adjuster } from '#contract/adjuster'
import { fromCount, toCount } from '../adjusters/count.ts'
import { adjusterRange, canStandAt } from '../adjusters/range.ts'
import { adjusterName, positionWords } from '../adjusters/words.ts'
import { InputError } from '../errors.ts'
import { canonicalUnits, fromChosen, type UnitChoice } from '../units/choice.ts'
import type { Effect } from './lexicon.ts'
import type { Clause } from './clause.ts'

const isDial = (a: Adjuster) => a.kind === 'click' || a.kind === 'turn'
const isRebound = (a: Adjuster) => a.role.includes('rebound')

/**
 * Where a part goes by what was said of it, canonical.
 *
 * @param from  where it stands, canonical
 * @throws InputError when it cannot stand there, or when it was not said which way or how far
 */
export function target(c: Clause, a: Adjuster, from: number, choice: UnitChoice = canonicalUnits): number {
  if (c.place) return check(a, c.place.at, from)
  const units = unitsOf(c, choice)
  const n = c.number
  // "open the lever"
  const named = a.kind === 'lever' && !n ? a.positions.findIndex((p) => p.toLowerCase() === c.said) : -1
  if (named >= 0) return check(a, named, from)
  if (n && c.countedFrom && isDial(a)) {
    const { max } = adjusterRange(a)
    return thatWay(c, a, from, check(a, c.countedFrom === 'closed' ? n.value : max - n.value, from), choice)
  }
  if (n && (c.absolute || (!c.effect && !n.signed)))
    return thatWay(c, a, from, check(a, countOr(a, canonical(a, n.value, units)), from), choice)
  // A signed number moves the count as the person counts it: on a dial counted from open, +1 closes one click.
  if (n && n.signed && !c.effect)
    return check(a, countOr(a, toCount(a, from) + canonical(a, n.value, units)), from)
  // "lsc closed", "let some air out", "more pressure": all the way, or by how much?
  if (!c.effect || (!n && (c.effect.of === 'turning' || (c.effect.of === 'number' && c.effect.loose))))
    throw new InputError('command.no-amount', {
      example: isRebound(a) ? 'rear rebound slower 1' : 'fork psi +2',
    })
  const sign = signOf(a, c.effect)
  // "slower -1" on a dial, "softer +3" on a spring: one of the two is not meant.
  if (n?.signed && (isDial(a) ? n.value < 0 : Math.sign(n.value) !== sign))
    throw new InputError('command.sign-and-way', { sign: n.value < 0 ? '−' : '+', way: c.said! })
  const { allowed } = adjusterRange(a)
  if (!n && allowed) {
    // A coil goes to the next one that is owned.
    const at = allowed.findIndex((x) => Math.abs(x - from) < 1e-6)
    const next = allowed[at + sign]
    if (at < 0 || next === undefined) throw rangeError(a, from)
    return next
  }
  const step = a.kind === 'turn' ? a.stepTurns : a.kind === 'pressure' && units.pressure === 'bar' ? 0.1 : 1
  const by = Math.abs(canonical(a, n ? Math.abs(n.value) : step, units))
  return check(a, from + sign * by, from)
}

const unitsOf = (c: Clause, choice: UnitChoice) =>
  c.pressureUnit ? { ...choice, pressure: c.pressureUnit } : choice

/** Whether a part stands where a line says it does, to what a gauge or an eye tells apart. */
export function standsAt(
  a: Adjuster,
  at: number,
  said: number,
  c: Clause,
  choice: UnitChoice = canonicalUnits,
): boolean {
  const apart = a.kind === 'pressure' ? 0.5 : 1e-6
  return Math.abs(toCount(a, at) - canonical(a, said, unitsOf(c, choice))) <= apart
}

/** A place that is said with a way lies that way. @throws InputError 'command.other-way' */
function thatWay(c: Clause, a: Adjuster, from: number, to: number, choice: UnitChoice): number {
  const { effect, said } = c
  // "take the shock to 185" takes nothing away.
  if (!effect || said === 'take' || (effect.of === 'number' && effect.loose)) return to
  const isUp = effect.of === 'number' ? toCount(a, to) > toCount(a, from) : to > from
  if (from === to || Number.isNaN(from) || isUp === wayOf(a, effect) > 0) return to
  const [shownFrom, shownTo] = [from, to].map((x) => positionWords(a, x, choice))
  throw new InputError('command.other-way', { from: shownFrom, to: shownTo, way: said! })
}
const wayOf = (a: Adjuster, e: Effect) => (e.of === 'number' ? e.sign : signOf(a, e))

/** +1: canonical up (a dial opens, a spring gets firmer). @throws InputError 'command.unknown-word', 'command.which-way' */
function signOf(a: Adjuster, e: Effect): 1 | -1 {
  switch (e.of) {
    case 'rebound':
    case 'firmness': {
      if (isRebound(a) !== (e.of === 'rebound'))
        throw new InputError('command.unknown-word', {
          word: e.of === 'rebound' ? (e.sign > 0 ? 'faster' : 'slower') : e.sign > 0 ? 'softer' : 'firmer',
          hint: isRebound(a) ? 'rebound is slower or faster' : 'this is firmer or softer',
        })
      // Springs firm up with a higher number, dials with a lower one.
      return isDial(a) ? e.sign : (-e.sign as 1 | -1)
    }
    case 'turning':
      // In and out of a chamber: air and spacers go in for more of them.
      return isDial(a) ? e.sign : (-e.sign as 1 | -1)
    case 'number':
      // A dial's numbers run either way: up and down would be a guess.
      if (isDial(a))
        throw new InputError('command.which-way', {
          what: adjusterName(a),
          words: isRebound(a) ? 'slower or faster' : 'firmer or softer',
        })
      return e.sign
  }
}

/** What a typed number means for the part, canonical. */
function canonical(a: Adjuster, n: number, units: UnitChoice): number {
  if (a.kind === 'pressure') return fromChosen('pressure', n, units)
  return a.kind === 'spring-rate' ? fromChosen('springRate', n, units) : n
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
