import { readFileSync, writeFileSync } from 'node:fs'
import { describe, expect, it } from 'vitest'
import type { ImportMapping } from '#contract/recording'
import { InputError } from '../../errors.ts'
import { sniffLayout } from '../../formats/layout.ts'
import { linearLeverage } from '../../linkage/leverage.ts'
import { normalFrom, seededRandom } from '../../numeric/random.ts'
import { ingestDelimited } from '../ingest.ts'
import { suggestMapping } from '../mapping.ts'

/** A ride of known truth: mm at the fork and at the shock, 200 samples a second, 40 s. */
const rateHz = 200
const samples = 40 * rateHz
const strokeMm = { front: 150, rear: 55 }
const ride = (seed: number, fullMm: number, sag: number) => {
  const random = seededRandom(seed)
  let [x, v] = [0, 0]
  return Float64Array.from({ length: samples }, () => {
    const push = random() < 0.012 ? 1500 * random() * fullMm : 0
    v += (push - 230 * x - 17 * v + 12 * normalFrom(random)) / rateHz
    x += v / rateHz
    return Math.min(fullMm, Math.max(0, sag * fullMm + x))
  })
}
const front = ride(1, strokeMm.front, 0.24)
const rear = ride(2, strokeMm.rear, 0.3)
const lever = linearLeverage(3, 2.2, strokeMm.rear)
const geometry = { frontTravelMm: strokeMm.front, rearStrokeMm: strokeMm.rear, leverage: lever }
const wheel = (mm: number) => 3 * mm + ((2.2 - 3) * mm * mm) / (2 * strokeMm.rear)
const wheelMm = wheel(strokeMm.rear)

/** Somebody writes a file: cells of a row, joined. */
const file = (head: string, row: (i: number) => string, eol = '\n', n = samples) =>
  [head, ...Array.from({ length: n }, (_, i) => row(i)), ''].join(eol)
const f = (x: number, digits = 2) => x.toFixed(digits)
const comma = (x: number, digits = 2) => f(x, digits).replace('.', ',')
const hms = (s: number) =>
  `${String(Math.floor(s / 3600)).padStart(2, '0')}:${String(Math.floor(s / 60) % 60).padStart(2, '0')}:${(s % 60).toFixed(3).padStart(6, '0')}`

/** Whole numbers in groups of three. */
const groups = (n: number, mark: string) => String(n).replace(/\B(?=(\d{3})+$)/g, mark)

/** Counts of a converter, 120 extended and 3,900 at the end of the stroke. */
const counts = (mm: number, strokeMm: number) => Math.round(120 + (3780 * mm) / strokeMm)

const plainRow = (i: number) => `${f(i / 200, 3)},${f(front[i])},${f(rear[i])}`

/** Five places a second, straight down at 6 m/s. */
const placeAt = (i: number): [number, number] => [-47.5 + (Math.floor(i / 40) * 1.2) / 111_195, -122.3]

type Change = (m: ImportMapping) => void
interface Dialect {
  name: string
  text: string | Uint8Array
  /** What a person sets; nothing: the file is taken as it suggests itself. */
  set?: Change
  /** read: right by itself · told: right or unsure, and said · asks, refused: not read, with the reason. */
  is: 'read' | 'told' | 'asks' | 'refused'
  /** Codes of what is told, or the code of the refusal. */
  codes?: string[]
  ends?: ('front' | 'rear')[]
  /** Stands still in between: every sample is there, and in its place as it was written. */
  stands?: true
}
const unit =
  (column: number, u: ImportMapping['columns'][number]['unit']): Change =>
  (m) => {
    m.columns[column].unit = u
  }

