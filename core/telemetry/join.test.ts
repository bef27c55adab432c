import { describe, expect, it } from 'vitest'
import type { ColumnMapping, ImportMapping } from '#contract/recording'
import { readGpx, writeGpx } from '../formats/gpx.ts'
import { distanceM } from '../geo/fix.ts'
import { wayOf } from '../geo/way.ts'
import { seededRandom } from '../numeric/random.ts'
import { rideTrail } from '../sim/ride.ts'
import { travelFile } from '../sim/sensorFile.ts'
import { gpsFixes } from '../sim/sensors.ts'
import { sniffLayout } from '../formats/layout.ts'
import { recordingOf } from '../test/synthetic.ts'
import { sectionOf, testBike } from '../test/simulated.ts'
import { readingsToMm } from './calibrate.ts'
import { ingestDelimited } from './ingest.ts'
import { joinRecording, joinTrack } from './join.ts'
import { suggestMapping } from './mapping.ts'
import { placeSections } from './sections.ts'

const bike = testBike()
const sections = (['smooth', 'climb', 'roots', 'flat-out', 'berms'] as const).map((k) => sectionOf(k, 90))
const ride = rideTrail(bike, sections, { ground: 2, run: 3 }, 200)
const geometry = { frontTravelMm: 150, rearStrokeMm: 55, leverage: null }
const bytes = (s: string) => new TextEncoder().encode(s)
/** The travel file without its speed column, as a logger without a wheel sensor writes it. */
const plainFile = travelFile(bike, ride, seededRandom(1))
  .split('\n')
  .map((l) => l.split(',').slice(0, 3).join(','))
  .join('\n')
const read = (text: string) => {
  const b = bytes(text)
  return ingestDelimited(b, suggestMapping(sniffLayout(b)), geometry)
}
const started = 1_900_000_000
const fixes = gpsFixes(ride, 5, seededRandom(2))

describe('GPX', () => {
  it('comes back as it was written, with instants to the millisecond', () => {
    const { fixes: back, dropped } = readGpx(writeGpx('A & B <trail>', fixes, started))
    expect(dropped).toBe(0)
    expect(back).toHaveLength(fixes.length)
    expect(back[7].timeS).toBeCloseTo(started + fixes[7].timeS, 3)
    expect(back[7].latitudeDeg).toBeCloseTo(fixes[7].latitudeDeg, 6)
  })
  it.each([
    ['not a track at all', /no <gpx> was found/],
    ['<gpx><trk><trkseg></gpx>', /line 1/],
    ['<gpx version="1.1"><wpt lat="1" lon="2"/></gpx>', /no track with at least two points/],
    [
      '<gpx><trk><trkseg><trkpt lat="1" lon="2"/><trkpt lat="1" lon="2.1"/></trkseg></trk></gpx>',
      /have no times/,
    ],
  ])('%s is refused in one sentence', (text, message) => {
    expect(() => readGpx(text)).toThrow(message)
  })
  it('leaves out points that are nowhere', () => {
    const point = (lat: number, s: number) =>
      `<trkpt lat="${lat}" lon="8"><time>2031-05-02T10:00:0${s}Z</time></trkpt>`
    const text = `<gpx><trk><trkseg>${point(46, 1)}${point(146, 2)}${point(46.001, 3)}</trkseg></trk></gpx>`
    const { fixes: back, dropped } = readGpx(text)
    expect([back.length, dropped]).toEqual([2, 1])
  })
  it('an empty place is none, a decimal comma is one, and no height is made up', () => {
    const at = (lat: string, s: number, more = '') =>
      `<trkpt lat="${lat}" lon="8,5">${more}<time>2031-05-02T10:00:0${s}Z</time></trkpt>`
    const text = `<gpx><trk><trkseg>${at('', 1)}${at('46,25', 2)}${at('46.26', 3, '<ele>640,5</ele>')}${at('46.27', 3)}</trkseg></trk></gpx>`
    const { fixes: back, dropped } = readGpx(text)
    expect(back.map((f) => [f.latitudeDeg, f.longitudeDeg, f.elevationM])).toEqual([
      [46.25, 8.5, null],
      [46.26, 8.5, 640.5],
    ])
    // The second point of one second is no fault of the file.
    expect(dropped).toBe(1)
    expect(readGpx(writeGpx('back', back, 0)).fixes.map((f) => f.elevationM)).toEqual([null, 640.5])
  })
})

