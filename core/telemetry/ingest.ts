import type { End } from '#contract/common'
import type { ColumnMapping, ImportIssue, ImportMapping } from '#contract/recording'
import { limits } from '#contract/limits'
import { InputError } from '../errors.ts'
import { readDelimited, type DelimitedTable } from '../formats/delimited.ts'
import { sniffLayout } from '../formats/layout.ts'
import { wheelTravelMm, type Leverage } from '../linkage/leverage.ts'
import { wayOf, type Fix } from '../geo/way.ts'
import { median, quantileSorted } from '../signal/quantile.ts'
import { onClock, resampleUniform } from '../signal/resample.ts'
import { psiPerBar, standardGravity } from '../units/convert.ts'
import { isManyPoint, isPressure, isTwoPoint, readingsToMm } from './calibrate.ts'
import { repairClock, type RepairedClock } from './clock.ts'
import { issue } from './issues.ts'
import { checkMapping, columnFor } from './mapping.ts'
import { travelFromPressure } from './pressure.ts'
import { repairSpikesInto } from './repair.ts'

/** What the file cannot say: how long the units are and how the rear wheel moves. */
export interface TravelGeometry {
  frontTravelMm: number | null
  rearStrokeMm: number | null
  leverage: Leverage | null
}

/** Cleaned channels on one uniform clock from 0. */
export interface CleanRecording {
  sampleRateHz: number
  samples: number
  ends: End[]
  /** Depth in % of travel, 0 = extended; NaN = gap. */
  depthPct: Partial<Record<End, Float64Array>>
  /** Travel that 100 % stands for, mm: fork travel, rear axle travel (or shaft stroke). */
  travelMm: Partial<Record<End, number>>
  rearAt: 'axle' | 'shaft'
  speedMS: Float64Array | null
  distanceM: Float64Array | null
  /** Accelerations, g. */
  barG: Float64Array | null
  axleG: Partial<Record<End, Float64Array>>
  /** Instant of time 0 in seconds since 1970, where the file's clock tells. */
  startEpochS: number | null
  issues: ImportIssue[]
}

const delimiterWords: Record<ImportMapping['delimiter'], string> = {
  ',': 'commas',
  ';': 'semicolons',
  '\t': 'tabs',
  '|': 'bars',
  ' ': 'spaces',
}

/**
 * From the bytes of a delimited text file to cleaned channels.
 *
 * @param onProgress 0 … 1 and what is being done; throw from it to cancel
 * @throws InputError 'file.…', 'mapping.…', 'time.…', 'channel.…'
 * Cost O(bytes).
 */
export function ingestDelimited(
  bytes: Uint8Array,
  mapping: ImportMapping,
  geometry: TravelGeometry,
  onProgress: (share: number, doing: string) => void = () => {},
): CleanRecording {
  refuseLongRows(bytes)
  const layout = sniffLayout(bytes)
  if (layout.columns.length > limits.fileColumns)
    throw new InputError('file.columns', { got: layout.columns.length, max: limits.fileColumns })
  checkMapping(mapping, layout.columns.length)
  const used = mapping.columns.filter((c) => c.role !== 'ignore')
  const timeColumn = columnFor(mapping, 'time')
  const table = readDelimited(bytes, {
    delimiter: mapping.delimiter,
    decimal: mapping.decimal,
    skipBytes: layout.skipBytes,
    firstRowLine: layout.firstRowLine,
    columns: used.map((c) => c.column),
    clockColumn: timeColumn?.column ?? -1,
    onProgress: (share) => onProgress(share * 0.7, 'Reading the file'),
  })
  if (table.lines.length === 0) {
    if (layout.delimiter !== mapping.delimiter) {
      throw new InputError('mapping.delimiter', {
        found: delimiterWords[layout.delimiter],
        asked: delimiterWords[mapping.delimiter],
      })
    }
    throw new InputError('file.no-numbers')
  }
  onProgress(0.72, 'Putting the samples on one clock')
  const issues = tableIssues(table)
  const clock = timeColumn
    ? timeFromColumn(table, used.indexOf(timeColumn), timeColumn)
    : timeFromRate(table, mapping.sampleRateHz!)
  issues.push(...clockIssues(clock))
  const rate = clock.sampleRateHz
  const durationS = clock.timeS[clock.timeS.length - 1]
  const samples = Math.floor(durationS * rate + 1e-3) + 1
  // Said before memory is taken: a few rows with pauses between them may ask for hours of samples.
  if (!(samples <= limits.fileSamples))
    throw new InputError('file.samples', {
      rateHz: Math.round(rate),
      durationS: Math.round(durationS),
      got: samples,
      max: limits.fileSamples,
    })
  const leaps = clock.gaps + clock.resets + clock.jumps
  if (leaps > limits.fileGaps) throw new InputError('file.gaps', { got: leaps, max: limits.fileGaps })
  const kept = (c: ColumnMapping) => {
    const raw = table.columns[used.indexOf(c)]
    const out = new Float64Array(clock.rows.length)
    for (let i = 0; i < out.length; i++) out[i] = raw[clock.rows[i]]
    return out
  }
  const uniform = (c: ColumnMapping, maxGapS: number) =>
    resampleUniform(clock.timeS, kept(c), rate, samples, Math.max(maxGapS, 1.5 / rate))

  const result: CleanRecording = {
    sampleRateHz: rate,
    samples,
    ends: [],
    depthPct: {},
    travelMm: {},
    rearAt: 'axle',
    speedMS: null,
    distanceM: null,
    barG: null,
    axleG: {},
    startEpochS: clock.startEpochS,
    issues,
  }
  for (const end of ['front', 'rear'] as const) {
    const column = columnFor(mapping, `${end}-travel`) ?? columnFor(mapping, `${end}-pressure`)
    if (column) {
      onProgress(0.8, `Cleaning ${end} travel`)
      addTravel(result, end, column, uniform(column, longestBridgeS), geometry)
    }
    const axle = columnFor(mapping, `${end}-axle-acceleration`)
    if (axle) result.axleG[end] = inG(axle, uniform(axle, longestBridgeS))
  }
  const bar = columnFor(mapping, 'bar-acceleration')
  if (bar) result.barG = inG(bar, uniform(bar, longestBridgeS))
  const speed = columnFor(mapping, 'speed')
  if (speed) result.speedMS = scaled(uniform(speed, longestFixPauseS), speed.unit === 'km/h' ? 1 / 3.6 : 1)
  const distance = columnFor(mapping, 'distance')
  if (distance)
    result.distanceM = scaled(uniform(distance, longestFixPauseS), distance.unit === 'km' ? 1000 : 1)
  const latitude = columnFor(mapping, 'latitude')
  const longitude = columnFor(mapping, 'longitude')
  if (latitude && longitude) layWay(result, fixesOf(clock.timeS, kept(latitude), kept(longitude)), 0)
  onProgress(0.9, 'Cleaned')
  return result
}