const dialects: Dialect[] = [
  {
    name: 'commas, seconds and mm',
    text: file('time_s,front_mm,rear_mm', (i) => `${f(i / 200, 3)},${f(front[i])},${f(rear[i])}`),
    is: 'read',
  },
  {
    name: 'semicolons and decimal commas',
    text: file(
      'Zeit [s];Federweg Front [mm];Federweg Rear [mm]',
      (i) => `${comma(i / 200, 3)};${comma(front[i])};${comma(rear[i])}`,
    ),
    is: 'read',
  },
  {
    name: 'tabs, milliseconds',
    text: file(
      'time_ms\tfork travel (mm)\tshock travel (mm)',
      (i) => `${i * 5}\t${f(front[i])}\t${f(rear[i])}`,
    ),
    is: 'read',
  },
  {
    name: 'bars, CRLF',
    text: file('t (s)|front (mm)|rear (mm)', (i) => `${f(i / 200, 3)}|${f(front[i])}|${f(rear[i])}`, '\r\n'),
    is: 'read',
  },
  {
    name: 'spaces',
    text: file('time_s front_mm rear_mm', (i) => `${f(i / 200, 3)} ${f(front[i])} ${f(rear[i])}`),
    is: 'read',
  },
  {
    name: 'units in a line of their own',
    text: file('Time,Front,Rear\ns,mm,mm', (i) => `${f(i / 200, 3)},${f(front[i])},${f(rear[i])}`),
    is: 'read',
  },
  {
    name: 'a long head of comments',
    text: file(
      `${'# made by a logger\n'.repeat(30)}time_s,front_mm,rear_mm`,
      (i) => `${f(i / 200, 3)},${f(front[i])},${f(rear[i])}`,
    ),
    is: 'read',
  },
  {
    name: 'quotes around everything',
    text: file('"time_s","front_mm","rear_mm"', (i) => `"${f(i / 200, 3)}","${f(front[i])}","${f(rear[i])}"`),
    is: 'read',
  },
  {
    name: 'a byte order mark',
    text: file('\ufefftime_s,front_mm,rear_mm', (i) => `${f(i / 200, 3)},${f(front[i])},${f(rear[i])}`),
    is: 'read',
  },
  {
    name: 'microseconds',
    text: file('micros_us,front_mm,rear_mm', (i) => `${i * 5000},${f(front[i])},${f(rear[i])}`),
    is: 'read',
  },
  {
    name: 'nanoseconds since 1970',
    text: file(
      'timestamp_ns,front_mm,rear_mm',
      (i) => `${1_900_000_000 + i / 200}`.replace('.', '').padEnd(19, '0') + `,${f(front[i])},${f(rear[i])}`,
    ),
    is: 'read',
  },
  {
    name: 'nanoseconds nobody named',
    text: file('time,front_mm,rear_mm', (i) => `${i * 5_000_000},${f(front[i])},${f(rear[i])}`),
    is: 'read',
  },
  {
    name: 'times of the day',
    text: file('time,front_mm,rear_mm', (i) => `${hms(36_000 + i / 200)},${f(front[i])},${f(rear[i])}`),
    is: 'read',
  },
  {
    name: 'ISO dates with a zone',
    text: file(
      'time,front_mm,rear_mm',
      (i) => `2031-05-02T${hms(36_000 + i / 200)}+02:00,${f(front[i])},${f(rear[i])}`,
    ),
    is: 'read',
  },
  {
    name: 'cm',
    text: file(
      'time_s,front_cm,rear_cm',
      (i) => `${f(i / 200, 3)},${f(front[i] / 10, 4)},${f(rear[i] / 10, 4)}`,
    ),
    is: 'read',
  },
  {
    name: 'inches',
    text: file(
      'time_s,front (in),rear (in)',
      (i) => `${f(i / 200, 3)},${f(front[i] / 25.4, 4)},${f(rear[i] / 25.4, 4)}`,
    ),
    is: 'read',
  },
  {
    name: 'metres',
    text: file(
      'time_s,front (m),rear (m)',
      (i) => `${f(i / 200, 3)},${f(front[i] / 1000, 5)},${f(rear[i] / 1000, 5)}`,
    ),
    is: 'read',
  },
  {
    name: 'per cent',
    text: file(
      'time_s,front (%),rear (%)',
      (i) => `${f(i / 200, 3)},${f(front[i] / 1.5)},${f(rear[i] / 0.55)}`,
    ),
    is: 'read',
  },
  {
    name: 'a fraction',
    text: file(
      'time_s,front (fraction),rear (fraction)',
      (i) => `${f(i / 200, 3)},${f(front[i] / 150, 5)},${f(rear[i] / 55, 5)}`,
    ),
    is: 'read',
  },
  {
    name: 'rear wheel travel in mm',
    text: file(
      'time_s,front_mm,rear_wheel_mm',
      (i) => `${f(i / 200, 3)},${f(front[i])},${f(wheel(rear[i]))}`,
    ),
    is: 'read',
  },
  {
    name: 'rear axle travel in %',
    text: file(
      'time_s,front_mm,rear axle (%)',
      (i) => `${f(i / 200, 3)},${f(front[i])},${f((100 * wheel(rear[i])) / wheelMm, 3)}`,
    ),
    is: 'read',
  },
  {
    name: 'no unit anywhere',
    text: file('time,front,rear', (i) => `${f(i / 200, 3)},${f(front[i])},${f(rear[i])}`),
    is: 'asks',
    codes: ['mapping.unit'],
  },
  {
    name: 'no unit, and a person says mm',
    text: file('time,front,rear', (i) => `${f(i / 200, 3)},${f(front[i])},${f(rear[i])}`),
    set: (m) => (unit(1, 'mm')(m), unit(2, 'mm')(m)),
    is: 'read',
  },
  {
    name: 'raw counts',
    text: file('time_s,front_raw', (i) => `${f(i / 200, 3)},${Math.round(300 + 20 * front[i])}`),
    is: 'asks',
    codes: ['mapping.raw'],
    ends: ['front'],
  },
  {
    name: 'raw counts with their two readings',
    text: file('time_s,front_raw', (i) => `${f(i / 200, 3)},${Math.round(300 + 20 * front[i])}`),
    set: (m) =>
      void (m.columns[1].calibration = { extendedReading: 300, compressedReading: 3300, compressedMm: 150 }),
    is: 'read',
    ends: ['front'],
  },
  {
    name: 'volts',
    text: file('time_s,front (V)', (i) => `${f(i / 200, 3)},${f(0.5 + front[i] / 40, 4)}`),
    is: 'asks',
    codes: ['mapping.raw'],
    ends: ['front'],
  },
  {
    name: 'cm called mm',
    text: file(
      'time_s,front_mm,rear_mm',
      (i) => `${f(i / 200, 3)},${f(front[i] / 10, 4)},${f(rear[i] / 10, 4)}`,
    ),
    is: 'told',
    codes: ['little-travel', 'little-travel'],
  },
  {
    name: 'a counter of samples and no time',
    text: file('sample,front_mm,rear_mm', (i) => `${i},${f(front[i])},${f(rear[i])}`),
    is: 'asks',
    codes: ['mapping.no-time'],
  },
  {
    name: 'a counter nobody named, and no time',
    text: file('x,front_mm,rear_mm', (i) => `${i + 1},${f(front[i])},${f(rear[i])}`),
    is: 'asks',
    codes: ['mapping.no-time'],
  },
  {
    name: 'a counter, and a person gives the rate',
    text: file('sample,front_mm,rear_mm', (i) => `${i},${f(front[i])},${f(rear[i])}`),
    set: (m) => void (m.sampleRateHz = 200),
    is: 'read',
  },
  {
    name: 'ticks of 0.1 ms called time',
    text: file('time,front_mm,rear_mm', (i) => `${i * 50},${f(front[i])},${f(rear[i])}`),
    is: 'told',
    codes: ['time-unit-guessed'],
  },
  {
    name: 'wheel speeds beside the travel',
    text: file(
      'time_s,front wheel rpm,front_mm,rear wheel rpm,rear_mm',
      (i) => `${f(i / 200, 3)},${200 + (i % 90)},${f(front[i])},${210 + (i % 70)},${f(rear[i])}`,
    ),
    is: 'read',
  },
  {
    name: 'wheel speeds alone',
    text: file(
      'time_s,front wheel rpm,rear wheel rpm',
      (i) => `${f(i / 200, 3)},${200 + (i % 90)},${210 + (i % 70)}`,
    ),
    is: 'asks',
    codes: ['mapping.no-travel'],
  },
  {
    name: 'shaft speeds beside the travel',
    text: file(
      'time_s,front speed (mm/s),front_mm,rear_mm',
      (i) => `${f(i / 200, 3)},${(i * 37) % 900},${f(front[i])},${f(rear[i])}`,
    ),
    is: 'read',
  },
  {
    name: 'tyre pressures beside the travel',
    text: file(
      'time_s,front tyre,rear tyre,front_mm,rear_mm',
      (i) => `${f(i / 200, 3)},22.1,24.${i % 3},${f(front[i])},${f(rear[i])}`,
    ),
    is: 'read',
  },
  {
    name: 'one stamp for ten rows',
    text: file('time_ms,front_mm,rear_mm', (i) => `${Math.floor(i / 10) * 50},${f(front[i])},${f(rear[i])}`),
    is: 'told',
    codes: ['block-stamps'],
  },
  {
    name: 'one stamp for 25 rows',
    text: file('time_ms,front_mm,rear_mm', (i) => `${Math.floor(i / 25) * 125},${f(front[i])},${f(rear[i])}`),
    is: 'told',
    codes: ['block-stamps'],
  },
  {
    name: 'ten samples a second',
    text: file(
      'time_s,front_mm,rear_mm',
      (i) => `${f(i / 10, 1)},${f(front[i * 20])},${f(rear[i * 20])}`,
      '\n',
      400,
    ),
    is: 'told',
    codes: ['slow-rate'],
  },
  {
    name: 'a dead speed sensor',
    text: file(
      'time_s,front_mm,rear_mm,speed (km/h)',
      (i) => `${f(i / 200, 3)},${f(front[i])},${f(rear[i])},0`,
    ),
    is: 'told',
    codes: ['speed-dead'],
  },
  {
    name: 'a place each fifth of a second, zeros until it was found',
    text: file('time_s,front_mm,rear_mm,latitude,longitude', (i) => {
      const [lat, lon] = i < 1200 ? [0, 0] : placeAt(i)
      return `${plainRow(i)},${f(lat, 7)},${f(lon, 7)}`
    }),
    is: 'told',
    codes: ['fixes-left-out'],
  },
  {
    name: 'a place that jumps under trees',
    text: file('time_s,front_mm,rear_mm,latitude,longitude', (i) => {
      const [lat, lon] = placeAt(i)
      return `${plainRow(i)},${f(i > 4000 && i < 4200 ? lat + 0.004 : lat, 7)},${f(lon, 7)}`
    }),
    is: 'told',
    codes: ['fixes-left-out'],
  },
  {
    name: 'a place in degrees',
    text: file('time_s,front_mm,rear_mm,latitude,longitude', (i) => {
      const [lat, lon] = placeAt(i)
      return `${plainRow(i)},${f(lat, 7)},${f(lon, 7)}`
    }),
    is: 'read',
  },
  {
    name: 'a place in ten-millionths of a degree',
    text: file('time_s,front_mm,rear_mm,latitude,longitude', (i) => {
      const [lat, lon] = placeAt(i)
      return `${plainRow(i)},${Math.round(lat * 1e7)},${Math.round(lon * 1e7)}`
    }),
    is: 'told',
    codes: ['places-unread'],
  },
  {
    name: 'a place in degrees and minutes, as receivers speak',
    text: file('time_s,front_mm,rear_mm,latitude,longitude', (i) => {
      const minutes = (x: number) => f(100 * Math.floor(x) + 60 * (x - Math.floor(x)), 5)
      const [lat, lon] = placeAt(i)
      return `${plainRow(i)},${minutes(-lat)},${minutes(-lon)}`
    }),
    is: 'told',
    codes: ['places-unread'],
  },
  {
    name: 'a speed that lives',
    text: file(
      'time_s,front_mm,rear_mm,speed (km/h)',
      (i) => `${f(i / 200, 3)},${f(front[i])},${f(rear[i])},${f(20 + (i % 50) / 10)}`,
    ),
    is: 'read',
  },
  {
    name: '−999 where the sensor was away',
    text: file(
      'time_s,front_mm,rear_mm',
      (i) => `${f(i / 200, 3)},${i % 1000 > 980 ? '-999' : f(front[i])},${f(rear[i])}`,
    ),
    is: 'told',
    codes: ['lost-readings'],
  },
  {
    name: '65535 for five seconds',
    text: file(
      'time_s,front_mm,rear_mm',
      (i) => `${f(i / 200, 3)},${f(front[i])},${i > 3000 && i < 4000 ? '65535' : f(rear[i])}`,
    ),
    is: 'told',
    codes: ['lost-readings'],
  },
  {
    name: 'zeros for two seconds in the middle of a ride',
    text: file(
      'time_s,front_mm,rear_mm',
      (i) => `${f(i / 200, 3)},${i > 3000 && i < 3400 ? '0' : f(front[i] + 20)},${f(rear[i])}`,
    ),
    is: 'told',
    codes: ['spikes'],
  },
  {
    name: 'turned round at the fork',
    text: file('time_s,front_mm,rear_mm', (i) => `${f(i / 200, 3)},${f(150 - front[i])},${f(rear[i])}`),
    is: 'told',
    codes: ['sign-flipped'],
  },
  {
    name: 'turned round at both ends',
    text: file('time_s,front_mm,rear_mm', (i) => `${f(i / 200, 3)},${f(150 - front[i])},${f(55 - rear[i])}`),
    is: 'told',
    codes: ['sign-flipped', 'sign-flipped'],
  },
  {
    name: 'negative when it compresses',
    text: file('time_s,front_mm,rear_mm', (i) => `${f(i / 200, 3)},${f(-front[i])},${f(rear[i])}`),
    is: 'told',
    codes: ['sign-flipped'],
  },
  {
    name: 'cells with their unit',
    text: file('time,front,rear', (i) => `${f(i / 200, 3)} s,${f(front[i])} mm,${f(rear[i])} mm`),
    is: 'read',
  },
  {
    name: 'cells with their unit, decimal commas',
    text: file(
      'Zeit;Gabel vorn (fork);Dämpfer (shock)',
      (i) => `${comma(i / 200, 3)} s;${comma(front[i])} mm;${comma(rear[i])} mm`,
    ),
    is: 'read',
  },
  {
    name: 'thousands with a point, microseconds',
    text: file(
      'time_us;front_mm;rear_mm',
      (i) => `${groups(i * 5000, '.')};${comma(front[i])};${comma(rear[i])}`,
    ),
    is: 'told',
    codes: ['thousands'],
  },
  {
    name: 'thousands with an apostrophe, milliseconds',
    text: file('time_ms,front_mm,rear_mm', (i) => `${groups(i * 5, "'")},${f(front[i])},${f(rear[i])}`),
    is: 'told',
    codes: ['thousands'],
  },
  {
    name: 'thousands in quotes beside commas',
    text: file('time_ms,front_mm,rear_mm', (i) => `"${groups(i * 5, ',')}",${f(front[i])},${f(rear[i])}`),
    is: 'told',
    codes: ['thousands'],
  },
  {
    name: 'whole numbers grouped by commas, which could be decimals',
    text: file(
      'time_ms;front raw;rear raw',
      (i) =>
        `${groups(i * 5 + 100, ',')};${groups(counts(front[i], 150), ',')};${groups(counts(rear[i], 60), ',')}`,
    ),
    set: (m) => {
      for (const [k, mm] of [
        [1, 150],
        [2, 60],
      ])
        m.columns[k].calibration = { extendedReading: 120, compressedReading: 3900, compressedMm: mm }
    },
    is: 'told',
    codes: ['thousands'],
  },
  {
    name: 'notes with commas, in quotes',
    text: file(
      'note,time_s,front_mm,rear_mm',
      (i) => `${i % 50 === 7 ? '"roots, wet, fast"' : 'x'},${f(i / 200, 3)},${f(front[i])},${f(rear[i])}`,
    ),
    is: 'read',
  },
  {
    name: 'notes with quotes and commas in quotes',
    text: file(
      'time_s,note,front_mm,rear_mm',
      (i) =>
        `${f(i / 200, 3)},${i % 3 ? '' : '"he said ""faster"", then left"'},${f(front[i])},${f(rear[i])}`,
    ),
    is: 'read',
  },
  {
    name: 'notes with an inch mark that is no quote',
    text: file(
      'time_s;note;front_mm;rear_mm',
      (i) => `${f(i / 200, 3)};29" wheel;${f(front[i])};${f(rear[i])}`,
    ),
    is: 'read',
  },
  {
    name: 'a head of 600 comments',
    text: file(
      `${'# configuration: something long that nobody reads, with, commas, in, it\n'.repeat(600)}time_s,front_mm,rear_mm`,
      (i) => `${f(i / 200, 3)},${f(front[i])},${f(rear[i])}`,
    ),
    is: 'read',
  },
  {
    name: 'local dates that tell their order',
    text: file(
      'date,front_mm,rear_mm',
      (i) => `27/08/2031 14:05:${f(10 + i / 200, 3)},${f(front[i])},${f(rear[i])}`,
    ),
    is: 'read',
  },
  {
    name: 'local dates with the month first, half days',
    text: file(
      'time,front_mm,rear_mm',
      (i) => `8/27/2031 2:05:${f(10 + i / 200, 3)} PM,${f(front[i])},${f(rear[i])}`,
    ),
    is: 'read',
  },
  {
    name: 'local dates that could be either',
    text: file(
      'time,front_mm,rear_mm',
      (i) => `05/08/2031 14:05:${f(10 + i / 200, 3)},${f(front[i])},${f(rear[i])}`,
    ),
    is: 'asks',
    codes: ['time.date-order'],
  },
  {
    name: 'local dates that could be either, order chosen',
    text: file(
      'time,front_mm,rear_mm',
      (i) => `05.08.31 14:05:${f(10 + i / 200, 3)},${f(front[i])},${f(rear[i])}`,
    ),
    set: (m) => {
      m.dateOrder = 'dmy'
    },
    is: 'read',
  },
  {
    name: 'words where numbers should be',
    text: file(
      'time_s,front_mm,rear_mm',
      (i) => `${f(i / 200, 3)} flags,${f(front[i])} apples,${f(rear[i])} pears`,
    ),
    is: 'refused',
    codes: ['file.no-numbers'],
  },
  {
    name: 'UTF-16 with its mark',
    text: Uint8Array.from([
      0xff,
      0xfe,
      ...Buffer.from(
        file('time_s,front_mm,rear_mm', (i) => `${f(i / 200, 3)},${f(front[i])},${f(rear[i])}`),
        'utf16le',
      ),
    ]),
    is: 'read',
  },
  {
    name: 'UTF-16, the other way round',
    text: Uint8Array.from([
      0xfe,
      0xff,
      ...Buffer.from(
        file('time_s,front_mm,rear_mm', (i) => `${f(i / 200, 3)},${f(front[i])},${f(rear[i])}`),
        'utf16le',
      ).swap16(),
    ]),
    is: 'read',
  },
  {
    name: 'names in UTF-8',
    text: file(
      'Zeit_s;Gabel vorn front (mm);Dämpfer rear (mm)',
      (i) => `${comma(i / 200, 3)};${comma(front[i])};${comma(rear[i])}`,
    ),
    is: 'read',
  },
  {
    name: 'names in Latin-1',
    text: Uint8Array.from(
      Buffer.from(
        file(
          'Zeit_s;Gabel front (mm);Dämpfer rear (mm)',
          (i) => `${comma(i / 200, 3)};${comma(front[i])};${comma(rear[i])}`,
        ),
        'latin1',
      ),
    ),
    is: 'read',
  },
  {
    name: 'empty cells where nothing was measured',
    text: file(
      'time_s,front_mm,rear_mm',
      (i) => `${f(i / 200, 3)},${f(front[i])},${i % 500 < 40 ? '' : f(rear[i])}`,
    ),
    is: 'read',
  },
  {
    name: 'NaN where nothing was measured',
    text: file(
      'time_s,front_mm,rear_mm',
      (i) => `${f(i / 200, 3)},${f(front[i])},${i % 500 < 40 ? 'NaN' : f(rear[i])}`,
    ),
    is: 'read',
  },
  {
    name: 'words where nothing was measured',
    text: file(
      'time_s,front_mm,rear_mm',
      (i) => `${f(i / 200, 3)},${f(front[i])},${i % 500 < 40 ? 'lost' : f(rear[i])}`,
    ),
    is: 'told',
    codes: ['text-cells'],
  },
  {
    name: 'a clock that begins again',
    text: file('time_s,front_mm,rear_mm', (i) => `${f((i % 4000) / 200, 3)},${f(front[i])},${f(rear[i])}`),
    is: 'told',
    codes: ['clock-reset'],
  },
  {
    name: 'front alone',
    text: file('time_s,fork_mm', (i) => `${f(i / 200, 3)},${f(front[i])}`),
    is: 'read',
    ends: ['front'],
  },
  {
    name: 'rear alone',
    text: file('time_s,shock_mm', (i) => `${f(i / 200, 3)},${f(rear[i])}`),
    is: 'read',
    ends: ['rear'],
  },
  {
    name: 'bottom-outs that are held at the stop',
    text: file('time_s,front_mm,rear_mm', (i) => {
      // Pushed in over a fifth of a second, held for a tenth, and back.
      const since = Math.min(Math.abs((i % 1500) - 1450), 60)
      const push = since < 10 ? 1 : (60 - since) / 50
      const held = front[i] + (150 - front[i]) * push
      return `${f(i / 200, 3)},${f(held)},${f(rear[i])}`
    }),
    is: 'read',
    ends: ['rear'],
  },
  {
    name: 'a sensor that ends at 110 mm',
    text: file(
      'time_s,front_mm,rear_mm',
      (i) => `${f(i / 200, 3)},${f(Math.min(60, i % 700 > 600 ? 60 : front[i]))},${f(rear[i])}`,
    ),
    is: 'told',
    codes: ['clipped'],
    ends: ['rear'],
  },
  {
    name: 'a line that names the separator',
    text: `sep=;\n${file('time_s;front_mm;rear_mm', (i) => `${f(i / 200, 3)};${f(front[i])};${f(rear[i])}`)}`,
    is: 'read',
  },
  {
    name: 'time behind the travel, in powers of ten',
    text: file(
      'front_mm,rear_mm,time_s',
      (i) => `${front[i].toExponential(4)},${rear[i].toExponential(4)},${(i / 200).toExponential(5)}`,
    ),
    is: 'read',
  },
  {
    name: 'sums under the rows',
    text: `${file('time_s,front_mm,rear_mm', plainRow)}average,36.1,16.9\nmax,150,55\n`,
    is: 'told',
    codes: ['text-cells'],
  },
  {
    name: 'names again in the middle',
    text: file(
      'time_s,front_mm,rear_mm',
      (i) => `${i === 4000 ? 'time_s,front_mm,rear_mm\n' : ''}${plainRow(i)}`,
    ),
    is: 'told',
    codes: ['text-cells'],
  },
  {
    name: 'broken off in its last row',
    text: file('time_s,front_mm,rear_mm', plainRow).slice(0, -9),
    is: 'told',
    codes: ['short-rows'],
  },
  {
    name: 'empty bytes where a logger lost its power',
    text: file('time_s,front_mm,rear_mm', plainRow) + '\0'.repeat(4096),
    is: 'told',
    codes: ['cut-off'],
  },
  {
    name: 'thousands with a thin space',
    text: file(
      'time_ms;front_mm;rear_mm',
      (i) => `${groups(5 * i, '\u202f')};${comma(front[i])};${comma(rear[i])}`,
    ),
    is: 'told',
    codes: ['thousands'],
  },
  {
    name: 'a counter of milliseconds that begins again at 65536',
    text: file(
      'time_ms,front_mm,rear_mm',
      (i) => `${(50_000 + 5 * i) % 65_536},${f(front[i])},${f(rear[i])}`,
    ),
    is: 'told',
    codes: ['clock-reset'],
  },
  {
    name: 'over midnight',
    text: file(
      'time,front_mm,rear_mm',
      (i) => `${hms((86_390 + i / 200) % 86_400)},${f(front[i])},${f(rear[i])}`,
    ),
    is: 'told',
    codes: ['clock-reset'],
  },
  {
    name: 'the newest row first',
    text: [
      'time_s,front_mm,rear_mm',
      ...Array.from({ length: samples }, (_, i) => plainRow(samples - 1 - i)),
    ].join('\n'),
    is: 'told',
    codes: ['newest-first'],
  },
  {
    name: 'seconds called milliseconds',
    text: file('time_ms,front_mm,rear_mm', plainRow),
    is: 'refused',
    codes: ['time.too-fast'],
  },
  {
    name: 'days of a spreadsheet',
    text: file(
      'time,front_mm,rear_mm',
      (i) => `${(45_992.5 + i / 200 / 86_400).toFixed(10)},${f(front[i])},${f(rear[i])}`,
    ),
    is: 'refused',
    codes: ['time.too-fast'],
  },
  {
    name: 'a length from eye to eye',
    text: file(
      'time_s,front_mm,shock_length_mm',
      (i) => `${f(i / 200, 3)},${f(front[i])},${f(210 - rear[i])}`,
    ),
    is: 'refused',
    codes: ['channel.outside'],
  },
  {
    name: 'readings of a converter called mm',
    text: file(
      'time_s,front_mm,rear_mm',
      (i) => `${f(i / 200, 3)},${counts(front[i], 150)},${counts(rear[i], 55)}`,
    ),
    is: 'refused',
    codes: ['channel.outside'],
  },
  {
    name: 'raw readings before the mm made of them',
    text: file(
      'time_s,front_raw,front_mm,rear_raw,rear_mm',
      (i) => `${f(i / 200, 3)},${counts(front[i], 150)},${f(front[i])},${counts(rear[i], 55)},${f(rear[i])}`,
    ),
    is: 'read',
  },
  {
    name: 'names in German, a brake and a tyre beside them',
    text: file(
      'Zeit [s];Bremsdruck vorne [bar];Reifen hinten [bar];Gabel [mm];Dämpfer [mm]',
      (i) =>
        `${comma(i / 200, 3)};${comma(20 * Math.abs(Math.sin(i / 400)))};1,8;${comma(front[i])};${comma(rear[i])}`,
    ),
    is: 'read',
  },
  {
    name: 'the pressure of a brake beside the rear alone',
    text: file(
      'time_s,front_brake_pressure_bar,front_tyre_psi,rear_mm',
      (i) => `${f(i / 200, 3)},${f(20 * Math.abs(Math.sin(i / 400)))},24,${f(rear[i])}`,
    ),
    is: 'read',
    ends: ['rear'],
  },
  {
    name: 'the newest row first, of the clock on the wall',
    text: file(
      'time,front_mm,rear_mm',
      (i) =>
        `${hms(36_000 + (samples - 1 - i) / 200)},${f(front[samples - 1 - i])},${f(rear[samples - 1 - i])}`,
    ),
    is: 'told',
    codes: ['newest-first'],
  },
  {
    name: 'names in French, the wheel beside them',
    text: file(
      'temps (s);roue avant (tr/min);fourche (mm);amortisseur (mm)',
      (i) => `${comma(i / 200, 3)};${comma(300 + (i % 7))};${comma(front[i])};${comma(rear[i])}`,
    ),
    is: 'read',
  },
  {
    name: 'names in Italian, the rear at its wheel',
    text: file(
      'tempo (s);forcella (mm);ruota posteriore (mm)',
      (i) => `${comma(i / 200, 3)};${comma(front[i])};${comma(wheel(rear[i]))}`,
    ),
    is: 'read',
  },
  {
    name: 'a rear that is written anew in every fourth row',
    text: file('time_s,front_mm,rear_mm', (i) => `${f(i / 200, 3)},${f(front[i])},${f(rear[i - (i % 4)])}`),
    is: 'told',
    codes: ['repeats'],
  },
  {
    name: 'both ends written anew twice in five rows, not quite evenly',
    text: file('time_s,front_mm,rear_mm', (i) => {
      const k = i - ((i % 5) % 3)
      return `${f(i / 200, 3)},${f(front[k])},${f(rear[k])}`
    }),
    is: 'told',
    codes: ['repeats', 'repeats'],
  },
  {
    name: 'minutes',
    text: file('Time (min),Front mm,Rear mm', (i) => `${f(i / 12000, 7)},${f(front[i])},${f(rear[i])}`),
    is: 'read',
  },
  {
    name: 'minutes called seconds',
    text: file('time_s,front_mm,rear_mm', (i) => `${f(i / 12000, 7)},${f(front[i])},${f(rear[i])}`),
    is: 'told',
    codes: ['fast-rate'],
  },
  {
    name: 'a link that repeats its last reading for eight seconds',
    text: file(
      'time_s,front_mm,rear_mm',
      (i) => `${f(i / 200, 3)},${f(front[i > 3000 && i < 4600 ? 3000 : i])},${f(rear[i])}`,
    ),
    is: 'told',
    codes: ['frozen'],
  },
  {
    name: 'a rear that says one number from the middle on',
    text: file(
      'time_s,front_mm,rear_mm',
      (i) => `${f(i / 200, 3)},${f(front[i])},${f(rear[Math.min(i, 4000)])}`,
    ),
    is: 'told',
    codes: ['frozen'],
  },
  {
    name: 'a stop of ten seconds at the trailside',
    text: file('time_s,front_mm,rear_mm', (i) => {
      const k = i < 3000 ? i : i < 5000 ? 3000 : i - 2000
      return `${f(i / 200, 3)},${f(front[k])},${f(rear[k])}`
    }),
    is: 'read',
    stands: true,
  },
  {
    name: 'a picture',
    text: Uint8Array.from([0x89, 0x50, 0x4e, 0x47, 13, 10, 26, 10, 0, 0, 0, 13]),
    is: 'refused',
    codes: ['file.binary'],
  },
  { name: 'nothing', text: '', is: 'refused', codes: ['file.empty'] },
]