describe('the way', () => {
  const fix = (latitudeDeg: number, longitudeDeg: number, timeS = 0) => ({
    latitudeDeg,
    longitudeDeg,
    timeS,
    elevationM: 0,
  })
  it('a degree of the meridian is 111.195 km on the mean sphere', () => {
    expect(distanceM(fix(46, 8), fix(47, 8))).toBeCloseTo((6_371_008.8 * Math.PI) / 180, 2)
    expect(distanceM(fix(0, 179.5), fix(0, -179.5))).toBeCloseTo(distanceM(fix(0, 0), fix(0, 1)), 3)
  })
  it('has the length and pace of a straight even ride', () => {
    const even = Array.from({ length: 60 }, (_, i) => fix(46 + i * 5e-5, 8, i))
    const { wayM, speedMS } = wayOf(even)
    expect(wayM[59]).toBeCloseTo(distanceM(even[0], even[59]), 1)
    expect(speedMS[30]).toBeCloseTo(5.56, 2)
  })
})

describe('a track laid under a recording', () => {
  it('finds by likeness when it began, and then the sections by distance', () => {
    const recording = read(plainFile)
    // The receiver was switched on twelve seconds before the logger.
    const early = [
      ...Array.from({ length: 60 }, (_, i) => ({ ...fixes[0], timeS: -12 + i / 5 })),
      ...fixes,
    ].map((f) => ({ ...f, timeS: f.timeS + started }))
    const placed = joinTrack(recording, { fixes: early, dropped: 0 }, 'way.gpx', null)
    expect(placed.offsetBy).toBe('matched')
    expect(Math.abs(placed.offsetS + 12)).toBeLessThan(1.6)
    const { by, spans } = placeSections(recording, sections)
    expect(by).toBe('distance')
    let i = 0
    while (ride.distanceM[i] < 180) i++
    expect(Math.abs(spans[2].startS - i / 200)).toBeLessThan(2.5)
  })
  it('is laid by dates when both have them', () => {
    const recording = { ...read(plainFile), startEpochS: started + 3 }
    const placed = joinTrack(
      recording,
      { fixes: fixes.map((f) => ({ ...f, timeS: f.timeS + started })), dropped: 0 },
      'way.gpx',
      null,
    )
    expect(placed).toEqual({ offsetS: -3, offsetBy: 'clock' })
  })
  it('of a receiver that had not found its place, and says so; without a place it is refused', () => {
    const lost = (n: number) =>
      Array.from({ length: n }, (_, i) => ({
        timeS: i - n,
        latitudeDeg: 0,
        longitudeDeg: 0,
        elevationM: null,
      }))
    const bare = { ...read(plainFile), distanceM: null, speedMS: null }
    const sound = { ...read(plainFile), distanceM: null, speedMS: null }
    joinTrack(sound, { fixes, dropped: 0 }, 'way.gpx', 0)
    joinTrack(bare, { fixes: [...lost(12), ...fixes], dropped: 3 }, 'way.gpx', 0)
    expect(bare.distanceM).toEqual(sound.distanceM)
    expect(bare.issues.map((i) => [i.code, i.count])).toEqual([
      ...sound.issues.map((i) => [i.code, i.count]),
      ['fixes-left-out', 12],
      ['points-left-out', 3],
    ])
    // Nobody's memory is asked for the years between.
    const unset = { ...read(plainFile), distanceM: null, speedMS: null, startEpochS: null }
    const years = fixes.map((f) => ({ ...f, timeS: f.timeS + started }))
    joinTrack(unset, { fixes: [{ ...years[0], timeS: 315_964_800 }, ...years], dropped: 0 }, 'way.gpx', null)
    expect(unset.issues.map((i) => i.code)).toEqual(expect.arrayContaining(['fixes-left-out', 'matched']))
    expect(() => joinTrack(read(plainFile), { fixes: lost(9), dropped: 0 }, 'way.gpx', 0)).toThrow(
      /tell no way/,
    )
  })
  it('is laid where a person says, and refused when that is nowhere', () => {
    expect(joinTrack(read(plainFile), { fixes, dropped: 0 }, 'way.gpx', 4)).toEqual({
      offsetS: 4,
      offsetBy: 'given',
    })
    expect(() => joinTrack(read(plainFile), { fixes, dropped: 0 }, 'way.gpx', 4000)).toThrow(/do not overlap/)
  })
  it('of another ride is not laid at all', () => {
    const other = rideTrail(
      bike,
      [sectionOf('flat-out', 90), sectionOf('climb', 120)],
      { ground: 9, run: 9 },
      200,
    )
    const wobble = gpsFixes(other, 5, seededRandom(4)).map((f, i) => ({
      ...f,
      latitudeDeg: f.latitudeDeg + 1e-4 * Math.sin(i / 3),
    }))
    expect(() => joinTrack(read(plainFile), { fixes: wobble, dropped: 0 }, 'other.gpx', null)).toThrow(
      /how many seconds after/,
    )
  })
  it('adds nothing to a recording that knows its way', () => {
    const recording = read(travelFile(bike, ride, seededRandom(1)))
    recording.distanceM = ride.distanceM
    expect(() => joinTrack(recording, { fixes, dropped: 0 }, 'way.gpx', null)).toThrow(
      /already has distance and speed/,
    )
  })
})

