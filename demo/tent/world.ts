import { Bike } from '#contract/bike'
import { Rider } from '#contract/rider'
import { SuspensionUnit } from '#contract/unit'
import { idOf } from '../ids.ts'

// Six riders of one Saturday: coil and air, few dials and many, one who is new, one who mistrusts everything.

const hand = { alias: null, tool: 'hand' }
const pump = { alias: null, tool: 'shock-pump' }
const workshop = { alias: null, tool: 'workshop' }

/** Dials of a unit: name, role, clicks. */
type Dials = readonly (readonly [name: string, role: string, clicks: number])[]
interface UnitShape {
  name: string
  strokeMm: number
  sagTargetPct: number
  /** psi, or the springs that are there in N/mm. */
  air?: readonly [min: number, max: number]
  ratesNPerMm?: readonly number[]
  spacers?: boolean
  dials: Dials
}

function unitOf(rider: string, part: 'fork' | 'shock', u: UnitShape) {
  const key = `${rider} ${part}`
  return {
    id: idOf(key),
    version: 0,
    name: u.name,
    end: part === 'fork' ? 'front' : 'rear',
    spring: u.air ? 'air' : 'coil',
    strokeMm: u.strokeMm,
    sagTargetPct: u.sagTargetPct,
    revalved: false,
    note: '',
    adjusters: [
      u.air
        ? {
            ...pump,
            id: idOf(`${key} psi`),
            kind: 'pressure',
            role: 'main-pressure',
            minPsi: u.air[0],
            maxPsi: u.air[1],
            stepPsi: 1,
          }
        : {
            ...workshop,
            id: idOf(`${key} spring`),
            kind: 'spring-rate',
            role: 'spring-rate',
            ratesNPerMm: u.ratesNPerMm,
          },
      ...(u.spacers
        ? [{ ...workshop, id: idOf(`${key} spacers`), kind: 'spacer', role: 'spacers', maxCount: 4 }]
        : []),
      ...u.dials.map(([name, role, clicks]) => ({
        ...hand,
        id: idOf(`${key} ${name}`),
        kind: 'click',
        role,
        clicks,
        step: 1,
        countBase: 'closed-0',
      })),
    ],
  }
}

const lsc = (clicks: number) => ['lsc', 'low-speed-compression', clicks] as const
const rebound = (clicks: number) => ['rebound', 'rebound', clicks] as const

interface Team {
  key: string
  name: string
  bodyMassKg: number
  level: Rider['level']
  taste: Rider['taste']
  note: string
  bike: string
  kind: Bike['kind']
  rearWheelTravelMm: number
  fork: UnitShape
  shock: UnitShape
}

