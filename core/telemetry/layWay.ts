import type { Fix } from '../geo/fix.ts'
import { wayOf } from '../geo/way.ts'
import { onClock } from '../signal/resample.ts'
import type { CleanRecording } from './cleanRecording.ts'

/** Receivers and wheel sensors tell less often; between two of their values the way is straight. */
export const longestFixPauseS = 2.5

/** Fixes where the coordinates changed: loggers repeat the last one, or leave it blank. */
export function fixesOf(timeS: Float64Array, latitude: Float64Array, longitude: Float64Array): Fix[] {
  const fixes: Fix[] = []
  for (let i = 0; i < timeS.length; i++) {
    const [lat, lon] = [latitude[i], longitude[i]]
    if (!(Math.abs(lat) <= 90 && Math.abs(lon) <= 180)) continue
    const last = fixes[fixes.length - 1]
    if (last && last.latitudeDeg === lat && last.longitudeDeg === lon && timeS[i] - last.timeS < 1) continue
    fixes.push({ timeS: timeS[i], latitudeDeg: lat, longitudeDeg: lon, elevationM: 0 })
  }
  return fixes
}

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
