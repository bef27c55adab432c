import { z } from 'zod'
import { Id, Version } from './common.ts'

/** There is one for the whole house. */
export const letterheadId = '018f0000-0000-7000-8000-000000000001'

/** A PNG of this many letters is far more than a mark on paper needs. */
export const mostMarkLetters = 120_000

/** What stands at the top of every card that is handed out: a line, and a mark. */
export const Letterhead = z.strictObject({
  id: Id,
  version: Version,
  /** "Fernhollow Bike Shop, 12 Mill Lane"; empty: no line. */
  line: z.string().trim().max(80, 'The line at the top has at most 80 letters.'),
  /** PNG as a data address; null: no mark. */
  mark: z
    .string()
    .regex(/^data:image\/png;base64,[A-Za-z0-9+/]+=*$/, 'A mark is a PNG picture.')
    .max(mostMarkLetters, 'The mark is too big; take a picture of at most 600 points across.')
    .nullable(),
})
export type Letterhead = z.infer<typeof Letterhead>
