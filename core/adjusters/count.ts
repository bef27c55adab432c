import type { Adjuster } from '#contract/adjuster'
import { InputError } from '../errors.ts'
import { adjusterRange } from './range.ts'

/**
 * The number a person counts, from the canonical position.
 * closed-0: the stop is 0 · closed-1: the stop is 1 · open: counted back from fully open.
 * Lever positions and pressures are shown as they are stored.
 */
export function toCount(a: Adjuster, value: number): number {
  if (a.kind !== 'click' && a.kind !== 'turn') return value
  const { max } = adjusterRange(a)
  return a.countBase === 'open' ? max - value : a.countBase === 'closed-1' ? value + 1 : value
}

/**
 * The canonical position, from the number a person counted.
 * @throws InputError 'clicks.out-of-range' when a click or turn dial cannot stand there
 */
export function fromCount(a: Adjuster, count: number): number {
  if (a.kind !== 'click' && a.kind !== 'turn') return count
  const { min, max } = adjusterRange(a)
  const value = a.countBase === 'open' ? max - count : a.countBase === 'closed-1' ? count - 1 : count
  if (!(value >= min && value <= max)) throw new InputError('clicks.out-of-range', { got: count, max })
  return value
}

/** What the number means, in words to stand beside it. */
export function countBaseWords(a: Adjuster): string {
  if (a.kind !== 'click' && a.kind !== 'turn') return ''
  return a.countBase === 'open'
    ? 'from open'
    : a.countBase === 'closed-1'
      ? 'from closed, stop is 1'
      : 'from closed'
}
