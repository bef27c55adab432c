import type { CountBase } from '#contract/adjuster'
import type { End } from '#contract/common'

export type PressureUnit = 'psi' | 'bar' | 'kPa'
export type RateUnit = 'N/mm' | 'lb/in'

/** What a column of somebody's own table of settings is. */
export type ColumnUse =
  | { use: 'ignore' }
  | { use: 'date' }
  | { use: 'name' }
  | { use: 'place' }
  | { use: 'note' }
  | {
      use: 'dial'
      end: End
      adjusterId: string
      /** Where the numbers of a click or turn dial are counted from. */
      base: CountBase
      /** Of a pressure, of a spring. */
      pressure: PressureUnit
      rate: RateUnit
    }
