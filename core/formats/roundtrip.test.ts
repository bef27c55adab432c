import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { seededRandom } from '../numeric/random.ts'
import { rideTrail } from '../sim/ride.ts'
import { travelFile } from '../sim/sensorFile.ts'
import { shaftMm } from '../sim/sensors.ts'
import { sectionOf, testBike } from '../test/simulated.ts'
import type { TravelGeometry } from '../telemetry/cleanRecording.ts'
import { ingestDelimited } from '../telemetry/ingest.ts'
import { suggestMapping } from '../telemetry/mapping.ts'
import { headerBytes } from './header.ts'
import { readDelimited } from './delimited.ts'
import { sniffLayout } from './layout.ts'
import { plainRowEnd, scanNumber } from './numberScan.ts'

const bytes = (s: string) => new TextEncoder().encode(s)
const geometry: TravelGeometry = {
  frontTravelMm: 160,
  rearStrokeMm: 60,
  leverage: null,
}

const dialect = fc.record({
  delimiter: fc.constantFrom(',', ';', '\t', '|'),
  comma: fc.boolean(),
  eol: fc.constantFrom('\n', '\r\n', '\r'),
  bom: fc.boolean(),
  comment: fc.boolean(),
  quoted: fc.boolean(),
  lastBreak: fc.boolean(),
  timeUnit: fc.constantFrom<'s' | 'ms' | 'us'>('s', 'ms', 'us'),
  rateHz: fc.constantFrom(100, 200, 500, 1000),
  order: fc.constantFrom([0, 1, 2], [2, 0, 1], [1, 2, 0]),
})
type Dialect = typeof dialect extends fc.Arbitrary<infer T> ? T : never

const frontMm = (i: number) => Math.round((48 + 31 * Math.sin(i / 17)) * 100) / 100
const rearMm = (i: number) => Math.round((19 + 12 * Math.sin(i / 23)) * 100) / 100
const perSecond = { s: 1, ms: 1e3, us: 1e6 }

function write(d: Dialect, rows = 300): string {
  const decimal = d.comma && d.delimiter !== ',' ? ',' : '.'
  const number = (x: number) => {
    const text = String(Math.round(x * 1e6) / 1e6).replace('.', decimal)
    return d.quoted ? `"${text}"` : text
  }
  const pick = <T>(cells: T[]) => d.order.map((k) => cells[k])
  const lines = [pick([`Time [${d.timeUnit}]`, 'Front [mm]', 'Rear [mm]']).join(d.delimiter)]
  if (d.comment) lines.unshift('# a remark of one line')
  for (let i = 0; i < rows; i++)
    lines.push(
      pick([(i / d.rateHz) * perSecond[d.timeUnit] + 7, frontMm(i), rearMm(i)])
        .map(number)
        .join(d.delimiter),
    )
  return (d.bom ? '\uFEFF' : '') + lines.join(d.eol) + (d.lastBreak ? d.eol : '')
}

describe('whatever dialect a logger speaks', () => {
  it('the same ride comes out', () => {
    fc.assert(
      fc.property(dialect, (d) => {
        const b = bytes(write(d))
        const r = ingestDelimited(b, suggestMapping(sniffLayout(b)), geometry)
        expect(r.sampleRateHz).toBeCloseTo(d.rateHz, 3)
        expect(r.samples).toBe(300)
        expect(r.issues).toEqual([])
        for (const i of [0, 1, 150, 299]) {
          expect(r.depthPct.front![i]).toBeCloseTo((frontMm(i) / 160) * 100, 6)
          expect(r.depthPct.rear![i]).toBeCloseTo((rearMm(i) / 60) * 100, 6)
        }
      }),
      { numRuns: 120 },
    )
  })
  it('the header names the kind of file, not its line ends or its remarks', () => {
    const of = (d: Partial<Dialect>) => {
      const b = bytes(
        write({
          delimiter: ';',
          comma: false,
          eol: '\n',
          bom: false,
          comment: false,
          quoted: false,
          lastBreak: true,
          timeUnit: 'ms',
          rateHz: 200,
          order: [0, 1, 2],
          ...d,
        }),
      )
      return new TextDecoder().decode(headerBytes(sniffLayout(b))!)
    }
    expect(of({})).toBe('Time [ms];Front [mm];Rear [mm]')
    expect(of({ eol: '\r\n', bom: true, comment: true })).toBe(of({}))
    expect(of({ delimiter: ',' })).not.toBe(of({}))
  })
})