const bytesOf = (text: string | Uint8Array) =>
  typeof text === 'string' ? new TextEncoder().encode(text) : text
function outcome(d: Dialect) {
  const bytes = bytesOf(d.text)
  try {
    const mapping = suggestMapping(sniffLayout(bytes))
    d.set?.(mapping)
    const recording = ingestDelimited(bytes, mapping, geometry)
    return { recording, codes: recording.issues.map((x) => x.code), refusal: null }
  } catch (e) {
    if (!(e instanceof InputError)) throw e
    return { recording: null, codes: [e.code as string], refusal: e.message }
  }
}
const truth = {
  front: Float64Array.from(front, (x) => (100 * x) / 150),
  rear: Float64Array.from(rear, (x) => (100 * wheel(x)) / wheelMm),
}
/** Mean depth, % of travel: what a silent mistake moves. */
const mean = (x: Float64Array) => {
  const known = x.filter(Number.isFinite)
  return known.reduce((s, v) => s + v, 0) / known.length
}

const path = 'docs/file-formats.md'
/** Rows without the padding of a formatted table. */
const plainRows = (text: string) =>
  text
    .split('\n')
    .filter((l) => l.startsWith('|') && !/^\|[\s|-]+$/.test(l))
    .map((l) => l.replace(/\s*\|\s*/g, '|'))

