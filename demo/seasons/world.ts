import { Bike } from '#contract/bike'
import { Rider } from '#contract/rider'
import { Trail, type TrailSection } from '#contract/trail'
import { SuspensionUnit } from '#contract/unit'
import { idOf } from '../ids.ts'

// A rider with two seasons on one bike that has every dial: what a map of setups is for.

export const tarek = Rider.parse({
  id: idOf('tarek'),
  version: 0,
  name: 'Tarek',
  bodyMassKg: 78,
  kitMassKg: 6,
  level: 'advanced',
  taste: 'neutral',
  note: '',
})

const hand = { alias: null, tool: 'hand' }
const pump = { alias: null, tool: 'shock-pump' }
const workshop = { alias: null, tool: 'workshop' }
const dial = (unit: string, name: string, role: string, clicks: number) => ({
  ...hand,
  id: idOf(`tarek ${unit} ${name}`),
  kind: 'click',
  role,
  clicks,
  step: 1,
  countBase: 'closed-0',
})
const air = (unit: string, minPsi: number, maxPsi: number) => ({
  ...pump,
  id: idOf(`tarek ${unit} psi`),
  kind: 'pressure',
  role: 'main-pressure',
  minPsi,
  maxPsi,
  stepPsi: 1,
})
const spacers = (unit: string) => ({
  ...workshop,
  id: idOf(`tarek ${unit} spacers`),
  kind: 'spacer',
  role: 'spacers',
  maxCount: 4,
})
const unit = { version: 0, spring: 'air', revalved: false, note: '' }

export const tareksUnits = SuspensionUnit.array().parse([
  {
    ...unit,
    id: idOf('tarek fork'),
    name: '160 mm air fork',
    end: 'front',
    strokeMm: 160,
    sagTargetPct: 20,
    adjusters: [
      air('fork', 45, 140),
      spacers('fork'),
      dial('fork', 'lsc', 'low-speed-compression', 18),
      dial('fork', 'hsc', 'high-speed-compression', 8),
      dial('fork', 'rebound', 'rebound', 14),
    ],
  },
  {
    ...unit,
    id: idOf('tarek shock'),
    name: '60 mm air shock',
    end: 'rear',
    strokeMm: 60,
    sagTargetPct: 29,
    adjusters: [
      air('shock', 90, 300),
      spacers('shock'),
      dial('shock', 'lsc', 'low-speed-compression', 14),
      dial('shock', 'rebound', 'rebound', 14),
      {
        ...hand,
        id: idOf('tarek shock lever'),
        kind: 'lever',
        role: 'lever',
        positions: ['Open', 'Firm'],
      },
    ],
  },
])

/** In the rack, and not here: it is lent. */
export const lentShock = SuspensionUnit.parse({
  ...unit,
  id: idOf('tarek coil shock'),
  name: '60 mm coil shock',
  end: 'rear',
  spring: 'coil',
  strokeMm: 60,
  sagTargetPct: 30,
  ownerId: tarek.id,
  loan: { to: 'Wren', since: '2026-11-02' },
  adjusters: [
    {
      ...workshop,
      id: idOf('tarek coil spring'),
      kind: 'spring-rate',
      role: 'spring-rate',
      ratesNPerMm: [78.8, 87.6, 96.3],
    },
    dial('coil', 'rebound', 'rebound', 14),
  ],
})

export const tareksBike = Bike.parse({
  id: idOf('tarek bike'),
  version: 0,
  riderId: tarek.id,
  name: '160 mm bike',
  eBike: false,
  frontUnitId: idOf('tarek fork'),
  rearUnitId: idOf('tarek shock'),
  rearWheelTravelMm: 158,
  leverageStart: 2.9,
  leverageEnd: 2.35,
  currentSetupId: null,
  note: '',
})

const section = (
  trail: string,
  name: string,
  kind: TrailSection['kind'],
  lengthM: number,
  severity = 1,
): TrailSection => ({ id: idOf(`${trail} ${name}`), name, kind, lengthM, severity })

export const tareksTrails = Trail.array().parse([
  {
    id: idOf('kiln'),
    version: 0,
    name: 'Kiln Bank, jump line',
    place: 'Slatecombe',
    note: '',
    sections: [
      section('kiln', 'First table', 'jump', 60),
      section('kiln', 'Wall berms', 'berms', 90),
      section('kiln', 'Braking bumps', 'braking-bumps', 60, 1.2),
      section('kiln', 'Pump', 'rollers', 60),
    ],
  },
  {
    id: idOf('heron'),
    version: 0,
    name: 'Heron Steep',
    place: 'Slatecombe',
    note: '',
    sections: [
      section('heron', 'Root stair', 'roots', 90, 1.3),
      section('heron', 'Chute', 'square-edges', 60, 1.2),
      section('heron', 'Slab turn', 'flat-turn', 50),
      section('heron', 'Lower roots', 'roots', 80, 1.1),
    ],
  },
])
