import { z } from 'zod'
import {
  ClickAdjuster,
  CustomAdjuster,
  LeverAdjuster,
  PressureAdjuster,
  SpacerAdjuster,
  SpringRateAdjuster,
  TurnAdjuster,
} from './adjuster.ts'
import { BenchStep } from './bench.ts'
import { End, Instant, Name, Note } from './common.ts'
import { Surface } from './conditions.ts'
import { Purpose } from './kept.ts'
import { KnownHow } from './setup.ts'
import { SuspensionUnit } from './unit.ts'

/** Newer cards are refused in one sentence; older ones are lifted (docs/file-formats.md). */
export const cardVersion = 1

/** Where a dial stands on a card. A value of null: nobody had read it. */
const stands = { value: z.number().finite().nullable(), how: KnownHow.nullable() }
const noId = { id: true } as const

/** A dial with what is needed to make it anew elsewhere: everything but its id. */
export const CardDial = z.discriminatedUnion('kind', [
  ClickAdjuster.omit(noId).extend(stands),
  TurnAdjuster.omit(noId).extend(stands),
  z.strictObject({ ...PressureAdjuster.shape, ...stands }).omit(noId),
  SpacerAdjuster.omit(noId).extend(stands),
  SpringRateAdjuster.omit(noId).extend(stands),
  LeverAdjuster.omit(noId).extend(stands),
  z.strictObject({ ...CustomAdjuster.shape, ...stands }).omit(noId),
])
export type CardDial = z.infer<typeof CardDial>

const unit = SuspensionUnit.shape
export const CardUnit = z.strictObject({
  end: End,
  name: Name,
  spring: unit.spring,
  strokeMm: unit.strokeMm,
  sagTargetPct: unit.sagTargetPct,
  revalved: unit.revalved,
  dials: z.array(CardDial).max(12),
})
export type CardUnit = z.infer<typeof CardUnit>

const Pct = z.number().min(0).max(100).nullable()
const Posture = z.enum(['seated', 'ready']).nullable()

/** A setup that is handed on: what stands where, on which dials, and what it was found in. No ids, no weight unless asked. */
export const SetupCard = z.strictObject({
  card: z.literal('setup'),
  version: z.literal(cardVersion),
  name: Name,
  bike: Name,
  /** First name; empty: not said. */
  rider: z.string().trim().max(80),
  ridingMassKg: z.number().min(25).max(220).nullable(),
  madeAt: Instant,
  by: z.string().trim().max(80),
  purposes: z.array(Purpose).max(8),
  found: z.strictObject({
    place: z.string().trim().max(80),
    airTempC: z.number().min(-30).max(50).nullable(),
    altitudeM: z.number().min(-430).max(6000).nullable(),
    surface: Surface.nullable(),
  }),
  sag: z.strictObject({ frontPct: Pct, rearPct: Pct, front: Posture, rear: Posture }),
  rearWheelTravelMm: z.number().min(40).max(260).nullable(),
  tyreFrontPsi: z.number().min(5).max(60).nullable(),
  tyreRearPsi: z.number().min(5).max(60).nullable(),
  geometry: z.string().trim().max(160),
  words: Note,
  /** What was left out on the bench it came from, or left out of line, and why. */
  notDone: z
    .array(
      z.strictObject({
        step: BenchStep,
        state: z.enum(['skipped', 'out']),
        reason: z.string().trim().max(200),
      }),
    )
    .max(20)
    .default([]),
  units: z.array(CardUnit).min(1).max(2),
})
export type SetupCard = z.infer<typeof SetupCard>
