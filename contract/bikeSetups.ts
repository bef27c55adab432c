import { z } from 'zod'
import { CalendarDay, End, Id } from './common.ts'
import { Conditions } from './conditions.ts'
import { TrailDay } from './day.ts'
import { KeptSetup } from './kept.ts'
import { FeelWord } from './run.ts'
import { Setup } from './setup.ts'
import { SuspensionUnit } from './unit.ts'

/** What a setup was ridden on, a line for each day. */
export const RiddenOn = z.strictObject({
  setupId: Id,
  dayId: Id,
  date: CalendarDay,
  trailName: z.string(),
  place: z.string(),
  /** Of its last counted run on that day: as noted at it or in the log by the hour, else as the day began. */
  conditions: Conditions,
  purpose: TrailDay.shape.purpose,
  /** All runs, also those that do not count. */
  runs: z.number().int().min(0),
  /** Of the counted runs, in their order. */
  ratings: z.array(z.number()),
  countedRuns: z.number().int().min(0),
  /** What was said of it on counted runs, and on how many of them. */
  words: z.array(z.strictObject({ word: FeelWord, end: z.enum([...End.options, 'both']), runs: z.number() })),
  /** Tyres as they were read last on that day; null: not read. */
  tyreFrontPsi: z.number().nullable(),
  tyreRearPsi: z.number().nullable(),
  /** The day ended on it, and the rider was happy. */
  settled: z.boolean(),
})
export type RiddenOn = z.infer<typeof RiddenOn>

/** Everything a bike has ever stood at, and what is known of each. */
export const BikeSetups = z.strictObject({
  bikeId: Id,
  /** In the order they were saved; wishes that nobody has turned among them. */
  setups: z.array(Setup),
  /** Units of all these setups, also those that are on no bike any more. */
  units: z.array(SuspensionUnit),
  kept: z.array(KeptSetup),
  /** Newest day first. */
  ridden: z.array(RiddenOn),
})
export type BikeSetups = z.infer<typeof BikeSetups>

/** Rows of somebody's own table of settings, oldest first, each kept by a name. They stood on the bike once. */
export const NotedSetups = z.strictObject({
  setups: z.array(Setup).min(1).max(200, 'Bring in at most 200 rows at a time.'),
  kept: z.array(KeptSetup).max(200),
})
export type NotedSetups = z.infer<typeof NotedSetups>
