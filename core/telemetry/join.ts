import type { AddedFile, ImportIssue } from '#contract/recording'
import { InputError } from '../errors.ts'
import type { GpxTrack } from '../formats/gpx.ts'
import { wayOf } from '../geo/way.ts'
import { onClock } from '../signal/resample.ts'
import type { CleanRecording } from './cleanRecording.ts'
import { fineLag } from './fineLag.ts'
import { saidSound } from './fixes.ts'
import { tellFrozen } from './frozen.ts'
import { layWay } from './layWay.ts'
import { issue } from './issues.ts'
import { liveliness, matchOffset, perStep } from './match.ts'
import { paceFromWheelbase } from './wheelbase.ts'

export interface Placed {
  offsetS: number
  offsetBy: AddedFile['offsetBy']
}

const leastOverlapS = 5

/** Correlation that is believed: of speeds, and of mere liveliness, which also grows with rough ground. */
const sure = { speed: 0.6, liveliness: 0.8 }

/** Course of the pace per half second, and how alike another must be to be the same ride. */
function pace(r: CleanRecording): { course: Float64Array; sure: number } {
  if (r.speedMS) return { course: perStep(r.speedMS, r.sampleRateHz), sure: sure.speed }
  const { front, rear } = r.depthPct
  if (front && rear) return { course: paceFromWheelbase(front, rear, r.sampleRateHz), sure: sure.speed }
  return { course: livelinessOf(r), sure: sure.liveliness }
}

/**
 * Lays a further logger's channels on the clock of a recording; only what it does not have yet is taken.
 *
 * @param given when the file begins on the recording's clock, s; null: by their dates, else by likeness, else both at 0
 * @throws InputError 'join.apart', 'join.nothing'
 */
export function joinRecording(
  main: CleanRecording,
  other: CleanRecording,
  fileName: string,
  given: number | null,
): Placed {
  const { told, ...placed } = placeRecording(main, other, fileName, given)
  const { sampleRateHz: rate, samples } = main
  overlapOrThrow(fileName, placed.offsetS, other.samples / other.sampleRateHz, samples / rate)
  const timeS = Float64Array.from({ length: other.samples }, (_, i) => i / other.sampleRateHz)
  const bridge = 2.5 / other.sampleRateHz
  const on = (x: Float64Array) => onClock(timeS, x, placed.offsetS, rate, samples, bridge)
  let taken = 0
  for (const end of other.ends) {
    if (main.depthPct[end]) continue
    main.depthPct[end] = on(other.depthPct[end]!)
    main.travelMm[end] = other.travelMm[end]
    main.ends.push(end)
    if (end === 'rear') main.rearAt = other.rearAt
    taken++
  }
  main.ends.sort()
  tellFrozen(main)
  for (const end of ['front', 'rear'] as const) {
    const g = other.axleG[end]
    if (g && !main.axleG[end]) {
      main.axleG[end] = on(g)
      taken++
    }
  }
  for (const key of ['barG', 'speedMS', 'distanceM'] as const) {
    const x = other[key]
    if (x && !main[key]) {
      main[key] = on(x)
      taken++
    }
  }
  if (other.way && !main.way)
    main.way = { track: other.way.track, offsetS: other.way.offsetS + placed.offsetS }
  if (taken === 0) throw new InputError('join.nothing', { file: fileName, has: 'all of its channels' })
  if (told) main.issues.push(told)
  main.issues.push(...other.issues.map((i) => ({ ...i, message: `${fileName}: ${i.message}` })))
  return placed
}

