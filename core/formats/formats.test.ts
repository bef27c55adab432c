import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { InputError } from '../errors.ts'
import type { TravelGeometry } from '../telemetry/cleanRecording.ts'
import { ingestDelimited } from '../telemetry/ingest.ts'
import { codeOf } from '../test/codeOf.ts'
import { suggestMapping } from '../telemetry/mapping.ts'
import { clockSeconds } from './clock.ts'
import { readGpx } from './gpx.ts'
import { readDelimited } from './delimited.ts'
import { sniffLayout } from './layout.ts'
import { linearLeverage } from '../linkage/leverage.ts'
import { scanNumber } from './numberScan.ts'

const bytes = (s: string) => new TextEncoder().encode(s)
const geometry: TravelGeometry = {
  frontTravelMm: 150,
  rearStrokeMm: 55,
  leverage: null,
}
const wave = (i: number) => 30 + 20 * Math.sin(i / 9)
const rows = (n: number, row: (i: number) => string, eol = '\n') =>
  Array.from({ length: n }, (_, i) => row(i)).join(eol) + eol
const ingest = (text: string, change: (m: ReturnType<typeof suggestMapping>) => void = () => {}) => {
  const b = bytes(text)
  const m = suggestMapping(sniffLayout(b))
  change(m)
  return ingestDelimited(b, m, geometry)
}

describe('reading one number', () => {
  const read = (s: string, decimal = '.') => scanNumber(bytes(s), 0, bytes(s).length, decimal.charCodeAt(0))
  it('agrees with the language for every double it is given', () => {
    fc.assert(
      fc.property(
        fc.double({ noNaN: true, noDefaultInfinity: true }),
        (x) => Object.is(read(String(x)), x) || read(String(x)) === x,
      ),
    )
    fc.assert(
      fc.property(
        fc.integer({ min: -999999, max: 999999 }),
        fc.integer({ min: 0, max: 6 }),
        (n, d) => read((n / 10 ** d).toFixed(d)) === Number((n / 10 ** d).toFixed(d)),
      ),
    )
  })
  it('takes a decimal comma, blanks, quotes and a plus', () => {
    expect(read(' "12,5" ', ',')).toBe(12.5)
    expect(read('+3')).toBe(3)
    expect(read('.5')).toBe(0.5)
    expect(read('5.')).toBe(5)
  })
  it('is not fooled by text', () => {
    for (const s of ['', ' ', '-', '.', 'abc', '1.2.3', '12mm', '1e', 'e5', '1,5'])
      expect(read(s), s).toBeNaN()
  })
})

describe('clock cells', () => {
  it('give seconds', () => {
    expect(clockSeconds('00:01:02.500')).toBe(62.5)
    expect(clockSeconds('4:05.5')).toBe(245.5)
    expect(clockSeconds('1970-01-02T00:00:01Z')).toBe(86401)
    expect(clockSeconds('2024-03-01 00:00:00') - clockSeconds('2024-02-28 00:00:00')).toBe(2 * 86400)
    expect(clockSeconds('soon')).toBeNaN()
  })
})

