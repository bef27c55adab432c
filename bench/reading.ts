import Papa from 'papaparse'
import { inferSchema, initParser } from 'udsv'
import { readDelimited } from '#core/formats/delimited'
import { extraBytes, medianMs, timesAsLong, type Row } from './measure.ts'

const rowCount = 600_000
const columns = 6

/** 600,000 rows × 6 columns of numbers, about 30 MB. */
function makeFile(): Uint8Array {
  const lines = ['time_ms,front_mm,rear_mm,acc_g,speed_ms,temp_c']
  for (let i = 0; i < rowCount; i++) {
    const s = Math.sin(i / 37)
    lines.push(
      `${(i * 2).toFixed(1)},${(45 + 30 * s).toFixed(3)},${(18 + 11 * s).toFixed(3)},${(1 + s).toFixed(4)},${(8 + s).toFixed(3)},${(21 + s / 9).toFixed(3)}`,
    )
  }
  return new TextEncoder().encode(lines.join('\n') + '\n')
}

const ours = (bytes: Uint8Array) =>
  readDelimited(bytes, {
    delimiter: ',',
    decimal: '.',
    skipBytes: 0,
    firstRowLine: 2,
    columns: [0, 1, 2, 3, 4, 5],
    clockColumn: -1,
  })

function withPapa(bytes: Uint8Array): Float64Array[] {
  const { data } = Papa.parse<string[]>(new TextDecoder().decode(bytes), { skipEmptyLines: true })
  const out = Array.from({ length: columns }, () => new Float64Array(data.length - 1))
  for (let r = 1; r < data.length; r++) for (let c = 0; c < columns; c++) out[c][r - 1] = Number(data[r][c])
  return out
}

function withUdsv(bytes: Uint8Array): Float64Array[] {
  const text = new TextDecoder().decode(bytes)
  const data = initParser(inferSchema(text)).typedArrs(text) as number[][]
  const out = Array.from({ length: columns }, () => new Float64Array(data.length))
  for (let r = 0; r < data.length; r++) for (let c = 0; c < columns; c++) out[c][r] = data[r][c]
  return out
}

/** What a loop over the bytes costs that does nothing but count line ends. */
function loop(bytes: Uint8Array): number {
  let lines = 0
  for (let i = 0; i < bytes.length; i++) if (bytes[i] === 10) lines++
  return lines
}

export async function readingRows(): Promise<Row[]> {
  const bytes = makeFile()
  const a = ours(bytes).columns
  const b = withPapa(bytes)
  const c = withUdsv(bytes)
  // A fast reader that reads something else would be no reader.
  for (let k = 0; k < columns; k++)
    for (const i of [0, 1, 77_777, rowCount - 1])
      if (a[k][i] !== b[k][i] || a[k][i] !== c[k][i]) throw new Error(`column ${k}, row ${i} differs`)
  const mine = medianMs(() => ours(bytes))
  const size = `${(bytes.length / 1e6).toFixed(0)} MB, ${rowCount} rows × ${columns}`
  return [
    { work: `read delimited text (${size})`, figure: mine, unit: 'ms', against: 'one pass, to typed arrays' },
    {
      work: 'reading, papaparse ÷ ours',
      figure: timesAsLong(
        () => withPapa(bytes),
        () => ours(bytes),
      ),
      unit: '×',
      against: 'bar ≥ 10 ×',
    },
    {
      work: 'reading, udsv ÷ ours',
      figure: timesAsLong(
        () => withUdsv(bytes),
        () => ours(bytes),
      ),
      unit: '×',
      against: 'bar ≥ 4 ×',
    },
    {
      work: 'reading, ours ÷ an empty loop over the bytes',
      figure: timesAsLong(
        () => ours(bytes),
        () => loop(bytes),
      ),
      unit: '×',
      against: 'bar ≤ 2.0 ×',
    },
    {
      work: 'reading, array memory ÷ result',
      figure: extraBytes(() => ours(bytes)) / (rowCount * columns * 8),
      unit: '×',
      against: 'result = 8 B per cell',
    },
  ]
}
