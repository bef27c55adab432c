import type { Conditions } from '#contract/conditions'
import type { Mark, Run } from '#contract/run'

// Five invented days: one settled, one in a mess, one half-way, one hot, and one with a wrong spring.

export interface StoryMark {
  word: Mark['word']
  section: string | null
  end: Mark['end']
  strength?: Mark['strength']
}

/** One step of a day as it was lived: a change, or a run. */
export type Step =
  | { do: 'change'; at?: string; to: Record<string, number>; why: string; linked?: boolean }
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
  /** What was noted later in the day. */
  later?: { at: string; airTempC: number }[]
  /** When the start was read off the bike; 08:30 where it does not matter. */
  readAt?: string
  /** What was read when the settings of the start were found; null: nobody has noted it. */
  foundIn?: { airTempC: number; sagFrontPct?: number; sagRearPct?: number }
  start: Record<string, number>
  steps: Step[]
  settled: boolean
}

export const days: DayStory[] = [
  {
    key: 'heat',
    date: '2026-08-29',
    rider: 'maren',
    bike: 'maren',
    trail: 'quarry',
    conditions: { airTempC: 24, altitudeM: 420, surface: 'dry-hard' },
    later: [{ at: '14:15', airTempC: 29 }],
    foundIn: { airTempC: 14, sagFrontPct: 19, sagRearPct: 29 },
    settled: false,
    start: {
      'maren fork psi': 84,
      'maren fork lsc': 11,
      'maren fork rebound': 7,
      'maren shock psi': 188,
      'maren shock rebound': 8,
    },
    steps: [
      { do: 'run', at: '14:05', kind: 'warm-up' },
      {
        do: 'run',
        at: '14:24',
        rating: 6,
        marks: [
          { word: 'pogo', section: 'Step-down', end: 'rear' },
          { word: 'dives', section: 'Braking bumps', end: 'front' },
        ],
        ringFrontMm: 139,
        ringRearMm: 50,
        note: 'Settled in May, same trail. Today everything moves more.',
      },
    ],
  },
  {
    key: 'spring',
    date: '2026-10-17',
    rider: 'oskar',
    bike: 'oskar',
    trail: 'larch',
    conditions: { airTempC: 12, altitudeM: 510, surface: 'damp' },
    foundIn: { airTempC: 13, sagFrontPct: 20, sagRearPct: 37 },
    settled: false,
    start: {
      'oskar fork psi': 96,
      'oskar fork rebound': 5,
      'oskar shock psi': 176,
      'oskar shock spacers': 1,
      'oskar shock rebound': 6,
    },
    steps: [
      { do: 'run', at: '10:10', kind: 'warm-up' },
      {
        do: 'run',
        at: '10:31',
        rating: 5.5,
        marks: [
          { word: 'kicks', section: 'Stone steps', end: 'rear' },
          { word: 'pedals-strike', section: 'Larch roots', end: 'rear' },
        ],
        ringFrontMm: 116,
        ringRearMm: 54,
      },
    ],
  },
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
      'ilka shock rebound': 6,
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
      { do: 'change', to: { 'ilka shock rebound': 5 }, why: 'It bounces on after the rollers' },
      {
        do: 'run',
        at: '11:05',
        rating: 7.5,
        marks: [{ word: 'good', section: 'Rollers', end: 'rear' }],
        against: { step: 2, value: 1 },
        sensors: true,
      },
      { do: 'run', at: '11:27', rating: 7.5, against: { step: 2, value: 1 } },
      { do: 'change', to: { 'ilka shock rebound': 4 }, why: 'Try one past it' },
      {
        do: 'run',
        at: '11:52',
        rating: 6.5,
        marks: [{ word: 'stays-down', section: 'Larch roots', end: 'rear' }],
        against: { step: 5, value: -1 },
      },
      { do: 'change', to: { 'ilka shock rebound': 5 }, why: 'Back: one past the best' },
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
