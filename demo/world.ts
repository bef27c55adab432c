import { Bike } from '#contract/bike'
import type { Conditions } from '#contract/day'
import type { Mark, Run } from '#contract/run'
import { Rider } from '#contract/rider'
import type { Trail, TrailSection } from '#contract/trail'
import { SuspensionUnit } from '#contract/unit'
import { idOf } from './ids.ts'

// An invented world: riders, places, trails and parts that exist nowhere else.

export const riders = Rider.array().parse([
  {
    id: idOf('ilka'),
    version: 0,
    name: 'Ilka',
    bodyMassKg: 66,
    kitMassKg: 5.5,
    level: 'advanced',
    taste: 'lively',
    note: '',
  },
  {
    id: idOf('joren'),
    version: 0,
    name: 'Joren',
    bodyMassKg: 84,
    kitMassKg: 4,
    level: 'intermediate',
    taste: 'planted',
    note: 'Few dials on this bike.',
  },
])

const hand = { alias: null, tool: 'hand' as const }
const pump = { alias: null, tool: 'shock-pump' as const }
const bench = { alias: null, tool: 'workshop' as const }

export const units = SuspensionUnit.array().parse([
  {
    id: idOf('ilka fork'),
    version: 0,
    name: '150 mm air fork',
    end: 'front',
    spring: 'air',
    strokeMm: 150,
    sagTargetPct: 20,
    revalved: false,
    note: '',
    idNote: 'F-150-A, batch 7',
    serviceEveryDays: 180,
    charts: [
      {
        id: idOf('ilka fork chart'),
        adjusterId: idOf('ilka fork psi'),
        input: 'riding-mass-kg',
        source: 'leaflet of the fork',
        rows: [
          { at: 55, value: 60 },
          { at: 65, value: 70 },
          { at: 75, value: 80 },
          { at: 85, value: 90 },
          { at: 95, value: 100 },
        ],
      },
      {
        id: idOf('ilka fork rebound chart'),
        adjusterId: idOf('ilka fork rebound'),
        input: 'pressure-psi',
        source: 'leaflet of the fork',
        rows: [
          { at: 60, value: 8 },
          { at: 80, value: 6 },
          { at: 100, value: 4 },
        ],
      },
    ],
    adjusters: [
      {
        ...pump,
        id: idOf('ilka fork psi'),
        kind: 'pressure',
        role: 'main-pressure',
        minPsi: 45,
        maxPsi: 140,
        stepPsi: 1,
      },
      { ...bench, id: idOf('ilka fork spacers'), kind: 'spacer', role: 'spacers', maxCount: 4 },
      {
        ...hand,
        id: idOf('ilka fork lsc'),
        kind: 'click',
        role: 'low-speed-compression',
        clicks: 16,
        step: 1,
        countBase: 'closed-0',
      },
      {
        ...hand,
        id: idOf('ilka fork rebound'),
        kind: 'click',
        role: 'rebound',
        clicks: 12,
        step: 1,
        countBase: 'closed-0',
      },
    ],
  },
  {
    id: idOf('ilka shock'),
    version: 0,
    name: '55 mm air shock',
    end: 'rear',
    spring: 'air',
    strokeMm: 55,
    sagTargetPct: 30,
    revalved: false,
    note: '',
    adjusters: [
      {
        ...pump,
        id: idOf('ilka shock psi'),
        kind: 'pressure',
        role: 'main-pressure',
        minPsi: 90,
        maxPsi: 300,
        stepPsi: 1,
      },
      {
        ...hand,
        id: idOf('ilka shock rebound'),
        kind: 'click',
        role: 'rebound',
        clicks: 14,
        step: 1,
        countBase: 'closed-0',
      },
      {
        ...hand,
        id: idOf('ilka shock lever'),
        kind: 'lever',
        role: 'lever',
        positions: ['Open', 'Middle', 'Firm'],
      },
    ],
  },
  {
    id: idOf('joren fork'),
    version: 0,
    name: '130 mm air fork',
    end: 'front',
    spring: 'air',
    strokeMm: 130,
    sagTargetPct: 20,
    revalved: false,
    note: '',
    adjusters: [
      {
        ...pump,
        id: idOf('joren fork psi'),
        kind: 'pressure',
        role: 'main-pressure',
        minPsi: 50,
        maxPsi: 150,
        stepPsi: 1,
      },
      {
        ...hand,
        id: idOf('joren fork rebound'),
        kind: 'click',
        role: 'rebound',
        clicks: 10,
        step: 1,
        countBase: 'open',
      },
    ],
  },
  {
    id: idOf('joren shock'),
    version: 0,
    name: '45 mm air shock',
    end: 'rear',
    spring: 'air',
    strokeMm: 45,
    sagTargetPct: 28,
    revalved: false,
    note: '',
    adjusters: [
      {
        ...pump,
        id: idOf('joren shock psi'),
        kind: 'pressure',
        role: 'main-pressure',
        minPsi: 90,
        maxPsi: 275,
        stepPsi: 1,
      },
      {
        ...hand,
        id: idOf('joren shock rebound'),
        kind: 'click',
        role: 'rebound',
        clicks: 8,
        step: 1,
        countBase: 'open',
      },
    ],
  },
])

