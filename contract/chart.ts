import { z } from 'zod'
import { Id } from './common.ts'

/** What a maker's chart is read by: riding weight in kg, or the pressure in psi. */
export const ChartInput = z.enum(['riding-mass-kg', 'pressure-psi'])
export type ChartInput = z.infer<typeof ChartInput>

export const ChartRow = z.strictObject({
  /** kg or psi, by `input`. */
  at: z.number().min(0).max(500),
  /** Canonical position of the adjuster. */
  value: z.number().finite(),
})
export type ChartRow = z.infer<typeof ChartRow>

/** What a unit's own chart says for its rider's weight: the weight itself stays with the rider. */
export const ChartPressure = z.strictObject({
  unitId: Id,
  psi: z.number().positive(),
  source: z.string(),
})
export type ChartPressure = z.infer<typeof ChartPressure>

/** A chart of the unit's or frame's maker: one adjuster over weight or pressure. */
export const Chart = z.strictObject({
  id: Id,
  adjusterId: Id,
  input: ChartInput,
  source: z.string().trim().min(1, 'Say where the chart comes from, for example "manual, page 12".').max(120),
  rows: z
    .array(ChartRow)
    .min(2, 'A chart needs at least two rows.')
    .max(60, 'A chart has at most 60 rows.')
    .refine((r) => r.every((x, i) => i === 0 || x.at > r[i - 1].at), {
      error: 'The rows of a chart must rise in weight or pressure from row to row.',
    }),
})
export type Chart = z.infer<typeof Chart>
