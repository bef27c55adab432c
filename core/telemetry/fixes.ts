import type { ImportIssue } from '#contract/recording'
import type { Fix } from '../geo/fix.ts'
import { soundFixes } from '../geo/soundFixes.ts'
import { issue } from './issues.ts'

const onEarth = (lat: number, lon: number) => Math.abs(lat) <= 90 && Math.abs(lon) <= 180

/** Fixes where the coordinates changed: loggers repeat the last one, or leave it blank. */
export function fixesOf(timeS: Float64Array, latitude: Float64Array, longitude: Float64Array): Fix[] {
  const fixes: Fix[] = []
  for (let i = 0; i < timeS.length; i++) {
    const [lat, lon] = [latitude[i], longitude[i]]
    if (!onEarth(lat, lon)) continue
    const last = fixes[fixes.length - 1]
    if (last && last.latitudeDeg === lat && last.longitudeDeg === lon && timeS[i] - last.timeS < 1) continue
    fixes.push({ timeS: timeS[i], latitudeDeg: lat, longitudeDeg: lon, elevationM: null })
  }
  return fixes
}

/** Says so where a file's places are written otherwise than in degrees: none of them can be laid. */
export function unreadPlaces(latitude: Float64Array, longitude: Float64Array): ImportIssue[] {
  let [told, off] = [0, 0]
  for (let i = 0; i < latitude.length; i++) {
    if (!Number.isFinite(latitude[i]) || !Number.isFinite(longitude[i])) continue
    told++
    if (!onEarth(latitude[i], longitude[i])) off++
  }
  if (off <= told / 2) return []
  return [
    issue(
      'places-unread',
      'The latitude and longitude columns hold no degrees, so the way was left out. Write them as degrees with decimals, 46.2512345: minutes and whole numbers are not told from them.',
      off,
    ),
  ]
}

/** Fixes of the ride; what was left out is said. */
export function saidSound(fixes: readonly Fix[], fileName: string, issues: ImportIssue[]): Fix[] {
  const { fixes: sound, left } = soundFixes(fixes)
  if (left > 0)
    issues.push(
      issue(
        'fixes-left-out',
        `${left} of ${fixes.length} places of ${fileName} are none of the ride and were left out: at 0°, 0°, or farther off than anybody comes from one to the next.`,
        left,
      ),
    )
  return sound
}