export const bikes = Bike.array().parse([
  {
    id: idOf('ilka bike'),
    version: 0,
    riderId: idOf('ilka'),
    name: '150 mm trail bike',
    eBike: false,
    frontUnitId: idOf('ilka fork'),
    rearUnitId: idOf('ilka shock'),
    rearWheelTravelMm: 147,
    leverageStart: 2.95,
    leverageEnd: 2.4,
    currentSetupId: null,
    note: '',
  },
  {
    id: idOf('joren bike'),
    version: 0,
    riderId: idOf('joren'),
    name: '130 mm bike',
    eBike: false,
    frontUnitId: idOf('joren fork'),
    rearUnitId: idOf('joren shock'),
    rearWheelTravelMm: 122,
    leverageStart: 2.9,
    leverageEnd: 2.5,
    currentSetupId: null,
    note: '',
  },
])

const section = (
  trail: string,
  name: string,
  kind: TrailSection['kind'],
  lengthM: number,
  severity = 1,
): TrailSection => ({ id: idOf(`${trail} ${name}`), name, kind, lengthM, severity })

export const trails: Trail[] = [
  {
    id: idOf('quarry'),
    version: 0,
    name: 'Quarry Loop, lower half',
    place: 'Fernhollow',
    note: '',
    sections: [
      section('quarry', 'Chicane', 'smooth', 60),
      section('quarry', 'Braking bumps', 'braking-bumps', 60),
      section('quarry', 'Root web', 'roots', 110),
      section('quarry', 'Berms', 'berms', 100),
      section('quarry', 'Step-down', 'drop', 50),
      section('quarry', 'Flat out', 'flat-out', 120),
    ],
  },
  {
    id: idOf('larch'),
    version: 0,
    name: 'Larch Bank',
    place: 'Fernhollow',
    note: '',
    sections: [
      section('larch', 'Rollers', 'rollers', 60),
      section('larch', 'Stone steps', 'square-edges', 70),
      section('larch', 'Larch roots', 'roots', 90),
      section('larch', 'Two berms', 'berms', 60),
    ],
  },
]

export interface StoryMark {
  word: Mark['word']
  section: string | null
  end: Mark['end']
  strength?: Mark['strength']
}

/** One step of a day as it was lived: a change, or a run. */
export type Step =
  | { do: 'change'; to: Record<string, number>; why: string; linked?: boolean }
  | {
      do: 'run'
      at: string
      kind?: Run['kind']
      voidReason?: string
      mind?: Run['mind']
      rating?: number
      marks?: StoryMark[]
      against?: { step: number; value: -2 | -1 | 0 | 1 | 2 }
      sensors?: boolean
      ringFrontMm?: number
      ringRearMm?: number
      note?: string
    }

export interface DayStory {
  key: string
  date: string
  rider: string
  bike: string
  trail: string
  conditions: Conditions
  start: Record<string, number>
  steps: Step[]
  settled: boolean
}

