import { z } from 'zod'
import { CalendarDay, Id, Note, Version } from './common.ts'
import { Conditions } from './conditions.ts'
import { DayPlan } from './dayPlan.ts'
import { HourLine } from './hour.ts'

/** One day of testing: one rider, one bike, one trail. */
export const TrailDay = z.strictObject({
  id: Id,
  version: Version,
  date: CalendarDay,
  riderId: Id,
  bikeId: Id,
  trailId: Id,
  startSetupId: Id,
  conditions: Conditions,
  /** How it was since then, as it was noted; of a tent its own log holds beside it. */
  hours: z.array(HourLine).max(48, 'A day’s log holds at most 48 lines.').default([]),
  /** What is to be done if the next run comes so; done and dropped ones stay. */
  plans: z.array(DayPlan).max(48, 'A day holds at most 48 plans.').default([]),
  /** Changes per day after which the tool asks whether to call it a day. */
  changeLimit: z.number().int().min(1).max(30),
  /** Set when the rider is happy: the day is closed to proposals until reopened. */
  settledSetupId: Id.nullable(),
  /** Race day: nothing new is tried; only heat, track and a step back are answered. */
  purpose: z.enum(['testing', 'race']).default('testing'),
  /** The rider judges blind: settings and data stay covered until the feel of the last run is in. */
  blind: z.boolean().default(false),
  /** Judged on its own: what earlier days of this rider on this bike taught is left out. */
  judgedAlone: z.boolean().default(false),
  note: Note,
})
export type TrailDay = z.infer<typeof TrailDay>
