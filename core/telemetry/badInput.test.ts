import { describe, expect, it } from 'vitest'
import type { ImportMapping } from '#contract/recording'
import { InputError } from '../errors.ts'
import { sniffLayout } from '../formats/layout.ts'
import { ingestDelimited } from './ingest.ts'
import { suggestMapping } from './mapping.ts'

const geometry = { frontTravelMm: 150, rearStrokeMm: 55, leverage: null }
const front = (i: number) => 40 + 30 * Math.sin(i / 17)
const rows = (n: number, line: (i: number) => string, eol = '\n') =>
  Array.from({ length: n }, (_, i) => line(i)).join(eol)
const plain = (n = 600) => `time_ms,front_mm\n${rows(n, (i) => `${i * 5},${front(i).toFixed(2)}`)}\n`
const bytesOf = (text: string | Uint8Array) =>
  typeof text === 'string' ? new TextEncoder().encode(text) : text

function read(file: string | Uint8Array, change: (m: ImportMapping) => ImportMapping = (m) => m) {
  const bytes = bytesOf(file)
  return ingestDelimited(bytes, change(suggestMapping(sniffLayout(bytes))), geometry)
}
function message(act: () => unknown): string {
  try {
    act()
  } catch (e) {
    expect(e).toBeInstanceOf(InputError)
    return (e as Error).message
  }
  return 'nothing was refused'
}

/** Files that cannot be read: one sentence that says what would be right. */
const refused: [string, string | Uint8Array, RegExp, ((m: ImportMapping) => ImportMapping)?][] = [
  ['an empty file', '', /empty; choose a delimited text file/],
  ['only blank lines', '\n\n  \n', /empty/],
  ['only a header', 'time_ms,front_mm\n', /header but no rows of numbers/],
  ['a binary file', Uint8Array.of(80, 75, 3, 4, 0, 1, 2, 0), /not text; export the recording as CSV/],
  ['a letter', 'Dear rider,\nthe logger is in the post.\n', /No row of numbers|Only one column/],
  [
    'one column',
    rows(50, (i) => `${front(i)}`),
    /Only one column was found; .* comma, semicolon, tab, bar or space/,
  ],
  [
    'another delimiter than was said',
    plain().replaceAll(',', ';'),
    /separated by semicolons, not by commas/,
    (m) => ({ ...m, delimiter: ',' }),
  ],
  [
    'no time, and no sample rate',
    `front_mm,rear_mm\n${rows(50, (i) => `${front(i)},${i % 7}`)}`,
    /No time column is chosen; choose one or give the sample rate/,
  ],
  [
    'no time, and an impossible rate',
    `front_mm,rear_mm\n${rows(50, (i) => `${front(i)},${i % 7}`)}`,
    /between 20 and 20000 Hz, got 3/,
    (m) => ({ ...m, sampleRateHz: 3 }),
  ],
  [
    'most of it outside the travel',
    `time_ms,front_mm\n${rows(600, (i) => `${i * 5},${(6 * front(i)).toFixed(2)}`)}`,
    /Most of the front travel column lies outside 0 to 100 % of 150 mm: between \d+ and 2\d\d %/,
  ],
  [
    'seconds under the name of microseconds',
    `time_us,front_mm\n${rows(600, (i) => `${(i / 200).toFixed(3)},${front(i).toFixed(2)}`)}`,
    /200000000 samples a second and lasts 0\.000003 s; no logger is faster than 20000\. Choose the unit/,
  ],
  ['a time that never moves', `time_ms,front_mm\n${rows(50, (i) => `7,${front(i)}`)}`, /never moves forward/],
  [
    'a time in words',
    `time,front_mm\n${rows(50, (i) => `soon,${front(i)}`)}`,
    /Time could not be read in line 2|No row of numbers/,
  ],
  ['one row', 'time_ms,front_mm\n5,40\n', /fewer than two usable rows/],
  [
    'a channel that never moves',
    `time_ms,front_mm\n${rows(50, (i) => `${i * 5},12.5`)}`,
    /front travel column never moves; check the sensor/,
  ],
  [
    'an empty channel',
    `time_ms,front_mm,rear_mm\n${rows(50, (i) => `${i * 5},,${i % 9}`)}`,
    /front travel column holds no numbers/,
  ],
  [
    'no travel at all',
    `time_ms,speed_kmh\n${rows(50, (i) => `${i * 5},${20 + i}`)}`,
    /which column is front travel or rear travel/,
  ],
  [
    'calibration with equal end points',
    plain(),
    /two calibration readings are equal \(512\); take one at full extension/,
    (m) => ({
      ...m,
      columns: m.columns.map((c) =>
        c.role === 'front-travel'
          ? {
              ...c,
              unit: 'raw',
              calibration: { extendedReading: 512, compressedReading: 512, compressedMm: 150 },
            }
          : c,
      ),
    }),
  ],
  [
    'raw readings without a calibration',
    plain(),
    /Raw readings of front travel need a calibration/,
    (m) => ({ ...m, columns: m.columns.map((c) => (c.role === 'front-travel' ? { ...c, unit: 'raw' } : c)) }),
  ],
  [
    'a column that is not there',
    plain(),
    /Column 10 does not exist; the file has 2 columns/,
    (m) => ({ ...m, columns: m.columns.map((c) => (c.role === 'front-travel' ? { ...c, column: 9 } : c)) }),
  ],
  [
    'two columns of one kind',
    `time_ms,front_mm,more\n${rows(50, (i) => `${i * 5},${front(i)},${front(i)}`)}`,
    /Two columns are both set to front travel; choose one/,
    (m) => ({
      ...m,
      columns: m.columns.map((c) => (c.column === 2 ? { ...c, role: 'front-travel', unit: 'mm' } : c)),
    }),
  ],
]