describe('a second logger', () => {
  const columns = (keep: number[]) =>
    plainFile
      .split('\n')
      .map((l) => keep.map((k) => l.split(',')[k]).join(','))
      .join('\n')
  /** Columns of the whole file, with its pace. */
  const ofWhole = (keep: (name: string) => boolean) => {
    const lines = travelFile(bike, ride, seededRandom(1)).split('\n')
    const kept = lines[0].split(',').map(keep)
    return lines
      .map((l) =>
        l
          .split(',')
          .filter((_, i) => kept[i])
          .join(','),
      )
      .join('\n')
  }
  it('brings the other end onto the first one’s clock', () => {
    const main = read(columns([0, 1]))
    const whole = read(plainFile)
    // The second one was started 2.5 s later.
    const later = columns([0, 2]).split('\n')
    const cut = [later[0], ...later.slice(1 + 2.5 * 200)].join('\n')
    const placed = joinRecording(main, read(cut), 'rear.csv', 2.5)
    expect(placed.offsetBy).toBe('given')
    expect(main.ends).toEqual(['front', 'rear'])
    const i = 3000
    expect(main.depthPct.rear![i]).toBeCloseTo(whole.depthPct.rear![i], 1)
    expect(Number.isNaN(main.depthPct.rear![100])).toBe(true)
    expect(() => joinRecording(main, read(columns([0, 2])), 'again.csv', 0)).toThrow(/adds nothing/)
  })
  it('whose link was lost for six seconds on roots is told by the end that went on, and only then', () => {
    const rear = columns([0, 2]).split('\n')
    const from = 1 + 48 * 200
    const stuck = rear.map((l, i) => {
      const [t] = l.split(',')
      return i > from && i < from + 6 * 200 ? `${t},${rear[from].split(',')[1]}` : l
    })
    const codes = (r: ReturnType<typeof read>) => r.issues.filter((i) => i.code === 'frozen').length
    const alone = read(stuck.join('\n'))
    expect(codes(alone)).toBe(0)
    const main = read(columns([0, 1]))
    joinRecording(main, alone, 'rear.csv', 0)
    expect(codes(main)).toBe(1)
    const lost = main.depthPct.rear!.filter(Number.isNaN).length / main.sampleRateHz
    expect(lost).toBeGreaterThan(5.8)
    expect(lost).toBeLessThan(6.2)
    const sound = read(columns([0, 1]))
    joinRecording(sound, read(rear.join('\n')), 'rear.csv', 0)
    expect(codes(sound)).toBe(0)
  })
  it('is found by its own liveliness when nobody says when it began', () => {
    const main = read(columns([0, 1]))
    const later = columns([0, 2]).split('\n')
    const cut = [later[0], ...later.slice(1 + 8 * 200)].join('\n')
    const placed = joinRecording(main, read(cut), 'rear.csv', null)
    expect(placed.offsetBy).toBe('matched')
    expect(Math.abs(placed.offsetS - 8)).toBeLessThan(1.1)
    // Without a pace the rear follows the front by an unknown part of a second, and that is said.
    expect(main.issues.find((i) => i.code === 'matched')!.message).toMatch(
      /\(correlation 0\.\d\d\)|to about 0\.15 s/,
    )
  })
  it.each([0, 3.37, 8.015])('with a pace it is laid to 0.03 s, wherever it began (%f s)', (beganS) => {
    const main = read(ofWhole((name) => !/rear|shock/.test(name)))
    expect(main.speedMS).not.toBeNull()
    const rear = columns([0, 2]).split('\n')
    const cut = [rear[0], ...rear.slice(1 + Math.round(beganS * 200))].join('\n')
    const placed = joinRecording(main, read(cut), 'rear.csv', null)
    expect(placed.offsetBy).toBe('matched')
    expect(Math.abs(placed.offsetS - beganS)).toBeLessThan(0.03)
  })
  it('the same end in both is laid to the hundredth', () => {
    const main = read(columns([0, 1]))
    const both = columns([0, 1, 2]).split('\n')
    const cut = [both[0], ...both.slice(1 + 6 * 200)].join('\n')
    const placed = joinRecording(main, read(cut), 'both.csv', null)
    expect(Math.abs(placed.offsetS - 6)).toBeLessThan(0.011)
  })
  it('a ride of another trail is laid nowhere, and that is said', () => {
    const main = read(columns([0, 1]))
    const elsewhere = rideTrail(
      bike,
      [sectionOf('jump', 300), sectionOf('smooth', 150)],
      { ground: 9, run: 9 },
      200,
    )
    const text = travelFile(bike, elsewhere, seededRandom(4))
      .split('\n')
      .map((l) =>
        l
          .split(',')
          .filter((_, i) => i === 0 || i === 2)
          .join(','),
      )
      .join('\n')
    const placed = joinRecording(main, read(text), 'elsewhere.csv', null)
    expect(main.issues.find((i) => i.code === 'matched')).toBeDefined()
    if (placed.offsetBy === 'matched')
      expect(main.issues.find((i) => i.code === 'matched')!.message).toContain('not to be trusted')
  })
})

