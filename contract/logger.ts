import { z } from 'zod'
import { Bike } from './bike.ts'
import { End } from './common.ts'
import { ChannelRole, ChannelUnit } from './recording.ts'
import { AdvisedPosition } from './setup.ts'
import { TrailSection } from './trail.ts'
import { SuspensionUnit } from './unit.ts'

/** The open protocol of a logger on the bike; described for others in docs/file-formats.md. */
export const loggerProtocol = 'wild-spring-logger/1'

/** Every code a logger refuses with. A code is stable and never reused; the detail sentence may change. */
export const loggerCodes = {
  'logger.battery-low': { status: 409, title: 'The battery is too low' },
  'logger.busy': { status: 409, title: 'It is recording already' },
  'logger.not-recording': { status: 409, title: 'It is not recording' },
  'logger.no-world': { status: 409, title: 'It is not mounted on a bike' },
  'logger.no-recording': { status: 404, title: 'There is no such recording' },
  'logger.request-invalid': { status: 422, title: 'Something in what was sent is not right' },
  'logger.no-address': { status: 404, title: 'There is no such address' },
  'logger.internal': { status: 500, title: 'Something went wrong in the device' },
} as const
export type LoggerCode = keyof typeof loggerCodes

/** problem+json (RFC 9457) of a device. */
export const LoggerProblem = z.object({
  type: z.string(),
  title: z.string(),
  status: z.number(),
  /** One sentence for people. */
  detail: z.string(),
  code: z.enum(Object.keys(loggerCodes) as [LoggerCode, ...LoggerCode[]]),
})
export type LoggerProblem = z.infer<typeof LoggerProblem>

export const LoggerChannel = z.strictObject({
  /** Column name in its files and key of its live values. */
  key: z.string().min(1).max(60),
  role: ChannelRole,
  unit: ChannelUnit,
  /** null for whole-bike channels. */
  end: End.nullable(),
  rateHz: z.number().positive(),
  /** What the sensor can read; null when it has no limit worth naming. */
  low: z.number().nullable(),
  high: z.number().nullable(),
})
export type LoggerChannel = z.infer<typeof LoggerChannel>

export const LoggerIdentity = z.strictObject({
  protocol: z.literal(loggerProtocol),
  name: z.string().max(80),
  serial: z.string().max(40),
  kind: z.enum(['chamber-pressure', 'travel']),
  /** True for a stand-in that rides simulated trails. */
  standIn: z.boolean(),
  channels: z.array(LoggerChannel).min(1).max(20),
})
export type LoggerIdentity = z.infer<typeof LoggerIdentity>

export const LoggerState = z.strictObject({
  batteryPct: z.number().min(0).max(100),
  /** The device's own clock, ms; it may be set anew at any time. */
  clockMs: z.number(),
  recording: z.strictObject({ id: z.string(), seconds: z.number(), finished: z.boolean() }).nullable(),
})
export type LoggerState = z.infer<typeof LoggerState>

/** One live sample; a channel without a reading is null. */
export const LiveSample = z.strictObject({
  clockMs: z.number(),
  values: z.record(z.string(), z.number().nullable()),
})
export type LiveSample = z.infer<typeof LiveSample>

/** A measured hold: every channel averaged over some seconds. */
export const HoldRequest = z.strictObject({ seconds: z.number().min(1).max(20) })
export const Hold = z.strictObject({
  seconds: z.number(),
  channels: z.record(
    z.string(),
    z.strictObject({
      mean: z.number(),
      sd: z.number(),
      /** Straight-line slope over the hold, unit per second. */
      slopePerS: z.number(),
      samples: z.number().int(),
    }),
  ),
})
export type Hold = z.infer<typeof Hold>

export const StoredRecording = z.strictObject({
  id: z.string(),
  name: z.string(),
  seconds: z.number(),
  bytes: z.number().int(),
  /** False when the device broke off. */
  complete: z.boolean(),
})
export type StoredRecording = z.infer<typeof StoredRecording>

export const LoggerFaults = z.strictObject({
  leakingAdapter: z.boolean(),
  dropOuts: z.boolean(),
  clockJump: z.boolean(),
  flatBattery: z.boolean(),
  wrongRange: z.boolean(),
})
export type LoggerFaults = z.infer<typeof LoggerFaults>

/** Stand-in only: what it is mounted on and where it rides. */
export const StandInWorld = z.strictObject({
  bike: Bike,
  units: z.array(SuspensionUnit).max(2),
  positions: z.array(AdvisedPosition).max(24),
  ridingMassKg: z.number().positive().max(250),
  sections: z.array(TrailSection).min(1).max(24),
  groundSeed: z.number().int(),
  runSeed: z.number().int(),
})
export type StandInWorld = z.infer<typeof StandInWorld>

/** Stand-in only: what hands do to the bike in the stand. */
export const StandInHands = z.strictObject({
  pose: z.enum(['extended', 'compressed', 'standing', 'leaned']),
  /** How deep they lean on it, % of the stroke. */
  depthPct: z.number().min(0).max(100).optional(),
  air: z.enum(['filled', 'let-out']),
})
export type StandInHands = z.infer<typeof StandInHands>

/** A logger the server may talk to. */
export const LoggerAtHand = z.strictObject({
  index: z.number().int(),
  /** null when it does not answer. */
  identity: LoggerIdentity.nullable(),
})
export type LoggerAtHand = z.infer<typeof LoggerAtHand>