const team: Team[] = [
  {
    key: 'mika',
    name: 'Mika',
    bodyMassKg: 71,
    level: 'race',
    taste: 'neutral',
    note: '',
    bike: '200 mm race bike',
    kind: 'downhill',
    rearWheelTravelMm: 200,
    fork: {
      name: '200 mm air fork',
      strokeMm: 200,
      sagTargetPct: 22,
      air: [40, 130],
      spacers: true,
      dials: [lsc(16), ['hsc', 'high-speed-compression', 10], rebound(14)],
    },
    shock: {
      name: '75 mm air shock',
      strokeMm: 75,
      sagTargetPct: 32,
      air: [90, 280],
      dials: [lsc(16), rebound(14)],
    },
  },
  {
    key: 'sanna',
    name: 'Sanna',
    bodyMassKg: 63,
    level: 'advanced',
    taste: 'planted',
    note: '',
    bike: '170 mm bike, coil rear',
    kind: 'enduro',
    rearWheelTravelMm: 168,
    fork: {
      name: '170 mm air fork',
      strokeMm: 170,
      sagTargetPct: 20,
      air: [40, 130],
      spacers: true,
      dials: [lsc(15), rebound(12)],
    },
    shock: {
      name: '65 mm coil shock',
      strokeMm: 65,
      sagTargetPct: 30,
      ratesNPerMm: [70.1, 78.8, 87.6],
      dials: [lsc(14), rebound(14)],
    },
  },
  {
    key: 'nuri',
    name: 'Nuri',
    bodyMassKg: 80,
    level: 'advanced',
    taste: 'lively',
    note: '',
    bike: '160 mm trail bike',
    kind: 'trail',
    rearWheelTravelMm: 155,
    fork: {
      name: '160 mm air fork, Nuri',
      strokeMm: 160,
      sagTargetPct: 20,
      air: [45, 140],
      dials: [lsc(16), rebound(12)],
    },
    shock: {
      name: '60 mm air shock, Nuri',
      strokeMm: 60,
      sagTargetPct: 29,
      air: [90, 300],
      dials: [rebound(12)],
    },
  },
  {
    key: 'wren',
    name: 'Wren',
    bodyMassKg: 58,
    level: 'novice',
    taste: 'neutral',
    note: 'New today.',
    bike: '150 mm bike, borrowed',
    kind: 'trail',
    rearWheelTravelMm: 145,
    fork: {
      name: '150 mm air fork, borrowed',
      strokeMm: 150,
      sagTargetPct: 20,
      air: [40, 130],
      dials: [rebound(10)],
    },
    shock: {
      name: '55 mm air shock, borrowed',
      strokeMm: 55,
      sagTargetPct: 30,
      air: [80, 300],
      dials: [rebound(10)],
    },
  },
  {
    key: 'obi',
    name: 'Obi',
    bodyMassKg: 86,
    level: 'race',
    taste: 'planted',
    note: '',
    bike: '200 mm bike, Obi',
    kind: 'downhill',
    rearWheelTravelMm: 198,
    fork: {
      name: '200 mm air fork, Obi',
      strokeMm: 200,
      sagTargetPct: 22,
      air: [45, 140],
      dials: [lsc(16), rebound(14)],
    },
    shock: {
      name: '75 mm air shock, Obi',
      strokeMm: 75,
      sagTargetPct: 32,
      air: [100, 300],
      dials: [lsc(16), rebound(14)],
    },
  },
  {
    key: 'runa',
    name: 'Runa',
    bodyMassKg: 69,
    level: 'intermediate',
    taste: 'lively',
    note: 'Believes nothing that was not felt twice.',
    bike: '140 mm bike, two dials',
    kind: 'trail',
    rearWheelTravelMm: 138,
    fork: {
      name: '140 mm air fork, Runa',
      strokeMm: 140,
      sagTargetPct: 20,
      air: [40, 130],
      dials: [rebound(10)],
    },
    shock: {
      name: '50 mm air shock, Runa',
      strokeMm: 50,
      sagTargetPct: 28,
      air: [90, 300],
      dials: [rebound(10)],
    },
  },
]

export const tentRiders = Rider.array().parse(
  team.map(({ key, name, bodyMassKg, level, taste, note }) => ({
    id: idOf(key),
    version: 0,
    name,
    bodyMassKg,
    kitMassKg: 6,
    level,
    taste,
    note,
  })),
)
export const tentUnits = SuspensionUnit.array().parse(
  team.flatMap((t) => [unitOf(t.key, 'fork', t.fork), unitOf(t.key, 'shock', t.shock)]),
)
export const tentBikes = Bike.array().parse(
  team.map((t) => ({
    id: idOf(`${t.key} bike`),
    version: 0,
    riderId: idOf(t.key),
    name: t.bike,
    kind: t.kind,
    eBike: false,
    frontUnitId: idOf(`${t.key} fork`),
    rearUnitId: idOf(`${t.key} shock`),
    rearWheelTravelMm: t.rearWheelTravelMm,
    leverageStart: 2.9,
    leverageEnd: 2.4,
    currentSetupId: null,
    note: '',
  })),
)