describe('readings', () => {
  const mm = (
    readings: number[],
    calibration: ColumnMapping['calibration'],
    unit: ColumnMapping['unit'] = 'raw',
  ) => {
    const x = Float64Array.from(readings)
    readingsToMm(x, { column: 1, role: 'front-travel', unit, calibration }, 150)
    return [...x].map((v) => v + 0)
  }
  it('turn into mm by two points, also when they fall', () => {
    expect(mm([900, 500, 100], { extendedReading: 900, compressedReading: 100, compressedMm: 140 })).toEqual([
      0, 70, 140,
    ])
  })
  it('turn into mm by many points, straight between and beyond', () => {
    const points = [
      { reading: 100, mm: 0 },
      { reading: 300, mm: 30 },
      { reading: 400, mm: 90 },
    ]
    expect(mm([100, 200, 300, 350, 450], { points })).toEqual([0, 15, 30, 60, 120])
    const falling = points.map((p) => ({ ...p, reading: -p.reading }))
    expect(mm([-200, -350], { points: falling })).toEqual([15, 60])
  })
  it('in % are of the stroke; a pressure calibration is not for travel', () => {
    expect(mm([50], null, 'pct')).toEqual([75])
    expect(() => mm([50], { compressionRatio: 2, baselinePsi: 80 })).toThrow(/belongs to a pressure column/)
  })
})

