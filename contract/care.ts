import { z } from 'zod'
import { CalendarDay, End, Id, Name, Note, Version } from './common.ts'

/** A pump gauge. Two gauges can disagree by 10 psi, so each has a name and an offset. */
export const Gauge = z.strictObject({
  id: Id,
  version: Version,
  name: Name,
  /** What it shows above the true pressure; below 0 = shows too little. */
  readsHighPsi: z
    .number()
    .min(-30, 'A gauge that is off by more than 30 psi should be replaced.')
    .max(30, 'A gauge that is off by more than 30 psi should be replaced.'),
  /** Air in hose and pump head, lost to them on every reconnecting. */
  hoseCc: z.number().min(0, 'The hose cannot hold less than 0 cm³.').max(60),
  note: Note,
})
export type Gauge = z.infer<typeof Gauge>

/** Lent out: to whom, and since when. */
export const Loan = z.strictObject({ to: Name, since: CalendarDay })
export type Loan = z.infer<typeof Loan>

/** Where a piece is that does not lie on the shelf. */
export const PieceOut = z.discriminatedUnion('where', [
  z.strictObject({ where: z.literal('bike'), bikeId: Id, end: End }),
  Loan.extend({ where: z.literal('loan') }),
])
export type PieceOut = z.infer<typeof PieceOut>

const stock = {
  id: Id,
  version: Version,
  name: Name,
  count: z.number().int().min(0, 'A count cannot be negative.').max(99),
  /** Whose it is; null: nobody’s in particular. */
  ownerId: Id.nullable().default(null),
  /** A line for each piece that is elsewhere. */
  out: z.array(PieceOut).max(99).default([]),
  note: Note,
}

export const StockSpring = z.strictObject({
  ...stock,
  kind: z.literal('spring'),
  rateNPerMm: z
    .number()
    .min(5, 'A spring rate must be at least 5 N/mm.')
    .max(250, 'A spring rate must be at most 250 N/mm; was it typed in lb/in?'),
  /** Longest stroke it may be used on. */
  strokeMm: z.number().min(20).max(260).nullable(),
  /** Progressive springs: rate at points of its compression. */
  ratePoints: z
    .array(z.strictObject({ atMm: z.number().min(0).max(260), nPerMm: z.number().min(5).max(400) }))
    .min(2)
    .max(30)
    .refine((r) => r.every((x, i) => i === 0 || x.atMm > r[i - 1].atMm), {
      error: 'The rows of the rate table must rise from row to row.',
    })
    .nullable(),
})

export const StockSpacer = z.strictObject({
  ...stock,
  kind: z.literal('spacer'),
  /** The unit it fits; null = not tied to one. */
  unitId: Id.nullable(),
})

/** Springs and spacers on the shelf. */
export const StockItem = z
  .discriminatedUnion('kind', [StockSpring, StockSpacer])
  .refine((s) => s.out.length <= s.count, {
    error: 'More pieces are on bikes or lent than there are.',
    path: ['count'],
  })
export type StockItem = z.infer<typeof StockItem>
export type StockSpring = z.infer<typeof StockSpring>

export const ServiceKind = z.enum([
  'pressure-check',
  'small-service',
  'full-service',
  'seals',
  'oil',
  're-valved',
  'new-part',
  'other',
])
export type ServiceKind = z.infer<typeof ServiceKind>

/** One line of the service log. */
export const ServiceEntry = z.strictObject({
  id: Id,
  version: Version,
  bikeId: Id,
  /** null = the whole bike. */
  unitId: Id.nullable(),
  kind: ServiceKind,
  date: CalendarDay,
  airTempC: z.number().min(-30).max(50).nullable(),
  altitudeM: z.number().min(-430).max(6000).nullable(),
  place: z.string().trim().max(80),
  note: Note,
})
export type ServiceEntry = z.infer<typeof ServiceEntry>
