import { describe, expect, it } from 'vitest'
import type { BikeSetups, RiddenOn } from '#contract/bikeSetups'
import type { KeptSetup } from '#contract/kept'
import type { Setup } from '#contract/setup'
import { seededRandom } from '../numeric/random.ts'
import { DayBuilder, fork, shock } from '../test/dayBuilder.ts'
import { compareDials } from './compare.ts'
import { knownPlaces } from './facts.ts'
import { anything, answers, type Wanted } from './find.ts'
import { foldPlaces } from './fold.ts'
import { layLanes } from './lanes.ts'
import { placesOf, type Place } from './places.ts'

const start = new DayBuilder().history().setups[0]
/** A setup that follows another, with some parts turned. */
function after(
  parent: Setup,
  id: string,
  to: Record<string, number> = {},
  source: Setup['reason']['source'] = 'own-idea',
): Setup {
  const positions = parent.positions.map((p) => (p.adjusterId in to ? { ...p, value: to[p.adjusterId] } : p))
  return { ...parent, id, parentId: parent.id, positions, reason: { ...parent.reason, source } }
}
const a = { ...start, id: 'a', parentId: null }
const b = after(a, 'b', { rr: 6 })
const c = after(b, 'c', { rr: 5 })

describe('places', () => {
  it('coming back is the same place, and what is tried from there parts from it', () => {
    const back = after(c, 'back', { rr: 6 }, 'revert')
    const other = after(back, 'other', { fp: 84 })
    const places = placesOf([a, b, c, back, other], 'other')
    expect(places.map((p) => [p.id, p.parentId, p.now])).toEqual([
      ['a', null, false],
      ['b', 'a', false],
      ['c', 'b', false],
      ['other', 'b', true],
    ])
    expect(places[1].setupIds).toEqual(['b', 'back'])
  })
  it('a reading turns nothing, also where it corrects what was assumed; the next day’s start there is no new place', () => {
    const read = after(b, 'read', { rr: 7 }, 'reading')
    const nextDay = after(read, 'next', {}, 'baseline')
    const places = placesOf([a, b, read, nextDay], 'next')
    expect(places.map((p) => p.id)).toEqual(['a', 'b'])
    expect(places[1].setup.positions.find((p) => p.adjusterId === 'rr')!.value).toBe(7)
    expect(places[1].now).toBe(true)
  })
  it('a wish is a place of its own and never the present, even where the bike stands so', () => {
    const wish = { ...after(b, 'wish', { rr: 6 }), wanted: true }
    const carried = { ...after(b, 'carried', { rr: 2 }), parentId: 'of another bike', wanted: true }
    const places = placesOf([a, b, wish, carried], 'b')
    expect(places.map((p) => [p.id, p.parentId, p.wanted])).toEqual([
      ['a', null, false],
      ['b', 'a', false],
      ['wish', 'b', true],
      ['carried', 'b', true],
    ])
  })
  it('the same clicks on another fork are another place', () => {
    const exchanged = { ...after(b, 'exchanged'), frontUnitId: 'another fork' }
    expect(placesOf([a, b, exchanged], null)).toHaveLength(3)
  })
})

const ride = (setupId: string, over: Partial<RiddenOn> = {}): RiddenOn => ({
  setupId,
  dayId: `day of ${setupId}`,
  date: '2025-10-04',
  trailName: 'Larch Bank',
  place: 'Fernhollow',
  conditions: { airTempC: 8, altitudeM: 500, surface: 'wet' },
  purpose: 'testing',
  runs: 3,
  countedRuns: 2,
  ratings: [7, 8],
  words: [{ word: 'grips', end: 'front', runs: 2 }],
  tyreFrontPsi: null,
  tyreRearPsi: null,
  settled: false,
  ...over,
})
const keep = (id: string, over: Partial<KeptSetup> = {}): KeptSetup => ({
  id,
  version: 1,
  bikeId: a.bikeId,
  name: 'Root days',
  purposes: ['wet'],
  found: { place: '', airTempC: null, altitudeM: null, surface: null, pace: null, kitMassKg: null },
  tyreFrontPsi: null,
  tyreRearPsi: null,
  geometry: '',
  words: '',
  by: '',
  keptAt: '2025-10-05T10:00:00.000Z',
  ...over,
})
const known = (over: Partial<BikeSetups> = {}, nowId: string | null = 'c') =>
  knownPlaces(
    { bikeId: a.bikeId, setups: [a, b, c], units: [fork, shock], kept: [], ridden: [], ...over },
    nowId,
  )

