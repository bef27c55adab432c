import type { Tent, TentHour, TentRider } from '#contract/tent'
import type { DayStory, Step } from '../days.ts'
import { idOf } from '../ids.ts'
import { weekBefore } from './weekBefore.ts'

// One practice, told from its present backwards: noon, 27 °C, 41 minutes left.

export const tentId = idOf('tent practice')
const trail = 'quarry'
const minuteMs = 60_000

/** An instant so many minutes before the present of the practice, ISO. */
const before = (now: Date, minutes: number) => new Date(now.getTime() - minutes * minuteMs).toISOString()
const two = (n: number) => String(n).padStart(2, '0')
const dateOf = (d: Date) => `${d.getFullYear()}-${two(d.getMonth() + 1)}-${two(d.getDate())}`

type Run = Extract<Step, { do: 'run' }>
interface Rode {
  rider: string
  start: Record<string, number>
  /** Steps with the minutes before the present in place of the clock. */
  steps: ((Omit<Run, 'at'> & { ago: number }) | (Extract<Step, { do: 'change' }> & { ago: number }))[]
  settled?: boolean
}

const rode: Rode[] = [
  {
    rider: 'mika',
    start: {
      'mika fork psi': 74,
      'mika fork spacers': 2,
      'mika fork lsc': 9,
      'mika fork hsc': 6,
      'mika fork rebound': 8,
      'mika shock psi': 168,
      'mika shock lsc': 9,
      'mika shock rebound': 7,
    },
    steps: [
      { do: 'run', ago: 154, kind: 'warm-up' },
      { do: 'run', ago: 128, rating: 5, marks: [{ word: 'dives', section: 'Braking bumps', end: 'front' }] },
      { do: 'change', ago: 110, to: { 'mika fork lsc': 8 }, why: 'warmer: holds up in braking' },
      {
        do: 'run',
        ago: 92,
        rating: 6,
        marks: [{ word: 'harsh-gets-worse', section: 'Root web', end: 'rear' }],
      },
      { do: 'change', ago: 58, to: { 'mika shock rebound': 6 }, why: 'slower for the heat' },
      {
        do: 'run',
        ago: 18,
        rating: 6.5,
        marks: [{ word: 'harsh-gets-worse', section: 'Root web', end: 'rear' }],
      },
    ],
  },
  {
    rider: 'sanna',
    start: {
      'sanna fork psi': 66,
      'sanna fork spacers': 0,
      'sanna fork lsc': 8,
      'sanna fork rebound': 6,
      'sanna shock spring': 78.8,
      'sanna shock lsc': 8,
      'sanna shock rebound': 7,
    },
    steps: [
      { do: 'run', ago: 138, kind: 'warm-up' },
      {
        do: 'run',
        ago: 108,
        rating: 6,
        marks: [{ word: 'blows-through', section: 'Step-down', end: 'front' }],
      },
      {
        do: 'change',
        ago: 84,
        to: { 'sanna fork spacers': 1, 'sanna fork psi': 62 },
        why: 'more ramp with the same sag',
        linked: true,
      },
      { do: 'run', ago: 66, rating: 5.5, marks: [{ word: 'harsh-everywhere', section: null, end: 'front' }] },
      {
        do: 'change',
        ago: 50,
        to: { 'sanna fork spacers': 0, 'sanna fork psi': 66 },
        why: 'back to run 2',
        linked: true,
      },
      { do: 'run', ago: 26, rating: 7, marks: [{ word: 'grips', section: 'Root web', end: 'front' }] },
    ],
  },
  {
    rider: 'nuri',
    start: {
      'nuri fork psi': 82,
      'nuri fork lsc': 8,
      'nuri fork rebound': 6,
      'nuri shock psi': 184,
      'nuri shock rebound': 8,
    },
    steps: [
      { do: 'run', ago: 124, kind: 'warm-up' },
      { do: 'run', ago: 90, rating: 6, marks: [{ word: 'pogo', section: 'Step-down', end: 'rear' }] },
      { do: 'change', ago: 76, to: { 'nuri shock rebound': 7 }, why: 'slower for the heat' },
      { do: 'run', ago: 56, rating: 6.5, marks: [{ word: 'dives', section: 'Braking bumps', end: 'front' }] },
      { do: 'change', ago: 34, to: { 'nuri fork rebound': 5 }, why: 'slower for the heat' },
    ],
  },
  {
    rider: 'wren',
    start: {
      'wren fork psi': 58,
      'wren fork rebound': 5,
      'wren shock psi': 132,
      'wren shock rebound': 6,
    },
    steps: [],
  },
  {
    rider: 'obi',
    start: {
      'obi fork psi': 89,
      'obi fork lsc': 7,
      'obi fork rebound': 6,
      'obi shock psi': 205,
      'obi shock lsc': 8,
      'obi shock rebound': 6,
    },
    settled: true,
    steps: [
      { do: 'run', ago: 158, kind: 'warm-up' },
      { do: 'run', ago: 134, rating: 7, marks: [{ word: 'dives', section: 'Chicane', end: 'front' }] },
      { do: 'change', ago: 116, to: { 'obi fork psi': 91 }, why: 'faster than last week' },
      { do: 'run', ago: 98, rating: 7.5, marks: [{ word: 'holds-up', section: 'Berms', end: 'front' }] },
      { do: 'run', ago: 60, rating: 8, marks: [{ word: 'good', section: null, end: 'both' }] },
    ],
  },
  {
    rider: 'runa',
    start: {
      'runa fork psi': 72,
      'runa fork rebound': 5,
      'runa shock psi': 170,
      'runa shock rebound': 5,
    },
    steps: [
      { do: 'run', ago: 118, kind: 'warm-up' },
      { do: 'run', ago: 86, rating: 6, marks: [{ word: 'kicks', section: 'Step-down', end: 'rear' }] },
      { do: 'change', ago: 70, to: { 'runa shock rebound': 4 }, why: 'kicks off the step-down' },
      { do: 'run', ago: 46, rating: 6.5 },
    ],
  },
]