describe('guessing a layout', () => {
  it('semicolons, decimal commas, milliseconds and extra columns', () => {
    const l = sniffLayout(
      bytes(
        't [ms];Fork [mm];Shock [mm];Temp;Note\n' +
          rows(
            50,
            (i) =>
              `${i * 2};${wave(i).toFixed(2).replace('.', ',')};${(wave(i) / 3).toFixed(2).replace('.', ',')};21,5;x`,
          ),
      ),
    )
    expect(l).toMatchObject({ delimiter: ';', decimal: ',', firstRowLine: 2 })
    expect(l.columns.map((c) => c.role)).toEqual(['time', 'front-travel', 'rear-travel', 'ignore', 'ignore'])
    expect(l.columns[0].unit).toBe('ms')
  })
  it('tabs, comment lines, a units line and a byte order mark', () => {
    const l = sniffLayout(
      bytes(
        '\uFEFF# made at the bench\ntime\tfront\trear\n(s)\t(mm)\t(mm)\n' +
          rows(20, (i) => `${i / 100}\t${wave(i)}\t${wave(i)}`),
      ),
    )
    expect(l).toMatchObject({
      delimiter: '\t',
      decimal: '.',
      skipBytes: 3,
      firstRowLine: 4,
      headerLine: 'time\tfront\trear',
    })
    expect(l.columns[0]).toMatchObject({ role: 'time', unit: 's' })
  })
  it('commas with decimal points, without a header', () => {
    const l = sniffLayout(bytes(rows(20, (i) => `${i},${wave(i).toFixed(3)}`)))
    expect(l).toMatchObject({ delimiter: ',', decimal: '.', firstRowLine: 1, headerLine: '' })
  })
  it('finds time by its unit, or by climbing evenly, whatever it is called', () => {
    const named = sniffLayout(
      bytes(
        'Stamp [ms];Batt;Fork\n' +
          rows(20, (i) => `${900 + i * 5};3,9;${wave(i).toFixed(1).replace('.', ',')}`),
      ),
    )
    expect(named.columns.map((c) => c.role)).toEqual(['time', 'ignore', 'front-travel'])
    const bare = sniffLayout(bytes('a,b,front\n' + rows(20, (i) => `${3 - (i % 2)},${i / 100},${wave(i)}`)))
    expect(bare.columns.map((c) => c.role)).toEqual(['ignore', 'time', 'front-travel'])
  })
  it('does not take a pressure or an acceleration for travel', () => {
    const l = sniffLayout(bytes('time,front_press,front_acc,front\n' + rows(9, (i) => `${i},1,2,${i}`)))
    expect(l.columns.map((c) => c.role)).toEqual(['time', 'ignore', 'ignore', 'front-travel'])
  })
})

describe('reading the table', () => {
  const read = (text: string, columns = [0, 1], clockColumn = -1) =>
    readDelimited(bytes(text), {
      delimiter: ',',
      decimal: '.',
      skipBytes: 0,
      firstRowLine: 2,
      columns,
      clockColumn,
    })
  it('is the same for LF, CRLF, CR and a mixture', () => {
    for (const text of ['h,h\n1,2\n3,4\n', 'h,h\r\n1,2\r\n3,4\r\n', 'h,h\r1,2\r3,4', 'h,h\r\n1,2\n3,4']) {
      const t = read(text)
      expect([...t.columns[0], ...t.columns[1]], JSON.stringify(text)).toEqual([1, 3, 2, 4])
      expect([...t.lines]).toEqual([2, 3])
    }
  })
  it('counts what it could not read and says where', () => {
    const t = read('h,h\n1,2\n3\n\n5,oops\n7,\n9,NaN\n')
    expect(t).toMatchObject({ shortRows: 1, firstShortLine: 3, textCells: 1, firstTextLine: 5 })
    expect([...t.columns[1]]).toEqual([2, NaN, NaN, NaN])
  })
  it('picks columns in the asked order', () => {
    const t = read('h,h,h\n1,2,3\n', [2, 0])
    expect(t.columns.map((c) => c[0])).toEqual([3, 1])
  })
})