describe('what is known of a place', () => {
  it('four states: wanted, on the bike and never ridden, ridden, settled', () => {
    const wish = { ...after(c, 'wish', { rr: 1 }), wanted: true }
    const places = known({
      setups: [a, b, c, wish],
      ridden: [ride('b'), ride('c', { settled: true })],
    })
    expect(places.map((p) => p.state)).toEqual(['stood', 'ridden', 'settled', 'wanted'])
  })
  it('runs that do not count make nothing ridden', () => {
    expect(known({ ridden: [ride('b', { countedRuns: 0, ratings: [] })] })[1].state).toBe('stood')
  })
  it('what was come back to on one day is one ride; its ratings and words are all of them', () => {
    const back = after(c, 'back', { rr: 6 }, 'revert')
    const [, place] = known({
      setups: [a, b, c, back],
      ridden: [
        ride('b', { dayId: 'd' }),
        ride('back', { dayId: 'd', ratings: [9], countedRuns: 1, runs: 1 }),
      ],
    })
    expect(place.rides).toHaveLength(1)
    expect(place.ratings).toEqual([7, 8, 9])
    expect(place.words).toEqual([{ word: 'grips', end: 'front', runs: 4 }])
  })
})

describe('finding', () => {
  const find = (over: Partial<Wanted>, all: Partial<BikeSetups>) =>
    known(all)
      .filter((p) => answers(p, { ...anything, ...over }))
      .map((p) => p.id)
  const twoDays = {
    ridden: [
      ride('b'),
      ride('c', { conditions: { airTempC: 24, altitudeM: 500, surface: 'dry-hard' } }),
      ride('c', {
        dayId: 'june',
        date: '2026-06-14',
        words: [],
        conditions: { airTempC: 19, altitudeM: 500, surface: 'wet' },
      }),
    ],
  }
  it('asks for everything of one and the same day', () => {
    expect(find({ text: 'october', surfaces: ['wet'] }, twoDays)).toEqual(['b'])
    expect(find({ text: 'june', surfaces: ['wet'] }, twoDays)).toEqual(['c'])
    expect(find({ text: 'june grips' }, twoDays)).toEqual([])
  })
  it('by place, trail, month and year, what was said in other words, and beginnings of words', () => {
    for (const text of ['fernh', 'Larch Bank', 'oct 2025', 'grips', '2025-10'])
      expect(find({ text }, { ridden: [ride('b')] }), text).toEqual(['b'])
    expect(find({ text: 'arch' }, { ridden: [ride('b')] })).toEqual([])
  })
  it('by air, and an air that nobody noted answers no question about it', () => {
    expect(find({ colderThanC: 10 }, twoDays)).toEqual(['b'])
    expect(find({ warmerThanC: 20 }, twoDays)).toEqual(['c'])
    const unknown = {
      ridden: [ride('b', { conditions: { airTempC: null, altitudeM: null, surface: 'wet' } })],
    }
    expect(find({ colderThanC: 50 }, unknown)).toEqual([])
    expect(find({ warmerThanC: -40 }, unknown)).toEqual([])
  })
  it('by what it is kept for, and settled only', () => {
    expect(find({ purpose: 'wet' }, { kept: [keep('c')] })).toEqual(['c'])
    expect(find({ settledOnly: true }, { ridden: [ride('b'), ride('c', { settled: true })] })).toEqual(['c'])
  })
  it('settled on another day than the one that is meant does not count', () => {
    const all = {
      ridden: [
        ride('c', { settled: true, date: '2026-06-01', dayId: 'j' }),
        ride('c', { date: '2025-10-01' }),
      ],
    }
    expect(find({ settledOnly: true, text: 'october' }, all)).toEqual([])
  })
})

/** A random history of `n` places. */
function randomTree(seed: number, n: number): Place[] {
  const random = seededRandom(seed)
  const now = Math.floor(random() * n)
  return Array.from({ length: n }, (_, i) => ({
    id: `p${i}`,
    setupIds: [`p${i}`],
    setup: a,
    // Mostly on from the last, sometimes from any before.
    parentId: i === 0 ? null : random() < 0.6 ? `p${i - 1}` : `p${Math.floor(random() * i)}`,
    wanted: i !== now && random() < 0.05,
    now: i === now,
  }))
}

