import type { End } from '#contract/common'
import type { RecordingEvent } from '#contract/recording'

/** Told from a depth, as against a speed or the way of the valleys. */
const fromDepth: ReadonlySet<RecordingEvent['kind']> = new Set([
  'bottom-out',
  'hard-bottom-out',
  'landing',
  'top-out',
])

/** Events without those that rest on depths of a sensor whose zero has moved. */
export const believedEvents = (
  events: readonly RecordingEvent[],
  wrongDepths: readonly End[],
): RecordingEvent[] => events.filter((e) => !(fromDepth.has(e.kind) && wrongDepths.includes(e.end)))