describe('from bytes to channels', () => {
  const head = 'time [s],front [mm],rear [mm]\n'
  const row = (i: number) =>
    `${(i / 200).toFixed(3)},${(wave(i) * 1.5).toFixed(3)},${((wave(i) / 100) * 55).toFixed(3)}`
  it('finds the rate, the ends and the depth', () => {
    const r = ingest(head + rows(400, row))
    expect(r.sampleRateHz).toBe(200)
    expect(r.samples).toBe(400)
    expect(r.ends).toEqual(['front', 'rear'])
    expect(r.depthPct.front![77]).toBeCloseTo(wave(77), 2)
    expect(r.depthPct.rear![77]).toBeCloseTo(wave(77), 1)
    expect(r.issues).toEqual([])
  })
  it('tells s, ms, µs and clock times apart by themselves', () => {
    for (const f of [
      (i: number) => i / 200,
      (i: number) => i * 5,
      (i: number) => i * 5000,
      (i: number) => `2031-05-02T10:00:${(i / 200).toFixed(3).padStart(6, '0')}Z`,
    ]) {
      expect(ingest('time,front_mm\n' + rows(400, (i) => `${f(i)},${wave(i)}`)).sampleRateHz).toBe(200)
    }
  })
  it('takes a given sample rate where there is no time', () => {
    const r = ingest(
      'front_mm,rear_mm\n' + rows(400, (i) => `${wave(i)},${wave(i) / 3}`),
      (m) => (m.sampleRateHz = 250),
    )
    expect(r.sampleRateHz).toBe(250)
  })
  it('uses two-point calibration, falling readings too', () => {
    const r = ingest(
      'time [s],front [raw]\n' + rows(400, (i) => `${i / 200},${4000 - wave(i) * 30}`),
      (m) =>
        (m.columns[1].calibration = { extendedReading: 4000, compressedReading: 1000, compressedMm: 150 }),
    )
    expect(r.depthPct.front![100]).toBeCloseTo(wave(100), 6)
  })
  it('turns a reversed sensor round and says so', () => {
    const r = ingest('time,front_mm\n' + rows(400, (i) => `${i / 200},${-wave(i)}`))
    expect(r.issues.map((x) => x.code)).toContain('sign-flipped')
    expect(r.depthPct.front![10]).toBeGreaterThan(0)
  })
  it('keeps gaps, continues a reset clock, drops repeated instants, bridges spikes, and reports each', () => {
    const lines = Array.from({ length: 600 }, (_, i) => row(i).split(','))
    lines.splice(300, 40)
    lines[100][1] = '900'
    lines[50][0] = lines[49][0]
    for (let i = 450; i < lines.length; i++) lines[i][0] = ((i - 450) / 200).toFixed(3)
    const r = ingest(head + lines.map((l) => l.join(',')).join('\n'))
    expect(r.issues.map((x) => x.code).sort()).toEqual(['clock-reset', 'gaps', 'spikes', 'time-duplicates'])
    expect(r.depthPct.front!.some(Number.isNaN)).toBe(true)
    expect(r.depthPct.front![100]).toBeCloseTo(wave(100), 0)
  })
  it('warns when readings lie outside the travel, and believes none where most of them do', () => {
    const scaledBy = (k: number) => 'time,front_mm\n' + rows(400, (i) => `${i / 200},${wave(i) * k}`)
    expect(ingest(scaledBy(2.9)).issues.map((x) => x.code)).not.toContain('beyond-travel')
    expect(ingest(scaledBy(3.6)).issues.map((x) => x.code)).toContain('beyond-travel')
    expect(() => ingest(scaledBy(9))).toThrow(/between 6\d and 29\d %. Choose its unit/)
  })
  it('uses the linkage where it is known', () => {
    const b = bytes('time,rear [mm]\n' + rows(400, (i) => `${i / 200},${27.5 + Math.sin(i)}`))
    const r = ingestDelimited(b, suggestMapping(sniffLayout(b)), {
      ...geometry,
      leverage: linearLeverage(3, 2, 55),
    })
    expect(r.rearAt).toBe('axle')
    expect(r.travelMm.rear).toBeCloseTo(2.5 * 55, 9)
  })
})

