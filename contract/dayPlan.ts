import { z } from 'zod'
import { Id, Instant } from './common.ts'

/** What is to be done if the next run comes so, as a rider or coach planned it on a day. */
export const DayPlan = z.strictObject({
  id: Id,
  at: Instant,
  /** "if worse, shock reb slower 1". */
  text: z
    .string()
    .trim()
    .min(1, 'Say what is to be done, and when.')
    .max(200, 'A plan has at most 200 letters.'),
  /** The last run when it was made; null: none had been ridden. */
  afterRunId: Id.nullable(),
  /** When it was done or dropped. */
  closedAt: Instant.nullable(),
})
export type DayPlan = z.infer<typeof DayPlan>