describe('the map', () => {
  const cases = Array.from({ length: 200 }, (_, i) => ({ seed: i + 1, n: 1 + ((i * 7) % 150) }))
  it('loses no place: each is shown, between, or aside, exactly once', () => {
    for (const { seed, n } of cases) {
      const random = seededRandom(1000 + seed)
      const places = randomTree(seed, n)
      const chosen = new Set(places.filter((p) => p.now || random() < 0.3).map((p) => p.id))
      const folds = foldPlaces(places, (p) => chosen.has(p.id))
      const all = folds.flatMap((f) => [f.place, ...f.between, ...f.aside]).map((p) => p.id)
      expect(all.toSorted(), `seed ${seed}`).toEqual(places.map((p) => p.id).toSorted())
      for (const id of chosen) expect(folds.some((f) => f.place.id === id)).toBe(true)
    }
  })
  it('draws no two trails over each other, and every child above its parent', () => {
    for (const { seed, n } of cases) {
      const spots = layLanes(foldPlaces(randomTree(seed, n), () => true))
      const at = new Map(spots.map((s) => [s.place.id, s]))
      const trails = spots.flatMap((s) => {
        const parent = s.parentId ? at.get(s.parentId)! : null
        if (parent) expect(s.row, `seed ${seed}`).toBeLessThan(parent.row)
        // In its own lane a trail runs from its place down to where it parts.
        return [{ lane: s.lane, id: s.place.id, from: s.row, to: parent ? parent.row - 1 : s.row }]
      })
      for (const lane of new Set(trails.map((t) => t.lane))) {
        const here = trails.filter((t) => t.lane === lane).sort((x, y) => x.from - y.from)
        here.forEach((t, i) => {
          const next = here[i + 1] as (typeof here)[number] | undefined
          if (next) expect(t.to, `seed ${seed}, lane ${lane}`).toBeLessThan(next.from)
        })
      }
    }
  })
  it('keeps the way to the present in the first lane, whatever was tried since', () => {
    for (const { seed, n } of cases) {
      const spots = layLanes(foldPlaces(randomTree(seed, n), () => true))
      const at = new Map(spots.map((s) => [s.place.id, s]))
      for (let s = spots.find((x) => x.place.now); s; s = s.parentId ? at.get(s.parentId) : undefined)
        expect(s.lane, `seed ${seed}`).toBe(0)
    }
  })
})

describe('any two', () => {
  const side = (positions: Setup['positions'], units = [fork, shock]) => ({ positions, units })
  const of = (dials: ReturnType<typeof compareDials>, id: string) =>
    dials.find((d) => d.first?.id === id || d.second?.id === id)!
  it('on the same units, dial by dial', () => {
    const dials = compareDials(side(a.positions), side(c.positions))
    expect(of(dials, 'rr')).toMatchObject({ from: 7, to: 5, how: 'moved' })
    expect(of(dials, 'fp').how).toBe('alike')
    expect(dials.map((d) => d.end)).toEqual([...dials.map((d) => d.end)].sort())
  })
  it('what nobody has read on one side is unread, never a difference', () => {
    const unread = a.positions.filter((p) => p.adjusterId !== 'rr')
    expect(of(compareDials(side(unread), side(c.positions)), 'rr')).toMatchObject({
      from: null,
      how: 'unread',
    })
  })
  it('says how each place is known; a recommendation says it of none', () => {
    const guessed = a.positions.map((p) => ({ ...p, known: { ...p.known, how: 'assumed' as const } }))
    const read = c.positions.map((p) => ({ ...p, known: { ...p.known, how: 'read' as const } }))
    expect(of(compareDials(side(guessed), side(read)), 'rr')).toMatchObject({
      fromHow: 'assumed',
      toHow: 'read',
    })
    const advised = c.positions.map(({ end, adjusterId, value }) => ({ end, adjusterId, value }))
    const beside = compareDials({ positions: advised, units: [fork, shock] }, side(guessed))
    expect(beside.length).toBeGreaterThan(3)
    for (const d of beside) expect(d).toMatchObject({ fromHow: null, toHow: 'assumed' })
  })
  it('two of one model compare by click; another shock’s clicks only stand beside', () => {
    const twin = {
      ...shock,
      id: 'twin',
      adjusters: shock.adjusters.map((x) => ({ ...x, id: `twin ${x.id}` })),
    }
    const there = c.positions.map((p) =>
      p.end === 'rear' ? { ...p, adjusterId: `twin ${p.adjusterId}` } : p,
    )
    const alike = of(compareDials(side(a.positions), side(there, [fork, twin])), 'rr')
    expect(alike).toMatchObject({ from: 7, to: 5, how: 'moved' })
    const other = { ...twin, strokeMm: shock.strokeMm + 5 }
    const beside = of(compareDials(side(a.positions), side(there, [fork, other])), 'rr')
    expect(beside).toMatchObject({ from: 7, to: 5, how: 'other-dial' })
  })
  it('a dial that only one unit has is said to be on one only, whichever side', () => {
    const plain = { ...shock, id: 'plain', adjusters: shock.adjusters.filter((x) => x.id !== 'rr') }
    expect(of(compareDials(side(a.positions), side([], [fork, plain])), 'rr').how).toBe('only-one')
    expect(of(compareDials(side([], [fork, plain]), side(a.positions)), 'rr')).toMatchObject({
      first: null,
      to: 7,
      how: 'only-one',
    })
  })
})
