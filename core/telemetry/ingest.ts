import type { ColumnMapping, ImportIssue, ImportMapping } from '#contract/recording'
import { limits } from '#contract/limits'
import { InputError } from '../errors.ts'
import { readDelimited, type DelimitedTable } from '../formats/delimited.ts'
import { emptyTailBytes, plainBytes } from '../formats/encoding.ts'
import type { DateOrder } from '../formats/clock.ts'
import { sniffLayout, type FileLayout } from '../formats/layout.ts'
import { refuseLongRows } from '../formats/longRows.ts'
import { resampleUniform } from '../signal/resample.ts'
import type { CleanRecording, TravelGeometry } from './cleanRecording.ts'
import { tellFrozen } from './frozen.ts'
import { takeOutRepeats } from './repeats.ts'
import { issue } from './issues.ts'
import { fixesOf, saidSound, unreadPlaces } from './fixes.ts'
import { layWay, longestFixPauseS } from './layWay.ts'
import { oldestFirst } from './oldestFirst.ts'
import { checkMapping, columnFor, travelColumns } from './mapping.ts'
import { inG, scaled } from './scaled.ts'
import { gapSentinels } from './sentinels.ts'
import { clockIssues, timeFromColumn, timeFromRate } from './timeOf.ts'
import { addTravel } from './travel.ts'

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
 * @param read reads the columns; one that remembers them when the mapping is edited
 * @throws InputError 'file.…', 'mapping.…', 'time.…', 'channel.…'
 * Cost O(bytes).
 */
export function ingestDelimited(
  file: Uint8Array,
  mapping: ImportMapping,
  geometry: TravelGeometry,
  onProgress: (share: number, doing: string) => void = () => {},
  read: typeof readDelimited = readDelimited,
): CleanRecording {
  const bytes = plainBytes(file)
  refuseLongRows(bytes)
  const { delimiter, decimal, quote, firstRowLine } = mapping
  const layout = sniffLayout(bytes, { delimiter, decimal, quote, firstRowLine })
  if (layout.columns.length > limits.fileColumns)
    throw new InputError('file.columns', { got: layout.columns.length, max: limits.fileColumns })
  checkMapping(mapping, layout.columns.length)
  const used = mapping.columns.filter((c) => c.role !== 'ignore')
  const timeColumn = columnFor(mapping, 'time')
  const asWritten = read(bytes, {
    delimiter: mapping.delimiter,
    decimal: mapping.decimal,
    skipBytes: layout.skipBytes,
    firstRowLine: layout.firstRowLine,
    columns: used.map((c) => c.column),
    clockColumn: timeColumn?.column ?? -1,
    quote,
    dateOrder: orderOf(layout, mapping),
    onProgress: (share) => onProgress(share * 0.7, 'Reading the file'),
  })
  const turned = timeColumn ? oldestFirst(asWritten, used.indexOf(timeColumn)) : null
  const table = turned ?? asWritten
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
  if (turned)
    issues.push(
      issue(
        'newest-first',
        'The newest row stands first in the file; its rows were turned round.',
        table.lines.length,
      ),
    )
  const empty = emptyTailBytes(file)
  if (empty > 0)
    issues.push(
      issue(
        'cut-off',
        `The file ends in ${empty} empty bytes, as when a logger loses its power; what was written before them is read.`,
        empty,
      ),
    )
  const clock = timeColumn
    ? timeFromColumn(table, used.indexOf(timeColumn), timeColumn)
    : timeFromRate(table, mapping.sampleRateHz!)
  issues.push(...clockIssues(clock))
  const rate = clock.sampleRateHz
  if (rate > limits.maxSampleRateHz)
    throw new InputError('time.too-fast', {
      rateHz: Math.round(rate),
      durationS: Number(clock.timeS[clock.timeS.length - 1].toPrecision(2)),
      max: limits.maxSampleRateHz,
    })
  if (rate < fewestHz)
    issues.push(
      issue(
        'slow-rate',
        `${Math.round(10 * rate) / 10} samples a second are too few to see a wheel move: hits, speeds and chatter of this recording are not to be trusted. Check the unit of the time column.`,
      ),
    )
  if (rate > mostHz)
    issues.push(
      issue(
        'fast-rate',
        `${Math.round(rate)} samples a second, ${Number(clock.timeS[clock.timeS.length - 1].toPrecision(2))} s in all, are more than loggers of travel write. Check the unit of the time column.`,
      ),
    )
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
  /** Readings of a column, and in every how manieth row there is one. */
  const sound = (c: ColumnMapping): { readings: Float64Array; everyRows: number } => {
    const readings = kept(c)
    if (!/-(travel|pressure|acceleration)$/.test(c.role)) return { readings, everyRows: 1 }
    const lost = gapSentinels(readings)
    if (lost)
      issues.push(
        issue(
          'lost-readings',
          `${lost.count} readings of ${c.role.replaceAll('-', ' ')} are ${lost.value}, which loggers write for no reading: ${Math.round((10 * lost.count) / rate) / 10} s of gaps.`,
          lost.count,
        ),
      )
    const everyRows = takeOutRepeats(readings)
    if (everyRows !== null) {
      const ownHz = Math.round((10 * rate) / everyRows) / 10
      const tooFew =
        ownHz < fewestHz ? ': too few to see a wheel move, so its hits and speeds are not to be trusted' : ''
      issues.push(
        issue(
          'repeats',
          `${sentence(c.role)} is written anew only in one of ${everyRows} rows, about ${ownHz} times a second${tooFew}. The rows between say the last reading again; they were left out, and the readings joined by straight lines.`,
          everyRows,
        ),
      )
    }
    return { readings, everyRows: everyRows ?? 1 }
  }
  const uniform = (c: ColumnMapping, maxGapS: number) => {
    const { readings, everyRows } = sound(c)
    return resampleUniform(clock.timeS, readings, rate, samples, Math.max(maxGapS, (1.5 * everyRows) / rate))
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
    barG: null,
    axleG: {},
    startEpochS: clock.startEpochS,
    issues,
  }
  for (const end of ['front', 'rear'] as const) {
    const column = travelColumns(mapping, end).at(0)
    if (column) {
      onProgress(0.8, `Cleaning ${end} travel`)
      addTravel(result, end, column, uniform(column, longestBridgeS), geometry)
    }
    const axle = columnFor(mapping, `${end}-axle-acceleration`)
    if (axle) result.axleG[end] = inG(axle, uniform(axle, longestBridgeS))
  }
  tellFrozen(result)
  const bar = columnFor(mapping, 'bar-acceleration')
  if (bar) result.barG = inG(bar, uniform(bar, longestBridgeS))
  const speed = columnFor(mapping, 'speed')
  if (speed) addSpeed(result, scaled(uniform(speed, longestFixPauseS), speed.unit === 'km/h' ? 1 / 3.6 : 1))
  const distance = columnFor(mapping, 'distance')
  if (distance)
    result.distanceM = scaled(uniform(distance, longestFixPauseS), distance.unit === 'km' ? 1000 : 1)
  const latitude = columnFor(mapping, 'latitude')
  const longitude = columnFor(mapping, 'longitude')
  if (latitude && longitude) {
    const [lat, lon] = [kept(latitude), kept(longitude)]
    const unread = unreadPlaces(lat, lon)
    result.issues.push(...unread)
    if (unread.length === 0)
      layWay(result, saidSound(fixesOf(clock.timeS, lat, lon), 'the file', result.issues), 0)
  }
  onProgress(0.9, 'Cleaned')
  return result
}

