import type { Adjuster } from '#contract/adjuster'
import { InputError } from '../errors.ts'
import { fromCount } from './count.ts'
import { canStandAt } from './range.ts'

/**
 * Where a part stands, from the number that was counted or read: clicks by the part's own count, all else canonical.
 * @throws InputError 'clicks.out-of-range' as `fromCount`, 'adjuster.cannot-stand' where the part has no such place
 */
export function foundPlace(a: Adjuster, counted: number): number {
  const value = fromCount(a, counted)
  if (!canStandAt(a, value)) throw new InputError('adjuster.cannot-stand')
  return value
}
