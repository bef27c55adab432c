import type { End } from '#contract/common'
import type { ColumnMapping, ImportIssue, ImportMapping } from '#contract/recording'
import { InputError } from '../errors.ts'
import { readDelimited, type DelimitedTable } from '../formats/delimited.ts'
import { sniffLayout } from '../formats/layout.ts'
import { wheelTravelMm, type Leverage } from '../linkage/leverage.ts'
import { quantileSorted } from '../signal/quantile.ts'
import { resampleUniform } from '../signal/resample.ts'
import { repairClock, type RepairedClock } from './clock.ts'
import { checkMapping, columnFor } from './mapping.ts'
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
  const layout = sniffLayout(bytes)
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
  const samples = Math.floor(clock.timeS[clock.timeS.length - 1] * rate + 1e-6) + 1
  const uniform = (c: ColumnMapping) => {
    const raw = table.columns[used.indexOf(c)]
    const kept = new Float64Array(clock.rows.length)
    for (let i = 0; i < kept.length; i++) kept[i] = raw[clock.rows[i]]
    return resampleUniform(clock.timeS, kept, rate, samples, Math.max(0.05, 1.5 / rate))
  }

  const result: CleanRecording = {
    sampleRateHz: rate,
    samples,
    ends: [],
    depthPct: {},
    travelMm: {},
    rearAt: 'axle',
    speedMS: null,
    distanceM: null,
    issues,
  }
  for (const end of ['front', 'rear'] as const) {
    const column = columnFor(mapping, `${end}-travel`)
    if (!column) continue
    onProgress(0.8, `Cleaning ${end} travel`)
    addTravel(result, end, column, uniform(column), geometry)
  }
  const speed = columnFor(mapping, 'speed')
  if (speed) result.speedMS = scaled(uniform(speed), speed.unit === 'km/h' ? 1 / 3.6 : 1)
  const distance = columnFor(mapping, 'distance')
  if (distance) result.distanceM = scaled(uniform(distance), distance.unit === 'km' ? 1000 : 1)
  onProgress(0.9, 'Cleaned')
  return result
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
  const role = `${end} travel`
  const strokeMm = end === 'front' ? g.frontTravelMm : g.rearStrokeMm
  if (strokeMm === null) throw new InputError('mapping.no-stroke', { end })
  const sorted = x.filter(Number.isFinite).sort()
  if (sorted.length === 0) throw new InputError('channel.empty', { role })
  if (sorted[sorted.length - 1] === sorted[0]) throw new InputError('channel.constant', { role })

  toShaftMm(x, column, strokeMm)
  // A sensor mounted the other way round reads below zero for most of the ride.
  const q = (p: number) => quantileSorted(x.filter(Number.isFinite).sort(), p)
  if (!column.calibration && q(0.5) < 0 && q(0.02) < -0.1 * strokeMm) {
    for (let i = 0; i < x.length; i++) x[i] = -x[i]
    result.issues.push(
      issue(
        'sign-flipped',
        `The ${role} channel shrinks when the bike compresses; its sign was turned round.`,
      ),
    )
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

function toShaftMm(x: Float64Array, c: ColumnMapping, strokeMm: number): void {
  if (c.calibration) {
    const { extendedReading, compressedReading, compressedMm } = c.calibration
    if (extendedReading === compressedReading)
      throw new InputError('calibration.equal', { got: extendedReading })
    const mmPerReading = compressedMm / (compressedReading - extendedReading)
    for (let i = 0; i < x.length; i++) x[i] = (x[i] - extendedReading) * mmPerReading
  } else if (c.unit === 'pct') {
    for (let i = 0; i < x.length; i++) x[i] = (x[i] / 100) * strokeMm
  }
}

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
  }
}

function issue(code: string, message: string, count = 1, line: number | null = null): ImportIssue {
  return { code, message, count, line }
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
  if (c.blanks > 0)
    out.push(issue('time-blank', `${c.blanks} rows have no time; they were left out.`, c.blanks))
  if (c.gaps > 0)
    out.push(issue('gaps', `${c.gaps} gaps of more than 50 ms; they are kept as gaps, not bridged.`, c.gaps))
  return out
}
