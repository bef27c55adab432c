import type { Fix } from '../geo/fix.ts'
import { wayOf } from '../geo/way.ts'
import { onClock } from '../signal/resample.ts'
import type { CleanRecording } from './cleanRecording.ts'

/** Receivers and wheel sensors tell less often; between two of their values the way is straight. */
export const longestFixPauseS = 2.5

/** Lays the distance and speed of a way on a recording that does not have them yet. `offsetS`: time 0 of the fixes. */
export function layWay(recording: CleanRecording, fixes: readonly Fix[], offsetS: number): void {
  if (fixes.length < 2) return
  const track = wayOf(fixes)
  const { timeS, wayM, speedMS } = track
  const { sampleRateHz: rate, samples } = recording
  const on = (values: Float64Array) => onClock(timeS, values, offsetS, rate, samples, longestFixPauseS)
  recording.distanceM ??= on(wayM)
  recording.speedMS ??= on(speedMS)
  recording.way ??= { track, offsetS }
}
