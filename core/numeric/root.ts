import { InputError } from '../errors.ts'

/**
 * Root of a function that rises through zero once between `low` and `high`, by bisection to full double precision.
 * @throws InputError 'root.not-bracketed' when both ends have the same sign
 */
export function rootOfRising(f: (x: number) => number, low: number, high: number): number {
  if (f(low) > 0 || f(high) < 0) throw new InputError('root.not-bracketed', { low, high })
  for (let i = 0; i < 200; i++) {
    const mid = (low + high) / 2
    if (mid === low || mid === high) break
    if (f(mid) > 0) high = mid
    else low = mid
  }
  return (low + high) / 2
}

/** Place of the least value of a function with one valley between `low` and `high` (golden section). */
export function valleyOf(f: (x: number) => number, low: number, high: number, tolerance = 1e-6): number {
  const golden = (Math.sqrt(5) - 1) / 2
  let a = high - golden * (high - low)
  let b = low + golden * (high - low)
  let fa = f(a)
  let fb = f(b)
  while (high - low > tolerance) {
    if (fa < fb) {
      high = b
      b = a
      fb = fa
      a = high - golden * (high - low)
      fa = f(a)
    } else {
      low = a
      a = b
      fa = fb
      b = low + golden * (high - low)
      fb = f(b)
    }
  }
  return (low + high) / 2
}