describe('our own logger’s files', () => {
  it('come back within their own quantisation', () => {
    const bike = testBike()
    const ride = rideTrail(bike, [sectionOf('roots', 30)], { ground: 1, run: 2 }, 500)
    const text = travelFile(bike, ride, seededRandom(2))
    const r = ingestDelimited(bytes(text), suggestMapping(sniffLayout(bytes(text))), {
      ...geometry,
      frontTravelMm: 150,
    })
    const truth = shaftMm(bike, ride, 'front')
    const worst = Math.max(...truth.map((mm, i) => Math.abs((r.depthPct.front![i] / 100) * 150 - mm)))
    // 0.05 mm steps and 0.05 mm noise: five sigma and half a step.
    expect(worst).toBeLessThan(0.3)
    expect(r.speedMS![10]).toBeCloseTo(ride.speedMS[10], 1)
  })
})

describe('the quick row reader', () => {
  const quick = (s: string, decimal = '.') => {
    const out = [new Float64Array(1), new Float64Array(1)]
    const [semicolon, mark] = [';', decimal].map((c) => c.charCodeAt(0))
    const end = plainRowEnd(bytes(s), 0, semicolon, mark, Int32Array.of(1, -1, 0), out, 0)
    return { end, values: out.map((column) => column[0]) }
  }
  it('agrees with the careful reader wherever it says that it can', () => {
    const number = fc
      .tuple(fc.double({ min: -1e9, max: 1e9, noNaN: true }), fc.integer({ min: 0, max: 9 }))
      .map(([x, digits]) => x.toFixed(digits))
    let read = 0
    fc.assert(
      fc.property(number, number, (a, c) => {
        const text = `${a};any thing;${c}\n`
        const { end, values } = quick(text)
        if (end === -1) return true
        read++
        const careful = [c, a].map((n) => scanNumber(bytes(n), 0, n.length, 46))
        return end === text.length - 1 && Object.is(values[0], careful[0]) && Object.is(values[1], careful[1])
      }),
      { numRuns: 300 },
    )
    expect(read).toBeGreaterThan(100)
  })
  it('reads wide clocks exactly, and stops at the end of the row', () => {
    expect(quick('1763942400123;x;2.5\r\n3;4;5\n')).toEqual({ end: 19, values: [2.5, 1763942400123] })
    expect(quick('1;;2;and;more\n')).toEqual({ end: 13, values: [2, 1] })
    expect(quick('-0,5;;7,25\r', ',')).toEqual({ end: 10, values: [7.25, -0.5] })
  })
  it('leaves to the careful reader what is not plain', () => {
    for (const row of [
      'a;;1',
      ';;1',
      '-;;1',
      ' 1;;2',
      '1;;2 ',
      '1e3;;2',
      '12345678901234567;;2',
      '1;2',
      '"1";;2',
    ])
      expect(quick(`${row}\n`).end, row).toBe(-1)
  })
})

describe('odd tables', () => {
  const read = (text: string, columns: number[], delimiter = ',') =>
    readDelimited(bytes(text), {
      delimiter,
      decimal: '.',
      skipBytes: 0,
      firstRowLine: 1,
      columns,
      clockColumn: -1,
    })
  it('an exponent, a blank before a number and a quoted one are numbers', () => {
    const t = read('1.5e2, 7,"3"\n-2E-1,+8 , 4\n', [0, 1, 2])
    expect(t.columns.map((c) => [...c])).toEqual([
      [150, -0.2],
      [7, 8],
      [3, 4],
    ])
    expect(t.textCells).toBe(0)
  })
  it('an overflow is a gap, not infinity', () => {
    const t = read('1e999,1\n2,2\n', [0, 1])
    expect(t.columns[0][0]).toBeNaN()
    expect(t.textCells).toBe(1)
  })
  it('runs of spaces part columns once', () => {
    const t = read('  1   2  3\n4 5    6\n', [0, 1, 2], ' ')
    expect(t.columns.map((c) => [...c])).toEqual([
      [1, 4],
      [2, 5],
      [3, 6],
    ])
  })
  it('columns behind the last wanted one are never looked at', () => {
    const t = read('1,2,x,y,z\n3,4,,,\n', [1])
    expect([...t.columns[0]]).toEqual([2, 4])
    expect(t.textCells + t.shortRows).toBe(0)
  })
  it('progress runs from start to end and can stop the reading', () => {
    const long = '1,2\n'.repeat(400_000)
    const seen: number[] = []
    readDelimited(bytes(long), {
      delimiter: ',',
      decimal: '.',
      skipBytes: 0,
      firstRowLine: 1,
      columns: [0],
      clockColumn: -1,
      onProgress: (s) => seen.push(s),
    })
    expect(seen.length).toBeGreaterThanOrEqual(2)
    expect(seen.every((s, i) => s > (seen[i - 1] ?? 0) && s <= 1)).toBe(true)
    const stop = () => {
      throw new Error('cancelled')
    }
    expect(() =>
      readDelimited(bytes(long), {
        delimiter: ',',
        decimal: '.',
        skipBytes: 0,
        firstRowLine: 1,
        columns: [0],
        clockColumn: -1,
        onProgress: stop,
      }),
    ).toThrow('cancelled')
  })
})