function placeRecording(
  main: CleanRecording,
  other: CleanRecording,
  fileName: string,
  given: number | null,
): Placed & { told?: ImportIssue } {
  if (given !== null) return { offsetS: given, offsetBy: 'given' }
  if (main.startEpochS !== null && other.startEpochS !== null)
    return { offsetS: other.startEpochS - main.startEpochS, offsetBy: 'clock' }
  // Both ends ride the same ground at nearly the same moment, so their liveliness runs alike.
  const found =
    main.speedMS && other.speedMS
      ? matchOffset(pace(main).course, pace(other).course, sure.speed)
      : matchOffset(livelinessOf(main), livelinessOf(other), sure.speed)
  if (!found)
    return {
      offsetS: 0,
      offsetBy: 'start',
      told: issue(
        'matched',
        `Nothing tells when ${fileName} began against the recording; both were begun together. Say how many seconds after its start it began.`,
      ),
    }
  const fine = fineLag(main, other, found.offsetS)
  const offsetS = fine?.offsetS ?? found.offsetS
  const how = fine
    ? `what both ends met, to about ${fine.withinS} s (correlation ${fine.correlation.toFixed(2)})`
    : `its liveliness, to about half a second (correlation ${found.correlation.toFixed(2)}): balance, flight and what the rear meets after the front are not to be trusted`
  return {
    offsetS,
    offsetBy: 'matched',
    told: issue(
      'matched',
      `${fileName} was laid on the recording by ${how}, beginning at ${offsetS.toFixed(2)} s; set the offset by hand if the two look shifted.`,
    ),
  }
}

const livelinessOf = (r: CleanRecording) => liveliness(r.depthPct[r.ends[0]]!, r.sampleRateHz)

/**
 * Lays the way of a GPX track under a recording: distance and speed.
 *
 * @param given when the track's first fix lies on the recording's clock, s; null: by dates, else by likeness
 * @throws InputError 'join.no-match', 'join.apart', 'join.nothing', 'gpx.no-place'
 */
export function joinTrack(
  main: CleanRecording,
  track: GpxTrack,
  fileName: string,
  given: number | null,
): Placed {
  if (main.distanceM && main.speedMS)
    throw new InputError('join.nothing', { file: fileName, has: 'distance and speed' })
  const told: ImportIssue[] = []
  const fixes = saidSound(track.fixes, fileName, told)
  if (fixes.length < 2) throw new InputError('gpx.no-place')
  if (track.dropped > 0)
    told.push(
      issue(
        'points-left-out',
        `${track.dropped} points of ${fileName} have no time or no place; they were left out.`,
        track.dropped,
      ),
    )
  const first = fixes[0].timeS
  const placed = ((): Placed => {
    if (given !== null) return { offsetS: given, offsetBy: 'given' }
    if (main.startEpochS !== null) return { offsetS: first - main.startEpochS, offsetBy: 'clock' }
    const { timeS, speedMS } = wayOf(fixes)
    const seconds = timeS[timeS.length - 1] - first
    const uniform = onClock(timeS, speedMS, -first, 4, Math.floor(seconds * 4), 5)
    // Standing about before and after says nothing of where the ride lies.
    const moving = perStep(uniform, 4).map((v) => (v < 1 ? NaN : v))
    const { course, sure: least } = pace(main)
    const found = matchOffset(course, moving, least)
    if (!found) throw new InputError('join.no-match', { file: fileName })
    return { offsetS: found.offsetS, offsetBy: 'matched' }
  })()
  const { sampleRateHz: rate, samples } = main
  overlapOrThrow(fileName, placed.offsetS, fixes[fixes.length - 1].timeS - first, samples / rate)
  layWay(
    main,
    fixes.map((f) => ({ ...f, timeS: f.timeS - first })),
    placed.offsetS,
  )
  main.issues.push(...told)
  if (placed.offsetBy === 'matched')
    main.issues.push(
      issue(
        'matched',
        `${fileName} was laid on the recording by its likeness, beginning at ${placed.offsetS.toFixed(1)} s; set the offset by hand if the sections look shifted.`,
      ),
    )
  return placed
}

function overlapOrThrow(file: string, offsetS: number, otherS: number, mainS: number): void {
  const overlap = Math.min(mainS, offsetS + otherS) - Math.max(0, offsetS)
  if (overlap < Math.min(leastOverlapS, mainS / 2))
    throw new InputError('join.apart', { file, offsetS: Math.round(offsetS) })
}
