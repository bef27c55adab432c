import { describe, expect, it } from 'vitest'
import type { z } from 'zod'
import { Adjuster } from './adjuster.ts'
import { Bike } from './bike.ts'
import { endpoints } from './endpoints.ts'
import { errorCodes } from './errors.ts'
import { ImportMapping, TwoPoint } from './recording.ts'
import { Rider, RiderCard } from './rider.ts'
import { Feel, FeelWord, Run } from './run.ts'
import { Setup } from './setup.ts'
import { Trail } from './trail.ts'
import { SuspensionUnit } from './unit.ts'

const id = (n: number) => `018f3b1c-0000-7000-8000-${String(n).padStart(12, '0')}`
const first = (schema: z.ZodType, value: unknown) =>
  schema.safeParse(value).error?.issues[0].message ?? 'accepted'

const part = { id: id(1), alias: null, tool: 'hand' }
const adjusters = {
  click: { ...part, kind: 'click', role: 'rebound', clicks: 12, step: 0.5, countBase: 'closed-1' },
  turn: { ...part, kind: 'turn', role: 'preload', turns: 2, stepTurns: 0.25, countBase: 'open' },
  pressure: { ...part, kind: 'pressure', role: 'reservoir-pressure', minPsi: 80, maxPsi: 200, stepPsi: 5 },
  spacer: { ...part, kind: 'spacer', role: 'spacers', maxCount: 4 },
  'spring-rate': { ...part, kind: 'spring-rate', role: 'spring-rate', ratesNPerMm: [70, 80] },
  lever: { ...part, kind: 'lever', role: 'lever', positions: ['Open', 'Firm'] },
  custom: {
    ...part,
    kind: 'custom',
    role: 'custom',
    name: 'Bar height',
    unitLabel: 'mm',
    min: 0,
    max: 40,
    step: 5,
    acts: { stroke: 'whole', on: 'geometry', speed: 'both' },
  },
}

describe('adjusters', () => {
  it.each(Object.entries(adjusters))('a %s is taken as it is', (_, a) => {
    expect(Adjuster.parse(a)).toEqual(a)
  })
  it.each([
    ['a dial without clicks', { ...adjusters.click, clicks: 0 }, /at least 1 click/],
    [
      'a third of a click',
      { ...adjusters.click, step: 0.33 },
      /^It has to be one of 1, 0\.5; 0\.33 was given\.$/,
    ],
    ['a maximum below the minimum', { ...adjusters.pressure, maxPsi: 60 }, /highest position must be above/],
    ['600 psi', { ...adjusters.pressure, maxPsi: 600 }, /at most 500 psi/],
    ['no spring at all', { ...adjusters['spring-rate'], ratesNPerMm: [] }, /at least one spring/],
    ['a lever of one position', { ...adjusters.lever, positions: ['Open'] }, /at least two/],
    [
      'a compression role on a pressure',
      { ...adjusters.pressure, role: 'compression' },
      /one of main-pressure, .*“compression” was given/,
    ],
    ['a step of nothing', { ...adjusters.custom, step: 0 }, /above 0/],
    ['an unknown kind', { ...adjusters.click, kind: 'knob' }, /one of click, turn, .*“knob” was given/],
    ['an extra key', { ...adjusters.click, colour: 'red' }, /colour/],
  ])('%s is refused with a reason', (_, value, reason) => {
    expect(first(Adjuster, value)).toMatch(reason)
  })
})

const rider = {
  id: id(2),
  version: 0,
  name: 'Ilka',
  bodyMassKg: 66,
  kitMassKg: 5,
  waterL: 1.5,
  level: 'advanced',
  taste: 'lively',
  assumed: [],
  note: '',
}
const unit = {
  id: id(3),
  version: 0,
  name: 'Fork',
  end: 'front',
  spring: 'air',
  strokeMm: 150,
  sagTargetPct: 20,
  revalved: false,
  revalvedOn: null,
  ownerId: null,
  loan: null,
  idNote: '',
  airSpring: null,
  preloadPitchMm: 1.5,
  serviceEveryDays: null,
  charts: [],
  assumed: [],
  adjusters: [adjusters.click],
  note: '',
}
const bike = {
  id: id(4),
  version: 0,
  riderId: id(2),
  name: 'Bike',
  eBike: false,
  kind: 'trail',
  massKg: 14.5,
  leverageCurve: null,
  tyres: {
    front: { name: '', widthMm: null, pressurePsi: 22 },
    rear: { name: '', widthMm: 61, pressurePsi: 25 },
  },
  frontShareSeatedPct: null,
  frontShareReadyPct: 46,
  frontUnitId: id(3),
  rearUnitId: null,
  rearWheelTravelMm: null,
  leverageStart: null,
  leverageEnd: null,
  currentSetupId: null,
  assumed: [],
  note: '',
}
const run = {
  id: id(5),
  version: 0,
  dayId: id(6),
  setupId: id(7),
  startedAt: '2031-05-02T09:00:00Z',
  kind: 'counted',
  voidReason: null,
  durationS: null,
  mind: 'normal',
  ringFrontMm: null,
  ringRearMm: null,
  tyreFrontPsi: null,
  tyreRearPsi: null,
  surface: null,
  airTempC: null,
  altitudeM: null,
  effort: null,
  heardBottomsFront: null,
  heardBottomsRear: null,
  note: '',
}
const feel = { runId: id(5), version: 0, rating: 6.5, marks: [], verdicts: [], answers: [], note: '' }
const trail = {
  id: id(8),
  version: 0,
  name: 'Larch Bank',
  place: '',
  sections: [{ id: id(9), name: 'Roots', kind: 'roots', lengthM: 90, severity: 1 }],
  gates: [{ at: 'finish', latitudeDeg: -47.5, longitudeDeg: -122.3 }],
  note: '',
}
const setup = {
  id: id(7),
  bikeId: id(4),
  parentId: null,
  dayId: null,
  madeAt: '2031-05-02T08:00:00Z',
  name: null,
  frontUnitId: id(3),
  rearUnitId: null,
  positions: [
    {
      end: 'front',
      adjusterId: id(1),
      value: 6,
      known: {
        how: 'read',
        at: '2031-05-02T07:50:00Z',
        by: 'Ines',
        source: 'counted from closed',
        gaugeId: null,
        airTempC: null,
        altitudeM: null,
        place: '',
      },
    },
  ],
  reason: {
    text: '',
    source: 'baseline',
    linked: false,
    proposalId: null,
    undoes: null,
    fromSetupId: null,
  },
  foundIn: null,
  wanted: false,
}

