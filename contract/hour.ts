import { z } from 'zod'
import { Id, Instant, Note } from './common.ts'
import { Surface } from './conditions.ts'

export const TrackChange = z.enum(['rougher', 'smoother', 'drier', 'wetter', 'looser'])
export type TrackChange = z.infer<typeof TrackChange>

/** The parts of a line of the log by the hour. What nobody has noted is null. */
export const hourParts = {
  id: Id,
  at: Instant,
  airTempC: z
    .number()
    .min(-30, 'Air below −30 °C is not plausible.')
    .max(50, 'Air above 50 °C is not plausible; was it typed in °F?')
    .nullable(),
  altitudeM: z
    .number()
    .min(-430, 'Nobody rides below −430 m.')
    .max(6000, 'Above 6000 m is not plausible; was it typed in feet?')
    .nullable(),
  surface: Surface.nullable(),
  /** Against the line before it. */
  track: z.array(TrackChange).max(5),
  note: Note,
}

interface Noted {
  airTempC: number | null
  altitudeM: number | null
  surface: Surface | null
  track: readonly TrackChange[]
  note: string
}
export const saysSomething = (h: Noted): boolean =>
  h.airTempC !== null || h.altitudeM !== null || h.surface !== null || h.track.length > 0 || h.note !== ''
export const sayAtLeast = 'Note at least one of air, height, ground and track.'

/** How it was on the trail from an instant on, as somebody noted it then. */
export const HourLine = z.strictObject(hourParts).refine(saysSomething, { error: sayAtLeast })
export type HourLine = z.infer<typeof HourLine>