export const days: DayStory[] = [
  {
    key: 'settled',
    date: '2026-11-07',
    rider: 'ilka',
    bike: 'ilka',
    trail: 'larch',
    conditions: { airTempC: 9, altitudeM: 510, surface: 'damp' },
    settled: true,
    start: {
      'ilka fork psi': 78,
      'ilka fork spacers': 2,
      'ilka fork lsc': 12,
      'ilka fork rebound': 6,
      'ilka shock psi': 172,
      'ilka shock rebound': 9,
      'ilka shock lever': 0,
    },
    steps: [
      { do: 'run', at: '10:02', kind: 'warm-up' },
      {
        do: 'run',
        at: '10:20',
        rating: 5.5,
        marks: [{ word: 'pogo', section: 'Rollers', end: 'rear' }],
        sensors: true,
        ringRearMm: 50,
      },
      {
        do: 'run',
        at: '10:41',
        rating: 6,
        marks: [{ word: 'pogo', section: 'Rollers', end: 'rear' }],
        sensors: true,
      },
      { do: 'change', to: { 'ilka shock rebound': 8 }, why: 'It bounces on after the rollers' },
      {
        do: 'run',
        at: '11:05',
        rating: 7.5,
        marks: [{ word: 'good', section: 'Rollers', end: 'rear' }],
        against: { step: 2, value: 1 },
        sensors: true,
      },
      { do: 'run', at: '11:27', rating: 7.5, against: { step: 2, value: 1 } },
      { do: 'change', to: { 'ilka shock rebound': 7 }, why: 'Try one past it' },
      {
        do: 'run',
        at: '11:52',
        rating: 6.5,
        marks: [{ word: 'stays-down', section: 'Larch roots', end: 'rear' }],
        against: { step: 5, value: -1 },
      },
      { do: 'change', to: { 'ilka shock rebound': 8 }, why: 'Back: one past the best' },
      { do: 'run', at: '12:14', rating: 8, marks: [{ word: 'grips', section: 'Two berms', end: 'both' }] },
    ],
  },
  {
    key: 'mess',
    date: '2026-11-15',
    rider: 'joren',
    bike: 'joren',
    trail: 'larch',
    conditions: { airTempC: 4, altitudeM: 510, surface: 'wet' },
    settled: false,
    start: {
      'joren fork psi': 92,
      'joren fork rebound': 5,
      'joren shock psi': 165,
      'joren shock rebound': 4,
    },
    steps: [
      {
        do: 'run',
        at: '13:10',
        kind: 'warm-up',
        mind: 'track-new',
        rating: 4,
        marks: [{ word: 'harsh-everywhere', section: 'Stone steps', end: 'front', strength: 3 }],
      },
      { do: 'change', to: { 'joren fork psi': 84 }, why: 'Harsh' },
      { do: 'change', to: { 'joren shock rebound': 6 }, why: 'While we are at it' },
      {
        do: 'run',
        at: '13:31',
        rating: 5,
        mind: 'nervous',
        marks: [{ word: 'nervous', section: 'Larch roots', end: 'both' }],
        ringFrontMm: 108,
      },
      { do: 'run', at: '13:48', kind: 'void', voidReason: 'slid out in the second berm' },
      { do: 'change', to: { 'joren fork rebound': 7 }, why: 'Somebody said faster' },
      { do: 'change', to: { 'joren shock psi': 175 }, why: 'And firmer behind' },
      {
        do: 'run',
        at: '14:20',
        rating: 4.5,
        mind: 'tired',
        marks: [
          { word: 'washes-out', section: 'Two berms', end: 'front' },
          { word: 'kicks', section: 'Stone steps', end: 'rear' },
        ],
      },
    ],
  },
  {
    key: 'half-way',
    date: '2026-11-21',
    rider: 'ilka',
    bike: 'ilka',
    trail: 'quarry',
    conditions: { airTempC: 11, altitudeM: 420, surface: 'damp' },
    settled: false,
    start: {
      'ilka fork psi': 78,
      'ilka fork spacers': 2,
      'ilka fork lsc': 12,
      'ilka fork rebound': 6,
      'ilka shock psi': 178,
      'ilka shock rebound': 5,
      'ilka shock lever': 0,
    },
    steps: [
      { do: 'run', at: '09:20', kind: 'warm-up' },
      {
        do: 'run',
        at: '09:41',
        rating: 6,
        marks: [
          { word: 'dives', section: 'Braking bumps', end: 'front' },
          { word: 'kicks', section: 'Root web', end: 'rear' },
        ],
        sensors: true,
        ringFrontMm: 136,
        ringRearMm: 51,
      },
      {
        do: 'run',
        at: '10:02',
        rating: 6,
        marks: [
          { word: 'dives', section: 'Braking bumps', end: 'front' },
          { word: 'kicks', section: 'Root web', end: 'rear' },
        ],
        sensors: true,
      },
      { do: 'change', to: { 'ilka fork lsc': 10 }, why: 'Dives under braking' },
      {
        do: 'run',
        at: '10:26',
        rating: 7.5,
        marks: [
          { word: 'holds-up', section: 'Berms', end: 'front' },
          { word: 'kicks', section: 'Root web', end: 'rear' },
        ],
        against: { step: 2, value: 1 },
        sensors: true,
      },
      {
        do: 'run',
        at: '10:50',
        rating: 7,
        marks: [
          { word: 'holds-up', section: 'Berms', end: 'front' },
          { word: 'kicks', section: 'Root web', end: 'rear' },
        ],
        against: { step: 2, value: 1 },
        sensors: true,
        ringFrontMm: 138,
        ringRearMm: 52,
      },
    ],
  },
]
