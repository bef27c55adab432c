import type { ColumnMapping } from '#contract/recording'
import { standardGravity } from '../units/convert.ts'

/** Multiplies in place. */
export function scaled(x: Float64Array, factor: number): Float64Array {
  for (let i = 0; i < x.length; i++) x[i] *= factor
  return x
}

/** Accelerations of a column in g, in place. */
export const inG = (c: ColumnMapping, x: Float64Array) =>
  c.unit === 'm/s2' ? scaled(x, 1 / standardGravity) : x
