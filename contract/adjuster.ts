import { z } from 'zod'
import { Id, Name } from './common.ts'

/**
 * Typed adjusters of a suspension unit, and the canonical number in which each position is stored:
 * click, turn: from fully closed (clockwise stop) = 0 · pressure: psi gauge · spacer: pieces ·
 * spring-rate: N/mm · lever: place in `positions`, 0 = most open · custom: the adjuster's own unit.
 */
export const CountBase = z.enum(['closed-0', 'closed-1', 'open'])
export type CountBase = z.infer<typeof CountBase>

export const DamperRole = z.enum([
  'compression',
  'low-speed-compression',
  'high-speed-compression',
  'rebound',
  'low-speed-rebound',
  'high-speed-rebound',
])
export type DamperRole = z.infer<typeof DamperRole>

export const Tool = z.enum(['hand', 'hex-2', 'hex-2.5', 'hex-3', 'hex-4', 'shock-pump', 'workshop'])
export type Tool = z.infer<typeof Tool>

const base = {
  id: Id,
  /** What is printed on the part, if it differs from the trade's word. */
  alias: z.string().trim().max(40).nullable(),
  tool: Tool,
}

const ordered = { error: 'The highest position must be above the lowest.' }

export const ClickAdjuster = z.strictObject({
  ...base,
  kind: z.literal('click'),
  role: DamperRole,
  clicks: z
    .number()
    .min(1, 'A click dial has at least 1 click.')
    .max(60, 'A click dial has at most 60 clicks; recount it.'),
  step: z.union([z.literal(1), z.literal(0.5)]),
  countBase: CountBase,
})

export const TurnAdjuster = z.strictObject({
  ...base,
  kind: z.literal('turn'),
  role: z.enum([...DamperRole.options, 'preload', 'start-of-stroke']),
  turns: z.number().positive('The dial needs some turns of range.').max(20, 'At most 20 turns; recount it.'),
  stepTurns: z.number().min(0.0625).max(1),
  countBase: CountBase,
})

export const PressureAdjuster = z
  .strictObject({
    ...base,
    kind: z.literal('pressure'),
    role: z.enum(['main-pressure', 'negative-pressure', 'reservoir-pressure']),
    minPsi: z.number().min(0, 'Pressure cannot be below 0 psi.').max(500),
    maxPsi: z.number().min(1).max(500, 'The maximum must be at most 500 psi; check the print on the unit.'),
    stepPsi: z.number().min(0.5).max(20),
  })
  .refine((a) => a.maxPsi > a.minPsi, ordered)

export const SpacerAdjuster = z.strictObject({
  ...base,
  kind: z.literal('spacer'),
  role: z.literal('spacers'),
  maxCount: z.number().int().min(1).max(12, 'At most 12 spacers.'),
})

export const SpringRateAdjuster = z.strictObject({
  ...base,
  kind: z.literal('spring-rate'),
  role: z.literal('spring-rate'),
  ratesNPerMm: z.array(z.number().min(5).max(250)).min(1, 'List at least one spring.').max(30),
})

export const LeverAdjuster = z.strictObject({
  ...base,
  kind: z.literal('lever'),
  role: z.literal('lever'),
  /** From most open to most closed. */
  positions: z.array(Name).min(2, 'A lever has at least two positions.').max(6),
})

export const CustomAdjuster = z
  .strictObject({
    ...base,
    kind: z.literal('custom'),
    role: z.literal('custom'),
    name: Name,
    unitLabel: z.string().trim().max(20),
    min: z.number().finite(),
    max: z.number().finite(),
    step: z.number().positive('The step must be above 0.'),
    acts: z.strictObject({
      stroke: z.enum(['start', 'middle', 'end', 'whole']),
      on: z.enum(['spring', 'compression', 'rebound', 'geometry']),
      speed: z.enum(['low', 'high', 'both']),
    }),
  })
  .refine((a) => a.max > a.min, ordered)

export const Adjuster = z.discriminatedUnion('kind', [
  ClickAdjuster,
  TurnAdjuster,
  PressureAdjuster,
  SpacerAdjuster,
  SpringRateAdjuster,
  LeverAdjuster,
  CustomAdjuster,
])
export type Adjuster = z.infer<typeof Adjuster>
export type AdjusterRole = Adjuster['role']