/** Where each of them is now, and since when. */
const places: Record<string, Pick<TentRider, 'whereabouts' | 'temper' | 'named'> & { ago: number }> = {
  mika: { whereabouts: 'here', ago: 2, temper: 'reasons', named: true },
  sanna: { whereabouts: 'here', ago: 6, temper: 'reasons', named: false },
  nuri: { whereabouts: 'out', ago: 11, temper: 'reasons', named: true },
  wren: { whereabouts: 'out', ago: 16, temper: 'reasons', named: false },
  obi: { whereabouts: 'settled', ago: 44, temper: 'number', named: false },
  runa: { whereabouts: 'resting', ago: 38, temper: 'reasons', named: false },
}

const air = [
  [160, 14, []],
  [112, 18, []],
  [72, 22, ['drier']],
  [20, 27, ['rougher']],
] as const

/**
 * The practice as it stands at an instant. A practice that would have begun before midnight is told of noon on the day
 * before.
 */
export function practiceAt(wanted: Date) {
  const now = new Date(wanted)
  if (wanted.getHours() < 4) {
    now.setDate(now.getDate() - 1)
    now.setHours(11, 49, 0, 0)
  }
  const clock = (ago: number) => {
    const d = new Date(now.getTime() - ago * minuteMs)
    return `${two(d.getHours())}:${two(d.getMinutes())}`
  }
  const date = dateOf(now)
  const aWeekAgo = new Date(now)
  aWeekAgo.setDate(now.getDate() - 7)
  const stories = rode.map((r): DayStory => ({
    key: `tent ${r.rider}`,
    date,
    rider: r.rider,
    bike: r.rider,
    trail,
    conditions: { airTempC: 14, altitudeM: 420, surface: 'dry-hard' },
    readAt: clock(175),
    start: r.start,
    settled: r.settled ?? false,
    steps: r.steps.map(({ ago, ...step }) => ({ ...step, at: clock(ago) }) as Step),
  }))
  const tent: Tent = {
    id: tentId,
    version: 0,
    name: 'Saturday practice',
    date,
    trailId: idOf(trail),
    schedule: [
      { kind: 'practice', from: before(now, 170), to: before(now, -41) },
      { kind: 'timed', from: before(now, -100), to: before(now, -220) },
    ],
    note: '',
  }
  const riders = rode.map(({ rider }, i): TentRider => {
    const { ago, ...place } = places[rider]
    return {
      id: idOf(`day tent ${rider}`),
      version: 0,
      tentId,
      number: i + 1,
      since: before(now, ago),
      ...place,
    }
  })
  const hours = air.map(([ago, airTempC, track], i): TentHour => ({
    id: idOf(`tent hour ${i}`),
    version: 0,
    tentId,
    at: before(now, ago),
    airTempC,
    altitudeM: i === 0 ? 420 : null,
    surface: i === 0 ? 'dry-hard' : null,
    track: [...track],
    note: '',
  }))
  const notes = [
    {
      id: idOf('tent note later'),
      version: 0,
      tentId,
      dayId: idOf('day tent nuri'),
      at: before(now, 12),
      kind: 'later' as const,
      text: 'fork lsc firmer 1',
      closedAt: null,
    },
    {
      id: idOf('tent note alone'),
      version: 0,
      tentId,
      dayId: idOf('day tent obi'),
      at: before(now, 45),
      kind: 'left-alone' as const,
      text: 'rode it twice, nothing to answer',
      closedAt: null,
    },
    {
      id: idOf('tent note plan'),
      version: 0,
      tentId,
      dayId: idOf('day tent runa'),
      at: before(now, 40),
      kind: 'plan' as const,
      text: 'if worse, rear reb faster 1',
      closedAt: null,
      afterRunId: idOf('tent runa run 3'),
    },
  ]
  return { earlier: [weekBefore(dateOf(aWeekAgo))], stories, tent, riders, hours, notes }
}
