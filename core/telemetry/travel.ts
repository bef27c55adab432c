import type { End } from '#contract/common'
import type { ColumnMapping } from '#contract/recording'
import { InputError } from '../errors.ts'
import { wheelTravelMm } from '../linkage/leverage.ts'
import { quantileSorted } from '../signal/quantile.ts'
import { psiPerBar } from '../units/convert.ts'
import { isManyPoint, isPressure, isTwoPoint, readingsToMm } from './calibrate.ts'
import type { CleanRecording, TravelGeometry } from './cleanRecording.ts'
import { issue } from './issues.ts'
import { travelFromPressure } from './pressure.ts'
import { pressureIssues } from './pressureIssues.ts'
import { repairSpikesInto } from './repair.ts'
import { scaled } from './scaled.ts'
import { senseOf } from './sense.ts'

/**
 * Turns a column of readings into depth in % of travel and lays it on the recording, with an issue for all that is odd.
 *
 * @param x readings on the recording's clock, used up
 * @throws InputError 'mapping.no-stroke', 'channel.empty', 'channel.constant', 'channel.outside', 'calibration.…'
 */
export function addTravel(
  result: CleanRecording,
  end: End,
  column: ColumnMapping,
  x: Float64Array,
  g: TravelGeometry,
): void {
  const pressure = column.role.endsWith('pressure')
  const role = column.role.replaceAll('-', ' ')
  const unitMm = end === 'front' ? g.frontTravelMm : g.rearStrokeMm
  if (unitMm === null) throw new InputError('mapping.no-stroke', { end })
  if (pressure && g.coils?.includes(end)) throw new InputError('mapping.coil', { end })
  const isAtWheel = column.role === 'rear-wheel-travel'
  if (isAtWheel && !g.leverage) throw new InputError('mapping.no-wheel-travel')
  /** What the sensor sees at full compression. */
  const strokeMm = isAtWheel ? wheelTravelMm(unitMm, g.leverage!) : unitMm
  const sorted = x.filter(Number.isFinite).sort()
  if (sorted.length === 0) throw new InputError('channel.empty', { role })
  if (sorted[sorted.length - 1] === sorted[0]) throw new InputError('channel.constant', { role })
  const limit = sorted[countsDown(column) ? 0 : sorted.length - 1]
  const clipped = samplesAtLimit(x, limit, result.sampleRateHz)
  // At the stop of the unit it is a bottom-out that was held, no end of the sensor.
  const isStop = !pressure && Math.abs(mmOf(column, limit, strokeMm) / strokeMm - 1) <= stopWithin
  if (clipped > 0 && !isStop)
    result.issues.push(
      issue(
        'clipped',
        `${role[0].toUpperCase()}${role.slice(1)} stands at its last reading (${plain(limit)}) for ${clipped} samples: the sensor's range is too small for this unit, so deep hits are cut off.`,
        clipped,
      ),
    )
  if (pressure) pressureToMm(result, x, column, strokeMm, role)
  else {
    readingsToMm(x, column, strokeMm)
    checkSense(result, x, column, strokeMm, role)
  }
  const { repaired, gapped } = repairSpikesInto(x, result.sampleRateHz)
  if (repaired + gapped > 0) {
    result.issues.push(
      issue(
        'spikes',
        `${repaired + gapped} samples of ${role} moved faster than a wheel can (12 m/s); short ones were bridged, long ones left as gaps.`,
        repaired + gapped,
      ),
    )
  }
  let travelMm = strokeMm
  if (end === 'rear' && !isAtWheel) {
    const lever = g.leverage
    if (lever) {
      for (let i = 0; i < x.length; i++) x[i] = wheelTravelMm(x[i], lever)
      travelMm = wheelTravelMm(strokeMm, lever)
    } else result.rearAt = 'shaft'
  }
  let beyond = 0
  for (let i = 0; i < x.length; i++) {
    x[i] = (100 * x[i]) / travelMm
    if (x[i] > 105 || x[i] < -5) beyond++
  }
  // A few are told of; where most are, the numbers tell something else than depth.
  if (beyond > mostOutside * sorted.length) {
    const depths = x.filter(Number.isFinite).sort()
    throw new InputError('channel.outside', {
      role,
      strokeMm: Math.round(strokeMm),
      low: Math.round(quantileSorted(depths, 0.05)),
      high: Math.round(quantileSorted(depths, 0.95)),
    })
  }
  if (beyond > 0.001 * x.length) {
    result.issues.push(
      issue(
        'beyond-travel',
        `${beyond} samples of ${role} lie outside 0 to 100 % of ${Math.round(strokeMm)} mm; check the unit of the column, the calibration and the stroke in the garage.`,
        beyond,
      ),
    )
  }
  const used = usedPct(x)
  if (used < leastUsedPct)
    result.issues.push(
      issue(
        'little-travel',
        `${role[0].toUpperCase()}${role.slice(1)} moves over only ${Math.round(used)} % of ${Math.round(travelMm)} mm in the whole recording; check the unit of the column and the calibration before its figures are believed.`,
      ),
    )
  result.ends.push(end)
  result.depthPct[end] = x
  result.travelMm[end] = travelMm
}