/** Order of local dates, as said or as they tell. @throws InputError 'time.date-order' when neither does */
function orderOf(layout: FileLayout, mapping: ImportMapping): DateOrder | null {
  if (mapping.dateOrder) return mapping.dateOrder
  if (layout.dateOrder === 'unclear') throw new InputError('time.date-order')
  return layout.dateOrder
}

/** "Front travel". */
const sentence = (role: string) => role[0].toUpperCase() + role.slice(1).replaceAll('-', ' ')
/** Fewer samples a second miss whole hits. */
const fewestHz = 20
/** Loggers of suspension travel read 100 to 2,000 times a second; with a unit of time mistaken it is out by sixty or a thousand. */
const mostHz = 5000
/** Slower than this nobody rides a trail, m/s. */
const ridingMS = 1

/** A speed that never tells of riding is dead: believed, it would say that nothing was ridden. */
function addSpeed(result: CleanRecording, speedMS: Float64Array): void {
  let ridden = 0
  for (const v of speedMS) if (v > ridingMS) ridden++
  if (ridden > 0.02 * speedMS.length) result.speedMS = speedMS
  else
    result.issues.push(
      issue('speed-dead', 'The speed column never shows riding, so it was left out.', speedMS.length),
    )
}

/** Longer pauses of a sensor stay gaps. */
const longestBridgeS = 0.05

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
  if (t.groupedCells > 0)
    out.push(
      issue(
        'thousands',
        `The marks in ${t.groupedCells} cells were taken for grouped thousands; choose the other decimal mark if they are decimals.`,
        t.groupedCells,
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
