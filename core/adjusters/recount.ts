import type { Adjuster, CountBase } from '#contract/adjuster'
import { InputError } from '../errors.ts'
import { adjusterRange } from './range.ts'

type Click = Extract<Adjuster, { kind: 'click' }>

/** What a recount from stop to stop found. */
export interface Recount {
  /** Clicks felt while closing it from where it was. */
  closingClicks: number
  /** Clicks felt from closed to fully open. */
  allClicks: number
  step: 1 | 0.5
  countBase: CountBase
}

/**
 * The dial with its counted range, and where it stood before the count, from closed.
 * @throws InputError 'recount.range' when the range is not 1 … 60, 'recount.closing' when it came from beyond it,
 *   'recount.step' when a count does not fall on the dial's steps
 */
export function recounted(dial: Click, count: Recount): { dial: Click; stoodAt: number } {
  const { closingClicks, allClicks, step, countBase } = count
  if (!(allClicks >= 1 && allClicks <= 60)) throw new InputError('recount.range', { got: allClicks })
  if (!(closingClicks >= 0 && closingClicks <= allClicks))
    throw new InputError('recount.closing', { got: closingClicks, max: allClicks })
  for (const got of [closingClicks, allClicks])
    if (!Number.isInteger(got / step)) throw new InputError('recount.step', { got, step })
  return { dial: { ...dial, clicks: allClicks, step, countBase }, stoodAt: closingClicks }
}

/**
 * How far positions stored from closed must move so that counts made from open stay what was counted, after the range
 * of a dial was corrected. 0 for dials counted from closed, whose numbers do not depend on the range.
 */
export function recountShift(before: Adjuster, after: Adjuster): number {
  const fromOpen = (a: Adjuster) => (a.kind === 'click' || a.kind === 'turn') && a.countBase === 'open'
  if (before.kind !== after.kind || !fromOpen(before) || !fromOpen(after)) return 0
  return adjusterRange(after).max - adjusterRange(before).max
}