/** Longer pauses of a sensor stay gaps. */
const longestBridgeS = 0.05
/** Receivers and wheel sensors tell less often; between two of their values the way is straight. */
const longestFixPauseS = 2.5

const inG = (c: ColumnMapping, x: Float64Array) => (c.unit === 'm/s2' ? scaled(x, 1 / standardGravity) : x)

/** Fixes where the coordinates changed: loggers repeat the last one, or leave it blank. */
function fixesOf(timeS: Float64Array, latitude: Float64Array, longitude: Float64Array): Fix[] {
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
  const { timeS, wayM, speedMS } = wayOf(fixes)
  const { sampleRateHz: rate, samples } = recording
  const on = (values: Float64Array) => onClock(timeS, values, offsetS, rate, samples, longestFixPauseS)
  recording.distanceM ??= on(wayM)
  recording.speedMS ??= on(speedMS)
}

function scaled(x: Float64Array, factor: number): Float64Array {
  for (let i = 0; i < x.length; i++) x[i] *= factor
  return x
}

function addTravel(
  result: CleanRecording,
  end: End,
  column: ColumnMapping,
  x: Float64Array,
  g: TravelGeometry,
): void {
  const pressure = column.role.endsWith('pressure')
  const role = column.role.replace('-', ' ')
  const strokeMm = end === 'front' ? g.frontTravelMm : g.rearStrokeMm
  if (strokeMm === null) throw new InputError('mapping.no-stroke', { end })
  const sorted = x.filter(Number.isFinite).sort()
  if (sorted.length === 0) throw new InputError('channel.empty', { role })
  if (sorted[sorted.length - 1] === sorted[0]) throw new InputError('channel.constant', { role })
  const limit = sorted[countsDown(column) ? 0 : sorted.length - 1]
  const clipped = samplesAtLimit(x, limit, result.sampleRateHz)
  if (clipped > 0)
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
    checkSign(result, x, sorted, column, strokeMm, role)
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
  if (end === 'rear') {
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
  if (beyond > 0.001 * x.length) {
    result.issues.push(
      issue(
        'beyond-travel',
        `${beyond} samples of ${role} lie outside 0 to 100 % of ${Math.round(strokeMm)} mm; check the unit of the column, the calibration and the stroke in the garage.`,
        beyond,
      ),
    )
  }
  result.ends.push(end)
  result.depthPct[end] = x
  result.travelMm[end] = travelMm
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
  const found = travelFromPressure(x, result.sampleRateHz, column.calibration)
  for (let i = 0; i < x.length; i++) x[i] = found.share[i] * strokeMm
  if (found.leaking)
    result.issues.push(
      issue(
        'leak',
        `The ${role} at full extension falls by ${Math.round(100 * (1 - found.drift))} % over the ride: the adapter or the valve leaks. Travel was corrected for it, but check the pressure before riding on.`,
      ),
    )
  else if (found.extendedMoments < 2)
    result.issues.push(
      issue(
        'no-extended-moment',
        `The ${role} never rests at full extension, so its drift with warmth could not be followed; lift the bike for three seconds when a recording starts and ends.`,
      ),
    )
}

/** A sensor mounted the other way round shrinks when the bike compresses: turned round where nothing was calibrated. */
function checkSign(
  result: CleanRecording,
  x: Float64Array,
  sortedRaw: Float64Array,
  column: ColumnMapping,
  strokeMm: number,
  role: string,
): void {
  const turned = `The ${role} channel shrinks when the bike compresses`
  if (column.calibration) {
    const middle = median(x)
    if (middle < -0.1 * strokeMm || middle > 0.75 * strokeMm)
      result.issues.push(
        issue(
          'sign-suspect',
          `${turned}, or its calibration was taken the wrong way round: half of the ride lies ${middle < 0 ? 'beyond full extension' : 'near full compression'}.`,
        ),
      )
    return
  }
  const mmPer = column.unit === 'pct' ? strokeMm / 100 : 1
  const [low, middle, high] = [0.02, 0.5, 0.98].map((p) => mmPer * quantileSorted(sortedRaw, p))
  const negative = middle < 0 && low < -0.1 * strokeMm
  // Rides spend most of their time near sag, with a tail of deep hits; turned round, the tail points to extension.
  const upsideDown = middle > 0.6 * strokeMm && high - middle < 0.6 * (middle - low)
  if (!negative && !upsideDown) return
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

function timeFromColumn(table: DelimitedTable, slot: number, column: ColumnMapping): RepairedClock {
  const unit = column.unit === 's' || column.unit === 'ms' || column.unit === 'us' ? column.unit : 'none'
  const raw = table.columns[slot]
  if (!raw.some(Number.isFinite))
    throw new InputError('time.unreadable', { line: table.firstTextLine ?? table.lines[0] })
  return repairClock(raw, table.lines, unit)
}

function timeFromRate(table: DelimitedTable, rateHz: number): RepairedClock {
  const n = table.lines.length
  if (n < 2) throw new InputError('time.one-sample')
  const timeS = Float64Array.from({ length: n }, (_, i) => i / rateHz)
  const rows = Uint32Array.from({ length: n }, (_, i) => i)
  return {
    timeS,
    rows,
    sampleRateHz: rateHz,
    unit: 's',
    duplicates: 0,
    firstDuplicateLine: null,
    resets: 0,
    firstResetLine: null,
    blanks: 0,
    gaps: 0,
    jumps: 0,
    firstJumpLine: null,
    startEpochS: null,
  }
}

function tableIssues(t: DelimitedTable): ImportIssue[] {
  const out: ImportIssue[] = []
  if (t.shortRows > 0)
    out.push(
      issue(
        'short-rows',
        `${t.shortRows} rows have too few columns, the first in line ${t.firstShortLine}; they were left out.`,
        t.shortRows,
        t.firstShortLine,
      ),
    )
  if (t.textCells > 0)
    out.push(
      issue(
        'text-cells',
        `${t.textCells} cells hold text instead of a number, the first in line ${t.firstTextLine}; they count as gaps.`,
        t.textCells,
        t.firstTextLine,
      ),
    )
  return out
}

function clockIssues(c: RepairedClock): ImportIssue[] {
  const out: ImportIssue[] = []
  if (c.duplicates > 0)
    out.push(
      issue(
        'time-duplicates',
        `${c.duplicates} rows repeat an instant, the first in line ${c.firstDuplicateLine}; the first reading was kept.`,
        c.duplicates,
        c.firstDuplicateLine,
      ),
    )
  if (c.resets > 0)
    out.push(
      issue(
        'clock-reset',
        `The clock jumps back ${c.resets === 1 ? 'once' : `${c.resets} times`}, first in line ${c.firstResetLine}; time was continued from there.`,
        c.resets,
        c.firstResetLine,
      ),
    )
  if (c.jumps > 0)
    out.push(
      issue(
        'clock-jump',
        `The clock jumps ahead by more than ten minutes ${c.jumps === 1 ? 'once' : `${c.jumps} times`}, first in line ${c.firstJumpLine}; time was continued from there.`,
        c.jumps,
        c.firstJumpLine,
      ),
    )
  if (c.blanks > 0)
    out.push(issue('time-blank', `${c.blanks} rows have no time; they were left out.`, c.blanks))
  if (c.gaps > 0)
    out.push(issue('gaps', `${c.gaps} gaps of more than 50 ms; they are kept as gaps, not bridged.`, c.gaps))
  return out
}

/** A cell of megabytes would be read letter by letter before anything else is known of it. @throws InputError 'file.long-row' */
function refuseLongRows(bytes: Uint8Array): void {
  // Old Macintosh files end their lines with CR alone.
  const end = bytes.indexOf(lineFeed) >= 0 ? lineFeed : carriageReturn
  let from = 0
  for (let line = 1; from < bytes.length; line++) {
    const at = bytes.indexOf(end, from)
    const to = at < 0 ? bytes.length : at
    if (to - from > limits.rowLetters) throw new InputError('file.long-row', { line, max: limits.rowLetters })
    from = to + 1
  }
}
const lineFeed = 10
const carriageReturn = 13