/** So near to full compression the unit itself stops, share of its stroke. */
const stopWithin = 0.02
/** Share of the readings outside the travel from which none of them is believed. */
const mostOutside = 0.5
/** A ride uses more of its travel than this, %. */
const leastUsedPct = 15

/** One reading in mm. */
function mmOf(column: ColumnMapping, reading: number, fullMm: number): number {
  const one = Float64Array.of(reading)
  readingsToMm(one, column, fullMm)
  return one[0]
}

/** Span of all but the outermost hundredth at each side, % of travel. */
function usedPct(depthPct: Float64Array): number {
  const known = depthPct.filter(Number.isFinite).sort()
  return known.length ? quantileSorted(known, 0.99) - quantileSorted(known, 0.01) : 0
}

const psiPer = { psi: 1, bar: psiPerBar, kPa: psiPerBar / 100 }

function pressureToMm(
  result: CleanRecording,
  x: Float64Array,
  column: ColumnMapping,
  strokeMm: number,
  role: string,
): void {
  if (!isPressure(column.calibration)) throw new InputError('calibration.pressure-missing')
  scaled(x, column.unit === 'bar' || column.unit === 'kPa' ? psiPer[column.unit] : 1)
  const { calibration } = column
  const found = travelFromPressure(x, result.sampleRateHz, calibration)
  for (let i = 0; i < x.length; i++) x[i] = found.share[i] * strokeMm
  result.issues.push(...pressureIssues(found, calibration, strokeMm, role))
}

/**
 * A sensor mounted the other way round shrinks when the bike compresses: turned round where nothing was calibrated, told
 * where the ride contradicts a calibration, asked where it does not tell.
 * @param x mm along what the sensor sees; turned in place
 */
function checkSense(
  result: CleanRecording,
  x: Float64Array,
  column: ColumnMapping,
  strokeMm: number,
  role: string,
): void {
  const turned = `The ${role} channel shrinks when the bike compresses`
  const known = x.filter(Number.isFinite).sort()
  const [low, middle] = [0.02, 0.5].map((p) => quantileSorted(known, p))
  const negative = middle < 0 && low < -0.1 * strokeMm
  const sense = senseOf(x.map((mm) => (negative ? mm + strokeMm : mm) / strokeMm))
  if (column.calibration) {
    const outside = middle < -0.1 * strokeMm || middle > 0.75 * strokeMm
    if (outside || sense === 'deeper-is-less')
      result.issues.push(
        issue(
          'sign-suspect',
          outside
            ? `${turned}, or its calibration was taken the wrong way round: half of the ride lies ${middle < 0 ? 'beyond full extension' : 'near full compression'}.`
            : `${turned}, or its calibration was taken the wrong way round: it comes out faster than it goes in.`,
        ),
      )
    return
  }
  // Below zero and yet deeper is more: no sign is wrong, but its zero; what lies outside the travel is told.
  if (sense === 'deeper-is-more') return
  if (sense === 'unclear' && !negative) {
    result.issues.push(
      issue(
        'sign-unclear',
        `Nothing in this ride tells whether the ${role} channel grows or shrinks when the bike compresses; it was read as growing. Press the bike down once and look, or give two calibration points.`,
      ),
    )
    return
  }
  for (let i = 0; i < x.length; i++) x[i] = (negative ? 0 : strokeMm) - x[i]
  result.issues.push(issue('sign-flipped', `${turned}; its sign was turned round.`))
}

/** Whether deeper means a smaller reading. */
function countsDown({ calibration: c }: ColumnMapping): boolean {
  if (isTwoPoint(c)) return c.compressedReading < c.extendedReading
  return isManyPoint(c) && c.points[c.points.length - 1].reading < c.points[0].reading
}

/** Samples in stretches of 40 ms or more at one end of the readings, if there are several such stretches. */
function samplesAtLimit(x: Float64Array, limit: number, rate: number): number {
  const long = Math.max(4, Math.round(0.04 * rate))
  let [run, stretches, samples] = [0, 0, 0]
  for (let i = 0; i <= x.length; i++) {
    if (i < x.length && x[i] === limit) run++
    else {
      if (run >= long) {
        stretches++
        samples += run
      }
      run = 0
    }
  }
  return stretches >= 2 ? samples : 0
}

const plain = (v: number) => String(Math.round(v * 100) / 100)