describe('files that cannot be read', () => {
  it.each(refused)('%s', (_, file, sentence, change) => {
    expect(message(() => read(file, change))).toMatch(sentence)
  })
})

/** Files with faults that reading gets over: what it did is said, with the line. */
const noticed: [string, string, string, RegExp, number | null][] = [
  [
    'a clock that starts again',
    `time_ms,front_mm\n${rows(600, (i) => `${(i % 300) * 5},${front(i).toFixed(2)}`)}`,
    'clock-reset',
    /clock jumps back once, first in line 302; time was continued/,
    302,
  ],
  [
    'repeated instants',
    `time_ms,front_mm\n${rows(600, (i) => `${(i - (i === 90 ? 1 : 0)) * 5},${front(i).toFixed(2)}`)}`,
    'time-duplicates',
    /1 rows repeat an instant, the first in line 92; the first reading was kept/,
    92,
  ],
  [
    'gaps',
    `time_ms,front_mm\n${rows(600, (i) => `${i * 5 + (i > 200 ? 400 : 0)},${front(i).toFixed(2)}`)}`,
    'gaps',
    /1 gaps of more than 50 ms; they are kept as gaps, not bridged/,
    null,
  ],
  [
    'words among the numbers',
    `time_ms,front_mm\n${rows(600, (i) => `${i * 5},${i === 120 ? 'lost' : front(i).toFixed(2)}`)}`,
    'text-cells',
    /1 cells hold text instead of a number, the first in line 122/,
    122,
  ],
  [
    'rows that are cut short',
    `time_ms,front_mm\n${rows(600, (i) => (i === 50 ? `${i * 5}` : `${i * 5},${front(i).toFixed(2)}`))}`,
    'short-rows',
    /1 rows have too few columns, the first in line 52/,
    52,
  ],
  [
    'a reading that overflowed',
    `time_ms,front_mm\n${rows(600, (i) => `${i * 5},${i === 77 ? '6.5e4' : front(i).toFixed(2)}`)}`,
    'spikes',
    /1 samples of front travel moved faster than a wheel can/,
    null,
  ],
  [
    'an inverted sign',
    `time_ms,front_mm\n${rows(600, (i) => `${i * 5},${(-front(i)).toFixed(2)}`)}`,
    'sign-flipped',
    /shrinks when the bike compresses; its sign was turned round/,
    null,
  ],
  [
    'a stroke that does not fit',
    `time_ms,front_mm\n${rows(600, (i) => `${i * 5},${(3 * front(i)).toFixed(2)}`)}`,
    'beyond-travel',
    /outside 0 to 100 % of 150 mm; check the unit of the column, the calibration and the stroke/,
    null,
  ],
]

describe('faults that reading gets over', () => {
  it.each(noticed)('%s', (_, file, code, sentence, line) => {
    const { issues } = read(file)
    const found = issues.find((i) => i.code === code)
    expect(found?.message, JSON.stringify(issues)).toMatch(sentence)
    expect(found?.line).toBe(line)
  })
  it('blanks and "NaN" are gaps without a complaint', () => {
    const file = `time_ms,front_mm\n${rows(600, (i) => `${i * 5},${i === 90 ? '' : i === 95 ? 'NaN' : front(i).toFixed(2)}`)}`
    expect(read(file).issues).toEqual([])
  })
})

/** Other ways to write the same ride. */
const dialects: [string, string][] = [
  ['a byte order mark', `\uFEFF${plain()}`],
  ['CRLF', plain().replaceAll('\n', '\r\n')],
  [
    'mixed line ends',
    plain().replace(
      /\n/g,
      (() => {
        let k = 0
        return () => ['\n', '\r\n', '\r'][k++ % 3]
      })(),
    ),
  ],
  ['semicolons and decimal commas', plain().replaceAll(',', ';').replaceAll('.', ',')],
  ['tabs', plain().replaceAll(',', '\t')],
  ['time in s', `time_s,front_mm\n${rows(600, (i) => `${(i * 0.005).toFixed(3)},${front(i).toFixed(2)}`)}`],
  ['time in µs', `time_us,front_mm\n${rows(600, (i) => `${i * 5000},${front(i).toFixed(2)}`)}`],
  [
    'time as dates',
    `time,front_mm\n${rows(600, (i) => `2031-05-02T10:00:0${(i * 0.005).toFixed(3)}Z,${front(i).toFixed(2)}`)}`,
  ],
]

describe('other ways to write the same ride', () => {
  const want = read(plain())
  it.each(dialects)('%s', (_, file) => {
    const r = read(file)
    expect(r.issues).toEqual([])
    expect(r.sampleRateHz).toBe(want.sampleRateHz)
    expect(r.samples).toBe(want.samples)
    for (const i of [0, 100, 599]) expect(r.depthPct.front![i]).toBeCloseTo(want.depthPct.front![i], 6)
  })
})