describe('what is noticed in a channel', () => {
  const file = (front: (i: number) => number, name = 'front_mm') =>
    `time_ms,${name}\n` + Array.from({ length: 4000 }, (_, i) => `${i * 5},${front(i).toFixed(2)}`).join('\n')
  const wave = (i: number) =>
    32 + 25 * Math.sin(i / 11) * Math.sin(i / 170) + 70 * Math.max(0, Math.sin(i / 60)) ** 20
  const codes = (text: string, change: (m: ImportMapping) => ImportMapping = (m) => m) => {
    const b = bytes(text)
    return ingestDelimited(b, change(suggestMapping(sniffLayout(b))), geometry).issues.map((i) => i.code)
  }
  it('an upright one gives no complaint', () => {
    expect(codes(file(wave))).toEqual([])
  })
  it('a channel that shrinks when the bike compresses is turned round, and that is said', () => {
    expect(codes(file((i) => 150 - wave(i)))).toEqual(['sign-flipped'])
    expect(codes(file((i) => -wave(i)))).toEqual(['sign-flipped'])
  })
  it('a calibration taken the wrong way round is suspected', () => {
    const wrong = (m: ImportMapping): ImportMapping => ({
      ...m,
      columns: m.columns.map((c) =>
        c.role === 'front-travel'
          ? { ...c, calibration: { extendedReading: 150, compressedReading: 0, compressedMm: 150 } }
          : c,
      ),
    })
    expect(codes(file(wave), wrong)).toContain('sign-suspect')
  })
  it('a range too small for the unit shows as a flat top', () => {
    expect(codes(file((i) => Math.min(80, wave(i))))).toEqual(['clipped'])
  })
  it('a clock set ahead by an hour does not make an hour of gap', () => {
    const lines = file(wave).split('\n')
    const jumped = lines.map((l, i) => (i > 2000 ? l.replace(/^\d+/, (t) => String(+t + 3_600_000)) : l))
    const b = bytes(jumped.join('\n'))
    const r = ingestDelimited(b, suggestMapping(sniffLayout(b)), geometry)
    expect(r.issues.map((i) => [i.code, i.line])).toEqual([['clock-jump', 2002]])
    expect(r.samples).toBe(4000)
  })
  it('pressure needs its calibration, and one end has travel or pressure', () => {
    expect(() => codes(file((i) => 80 + wave(i), 'fork_psi'))).toThrow(/compression ratio/)
    const both = (m: ImportMapping): ImportMapping => ({
      ...m,
      columns: [
        ...m.columns,
        {
          column: 1,
          role: 'front-pressure',
          unit: 'psi',
          calibration: { compressionRatio: 2.2, baselinePsi: 80 },
        },
      ],
    })
    expect(() => codes(file(wave), both)).toThrow(/more than one column of travel or pressure/)
  })
  it('dates give the instant of the start', () => {
    const text =
      'time,front_mm\n' +
      Array.from(
        { length: 400 },
        (_, i) =>
          `2031-05-02T10:00:${String(Math.floor(i / 100)).padStart(2, '0')}.${String((i % 100) * 10).padStart(3, '0')},${wave(i).toFixed(2)}`,
      ).join('\n')
    expect(read(text).startEpochS).toBe(Date.UTC(2031, 4, 2, 10) / 1000)
    expect(recordingOf(wave, null).startEpochS).toBeNull()
  })
})