describe('files of other people’s loggers', () => {
  it('are as many as were promised, and none is told twice', () => {
    expect(dialects.length).toBeGreaterThanOrEqual(60)
    expect(new Set(dialects.map((d) => d.name)).size).toBe(dialects.length)
  })
  it.each(dialects.map((d) => [d.name, d] as const))('%s', (_, d) => {
    const got = outcome(d)
    if (d.is === 'asks' || d.is === 'refused') {
      expect(got.codes).toEqual(d.codes)
      expect(got.recording).toBeNull()
      return
    }
    expect(got.refusal).toBeNull()
    const r = got.recording!
    if (d.is === 'read') expect(got.codes).toEqual([])
    else for (const code of d.codes!) expect(got.codes).toContain(code)
    if (
      ['little-travel', 'slow-rate', 'fast-rate', 'time-unit-guessed', 'clipped'].some((c) =>
        got.codes.includes(c),
      )
    )
      return
    // Right: the rate, the length, and where the wheels were, sample by sample.
    expect(r.sampleRateHz).toBeCloseTo(rateHz, 0)
    expect(r.samples / r.sampleRateHz).toBeCloseTo(40, 0)
    if (d.stands) {
      for (const end of ['front', 'rear'] as const) expect(r.depthPct[end]!.every(Number.isFinite)).toBe(true)
      return
    }
    for (const end of d.ends ?? (['front', 'rear'] as const)) {
      const depth = r.depthPct[end]!
      const shift = d.name.startsWith('zeros') && end === 'front' ? 20 / 1.5 : 0
      // What is a gap is no part of either.
      const there = truth[end].filter((_, i) => Number.isFinite(depth[i]))
      expect(Math.abs(mean(depth) - shift - mean(there)), end).toBeLessThan(0.6)
      let worst = 0
      for (let i = 100; i < samples - 100; i++)
        if (Number.isFinite(depth[i])) worst = Math.max(worst, Math.abs(depth[i] - shift - truth[end][i]))
      // A bridged reading lies between its neighbours; a spread stamp is out by less than a sample.
      expect(worst, end).toBeLessThan(d.is === 'read' ? 0.2 : 12)
    }
  })
  it('are listed in the documents as they are read', () => {
    const words = { read: 'read by itself', told: 'read, and said', asks: 'asks', refused: 'refused' }
    const rows = dialects.map((d) => {
      const got = outcome(d)
      return `| ${d.name.replaceAll('|', '/')} | ${d.set ? 'read as it was set' : words[d.is]} | ${[...new Set(got.codes)].map((c) => `\`${c}\``).join(' ')} |`
    })
    const [open, close] = ['<!-- files: begin -->', '<!-- files: end -->']
    const table = ['| file | is | told |', '| --- | --- | --- |', ...rows]
    const document = readFileSync(path, 'utf8')
    const [before, rest] = document.split(open)
    const [held, after] = rest.split(close)
    if (process.env.WILD_SPRING_WRITE_DOCS)
      writeFileSync(path, `${before}${open}\n\n${table.join('\n')}\n\n${close}${after}`)
    else expect(plainRows(held)).toEqual(plainRows(table.join('\n')))
  })
})