describe('records', () => {
  it('a sound one of each is taken unchanged', () => {
    for (const [schema, value] of [
      [Rider, rider],
      [SuspensionUnit, unit],
      [Bike, bike],
      [Run, run],
      [Feel, feel],
      [Trail, trail],
      [Setup, setup],
    ] as const)
      expect(schema.parse(value)).toEqual(value)
  })
  it('a position that does not say how it is known is assumed, never read or set', () => {
    const [{ known: _, ...unsaid }] = setup.positions as [(typeof setup.positions)[0]]
    const [position] = Setup.parse({ ...setup, positions: [unsaid] }).positions
    expect(position).toMatchObject({ value: 6, known: { how: 'assumed', at: null, by: '' } })
  })
  it.each([
    ['negative kit', Rider, { ...rider, kitMassKg: -2 }, /cannot be negative/],
    ['a rider of 400 kg', Rider, { ...rider, bodyMassKg: 400 }, /at most 200 kg/],
    ['stroke 0', SuspensionUnit, { ...unit, strokeMm: 0 }, /at least 20 mm/],
    ['a sag target of 60 %', SuspensionUnit, { ...unit, sagTargetPct: 60 }, /at most 45 %/],
    [
      'two adjusters of one id',
      SuspensionUnit,
      { ...unit, adjusters: [adjusters.click, adjusters.lever] },
      /same id/,
    ],
    ['a bike without suspension', Bike, { ...bike, frontUnitId: null }, /front or the rear/],
    ['a shock without wheel travel', Bike, { ...bike, rearUnitId: id(3) }, /rear wheel travel/],
    ['a rating of 11', Feel, { ...feel, rating: 11 }, /1 to 10/],
    ['a rating in quarters', Feel, { ...feel, rating: 6.25 }, /half steps/],
    [
      'a run judged against itself',
      Feel,
      { ...feel, verdicts: [{ againstRunId: id(5), value: 1 }] },
      /against itself/,
    ],
    ['a trail without sections', Trail, { ...trail, sections: [] }, /at least one section/],
    ['a void run without a reason', Run, { ...run, kind: 'void', voidReason: '' }, /Say why/],
    ['tyres at 3 psi', Run, { ...run, tyreRearPsi: 3 }, /at least 5 psi/],
    [
      'a local time without zone',
      Run,
      { ...run, startedAt: '2031-05-02T09:00' },
      /a moment in UTC, as 2031-/,
    ],
    [
      'one adjuster in two places',
      Setup,
      { ...setup, positions: [setup.positions[0], setup.positions[0]] },
      /two positions/,
    ],
    [
      'an infinite position',
      Setup,
      { ...setup, positions: [{ ...setup.positions[0], value: Infinity }] },
      /a number; no finite number was given/,
    ],
    [
      'equal calibration points',
      TwoPoint,
      { extendedReading: 3, compressedReading: 3, compressedMm: 100 },
      /equal/,
    ],
    [
      'a delimiter nobody uses',
      ImportMapping,
      { delimiter: '#', decimal: '.', columns: [], sampleRateHz: null },
      /one of ,, ;, .*“#” was given/,
    ],
  ] as const)('%s is refused with a reason', (_, schema, value, reason) => {
    expect(first(schema, value)).toMatch(reason)
  })
  it('a card of a rider has no place for masses', () => {
    expect(RiderCard.safeParse(rider).success).toBe(false)
    expect(Object.keys(RiderCard.shape)).not.toContain('bodyMassKg')
  })
})

describe('the API as a table', () => {
  const all = Object.entries(endpoints)
  it('no two entries share method and address', () => {
    const keys = all.map(([, e]) => `${e.method} ${e.path}`)
    expect(new Set(keys).size).toBe(keys.length)
  })
  it('every parameter in an address has a schema', () => {
    for (const [name, e] of all) {
      const inPath = [...e.path.matchAll(/:(\w+)/g)].map((m) => m[1])
      expect(Object.keys(e.params.shape).sort(), name).toEqual(inPath.sort())
    }
  })
  it('reading takes no body, and everything says what it does', () => {
    for (const [name, e] of all) {
      if (e.method !== 'put') expect(e.body.def.type, name).toBe('undefined')
      expect(e.summary.length, name).toBeGreaterThan(5)
    }
  })
})

describe('codes', () => {
  it('are dotted, lower case, and have a fitting status', () => {
    for (const [code, { status, title }] of Object.entries(errorCodes)) {
      expect(code).toMatch(/^[a-z]+([.-][a-z]+)*$/)
      expect(status).toBeGreaterThanOrEqual(400)
      expect(title).toMatch(/^[A-Z]/)
    }
  })
  it('feel words are kebab-case, for they are stored', () => {
    for (const w of FeelWord.options) expect(w).toMatch(/^[a-z]+(-[a-z]+)*$/)
  })
})
