import type { Conditions } from '#contract/conditions'
import type { Purpose } from '#contract/kept'

/** A day of the two seasons as it was planned; what happened on it was ridden (`ride.ts`). */
export interface PlannedDay {
  key: string
  date: string
  trail: 'quarry' | 'larch' | 'kiln' | 'heron'
  conditions: Conditions
  /** The day whose end it starts from; null: what is on the bike. */
  from: string | null
  /** Turned before the first run, for the ground or the weather. */
  shift: Record<string, number>
  why: string
  /** Changes it may take. */
  changes: number
  /** What its end was kept as. */
  kept?: { name: string; purposes: Purpose[]; words: string }
}

const at = (airTempC: number, surface: Conditions['surface'], altitudeM = 430): Conditions => ({
  airTempC,
  altitudeM,
  surface,
})

/** Where the bench left it, in canonical counts. */
export const benchStart: Record<string, number> = {
  'tarek fork psi': 86,
  'tarek fork spacers': 1,
  'tarek fork lsc': 12,
  'tarek fork hsc': 5,
  'tarek fork rebound': 5,
  'tarek shock psi': 196,
  'tarek shock spacers': 1,
  'tarek shock lsc': 9,
  'tarek shock rebound': 4,
  'tarek shock lever': 0,
}

export const plan: PlannedDay[] = [
  {
    key: 's1 first',
    date: '2025-04-12',
    trail: 'larch',
    conditions: at(9, 'damp'),
    from: null,
    shift: {},
    why: '',
    changes: 3,
  },
  {
    key: 's1 home',
    date: '2025-05-03',
    trail: 'quarry',
    conditions: at(14, 'dry-hard'),
    from: null,
    shift: {},
    why: '',
    changes: 4,
    kept: { name: 'Home loop, first good one', purposes: ['flow'], words: 'Quiet, could ride it all day.' },
  },
  {
    key: 's1 park',
    date: '2025-06-14',
    trail: 'kiln',
    conditions: at(22, 'dry-loose', 610),
    from: null,
    shift: { 'tarek fork psi': 5, 'tarek shock psi': 8, 'tarek shock rebound': -1 },
    why: 'For the jumps: both ends firmer, the rear slower',
    changes: 4,
    kept: { name: 'Park, jumps', purposes: ['jump'], words: '' },
  },
  {
    key: 's1 steep',
    date: '2025-07-19',
    trail: 'heron',
    conditions: at(26, 'dry-loose', 610),
    from: 's1 home',
    shift: { 'tarek fork lsc': -2 },
    why: 'Back to the home loop’s, the front firmer for steep ground',
    changes: 4,
  },
  {
    key: 's1 race',
    date: '2025-09-13',
    trail: 'kiln',
    conditions: at(18, 'dry-hard', 610),
    from: 's1 park',
    shift: {},
    why: 'Back to the park’s: nothing new before a race',
    changes: 1,
    kept: { name: 'Race, Kiln Bank', purposes: ['race', 'jump'], words: 'Nothing new on the day.' },
  },
  {
    key: 's1 wet',
    date: '2025-10-04',
    trail: 'heron',
    conditions: at(8, 'wet', 610),
    from: 's1 steep',
    shift: { 'tarek fork psi': -4, 'tarek shock psi': -6, 'tarek fork lsc': 2, 'tarek shock lsc': 1 },
    why: 'For wet roots: softer and more open at both ends',
    changes: 4,
    kept: { name: 'Wet roots', purposes: ['wet', 'rough'], words: 'Grips where it never did.' },
  },
  {
    key: 's1 mud',
    date: '2025-10-25',
    trail: 'larch',
    conditions: at(6, 'mud'),
    from: null,
    shift: { 'tarek shock rebound': 1 },
    why: 'Mud: the rear a click faster',
    changes: 2,
  },
  {
    key: 's1 winter',
    date: '2025-12-06',
    trail: 'quarry',
    conditions: at(1, 'damp'),
    from: 's1 home',
    shift: { 'tarek fork rebound': 1, 'tarek shock rebound': 1 },
    why: 'Cold oil is slow: a click faster at both ends',
    changes: 3,
    kept: { name: 'Winter, thick oil', purposes: ['winter'], words: '' },
  },
  {
    key: 's2 first',
    date: '2026-03-21',
    trail: 'larch',
    conditions: at(10, 'damp'),
    from: null,
    shift: { 'tarek fork rebound': -1, 'tarek shock rebound': -1 },
    why: 'Warmer again: a click slower at both ends',
    changes: 3,
  },
  {
    key: 's2 home',
    date: '2026-04-18',
    trail: 'quarry',
    conditions: at(13, 'dry-hard'),
    from: null,
    shift: {},
    why: '',
    changes: 4,
    kept: { name: 'Home loop', purposes: ['flow', 'climb'], words: '' },
  },
  {
    key: 's2 steep',
    date: '2026-06-20',
    trail: 'heron',
    conditions: at(24, 'dry-hard', 610),
    from: null,
    shift: { 'tarek fork lsc': -2, 'tarek fork psi': 2 },
    why: 'Steep: the front firmer',
    changes: 4,
    kept: { name: 'Steep and dry', purposes: ['rough'], words: '' },
  },
  {
    key: 's2 tour',
    date: '2026-07-18',
    trail: 'larch',
    conditions: at(27, 'dry-loose'),
    from: 's2 home',
    shift: { 'tarek fork psi': 5, 'tarek shock psi': 12 },
    why: 'Six kilograms in the pack: same sag',
    changes: 2,
    kept: { name: 'Tour with the pack', purposes: ['tour', 'climb'], words: 'With 6 kg in the pack.' },
  },
  {
    key: 's2 park',
    date: '2026-08-22',
    trail: 'kiln',
    conditions: at(21, 'dry-loose', 610),
    from: 's1 race',
    shift: {},
    why: 'Back to what the race was ridden on',
    changes: 4,
  },
  {
    key: 's2 damp',
    date: '2026-09-19',
    trail: 'heron',
    conditions: at(15, 'damp', 610),
    from: 's2 steep',
    shift: { 'tarek fork lsc': 1 },
    why: 'Damp: a click softer in front',
    changes: 3,
  },
  {
    key: 's2 wet',
    date: '2026-10-10',
    trail: 'heron',
    conditions: at(9, 'wet', 610),
    from: 's1 wet',
    shift: {},
    why: 'Back to last year’s wet roots',
    changes: 4,
    kept: { name: 'Wet roots, October', purposes: ['wet', 'rough'], words: 'Calm on the root stair.' },
  },
  {
    key: 's2 last',
    date: '2026-11-14',
    trail: 'quarry',
    conditions: at(12, 'dry-hard'),
    from: 's2 home',
    shift: {},
    why: 'Back to the home loop’s',
    changes: 3,
  },
]