describe('bad files each get one clear sentence', () => {
  const cases: [string, () => unknown, string, RegExp][] = [
    ['empty', () => sniffLayout(new Uint8Array()), 'file.empty', /empty/],
    ['only blank lines', () => sniffLayout(bytes('\n\n  \n')), 'file.empty', /empty/],
    ['binary', () => sniffLayout(Uint8Array.of(80, 75, 3, 4, 0, 0)), 'file.binary', /not text/],
    ['header only', () => sniffLayout(bytes('time,front,rear\n')), 'file.header-only', /no rows/],
    ['no numbers', () => sniffLayout(bytes('a,b\nc,d\ne,f\n')), 'file.no-numbers', /No row of numbers/],
    ['one column', () => sniffLayout(bytes('front\n1\n2\n3\n')), 'file.one-column', /Only one column/],
    [
      'no travel',
      () => ingest('time,alt\n1,2\n2,3\n3,4\n'),
      'mapping.no-travel',
      /front travel or rear travel/,
    ],
    ['no time', () => ingest('front_mm,rear_mm\n1,2\n2,3\n3,4\n'), 'mapping.no-time', /sample rate/],
    [
      'time stands',
      () => ingest('time,front_mm\n' + rows(50, (i) => `7,${i}`)),
      'time.never-moves',
      /never moves/,
    ],
    [
      'dead sensor',
      () => ingest('time,front_mm\n' + rows(50, (i) => `${i},12`)),
      'channel.constant',
      /front travel column never moves/,
    ],
    [
      'blank sensor',
      () => ingest('time,x,front_mm\n' + rows(50, (i) => `${i},1,`)),
      'channel.empty',
      /no numbers/,
    ],
    [
      'raw without calibration',
      () => ingest('time,front [raw]\n' + rows(50, (i) => `${i},${i}`)),
      'mapping.raw',
      /calibration/,
    ],
    [
      'equal calibration',
      () =>
        ingest(
          'time,front\n' + rows(50, (i) => `${i},${i}`),
          (m) => (m.columns[1].calibration = { extendedReading: 5, compressedReading: 5, compressedMm: 150 }),
        ),
      'calibration.equal',
      /equal/,
    ],
    [
      'wrong delimiter',
      () => ingest('time;front_mm\n' + rows(50, (i) => `${i};${i}`), (m) => (m.delimiter = ',')),
      'mapping.delimiter',
      /separated by semicolons, not by commas/,
    ],
    [
      'absurd rate',
      () => ingest('front_mm,rear_mm\n' + rows(50, (i) => `${i},${i}`), (m) => (m.sampleRateHz = 1e6)),
      'rate.out-of-range',
      /between 20 and 20000/,
    ],
  ]
  for (const [name, act, code, sentence] of cases) {
    it(name, () => {
      expect(codeOf(act)).toBe(code)
      expect(act).toThrow(sentence)
    })
  }
})

describe('GPX files that are no track of a ride', () => {
  const gpx = (inside: string, before = '') =>
    `<?xml version="1.0"?>${before}<gpx version="1.1">${inside}</gpx>`
  const code = (text: string) => {
    try {
      readGpx(text)
      return 'read'
    } catch (e) {
      return e instanceof InputError ? e.code : String(e)
    }
  }
  it.each([
    '<trk><trkseg trkpt="a"/></trk>',
    '<trk trkseg="a"></trk>',
    '<trk><trkseg><trkpt lat="1" lon="2"><time><x/></time></trkpt><trkpt lat="1" lon="2"><time/></trkpt></trkseg></trk>',
    '<trk><trkseg><trkpt lat="1" lon="2"><time>a</time><time>b</time></trkpt><trkpt/></trkseg></trk>',
    '<trk><trkseg><trkpt><lat>1</lat></trkpt><trkpt lat="1"><lat>2</lat></trkpt></trkseg></trk>',
    '<__proto__><trk/></__proto__>',
    '<trk><constructor/><trkseg>text</trkseg></trk>',
    'text',
    '',
  ])('%s is refused in one sentence, and nothing breaks', (inside) => {
    expect(() => readGpx(gpx(inside))).toThrow(InputError)
  })
  it('nested without end, swollen by entities, or endless are refused in a sentence, at once', () => {
    expect(code(gpx('<a>'.repeat(200_000) + '</a>'.repeat(200_000)))).toBe('gpx.depth')
    expect(code(gpx('&b;', '<!DOCTYPE gpx [<!ENTITY a "aaaa"><!ENTITY b "&a;&a;">]>'))).toBe('gpx.entities')
    expect(
      code(gpx(`<trk><trkseg>${'<trkpt lat="1" lon="1"></trkpt>'.repeat(500_001)}</trkseg></trk>`)),
    ).toBe('gpx.points')
  })
})
