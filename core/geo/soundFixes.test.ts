import { describe, expect, it } from 'vitest'
import { normalFrom, seededRandom } from '../numeric/random.ts'
import { distanceM, type Fix } from './fix.ts'
import { soundFixes } from './soundFixes.ts'
import { wayOf } from './way.ts'

const perDegree = 111_195
/** A ride of two minutes straight north at 6 m/s, as a receiver tells it. */
function ride(hz: number, seed = 3): Fix[] {
  const random = seededRandom(seed)
  // A receiver's error wanders; it does not jump from fix to fix.
  let [north, east] = [0, 0]
  return Array.from({ length: 120 * hz }, (_, i) => {
    north = 0.97 * north + 0.5 * normalFrom(random)
    east = 0.97 * east + 0.5 * normalFrom(random)
    return {
      timeS: i / hz,
      latitudeDeg: -47.5 + ((i / hz) * 6 + north) / perDegree,
      longitudeDeg: -122 + east / (perDegree * Math.cos((47.5 * Math.PI) / 180)),
      elevationM: null,
    }
  })
}
const moved = (fixes: readonly Fix[], from: number, to: number, northM: number) =>
  fixes.map((f, i) => (i >= from && i < to ? { ...f, latitudeDeg: f.latitudeDeg + northM / perDegree } : f))
const nowhere = (n: number): Fix[] =>
  Array.from({ length: n }, (_, i) => ({ timeS: i - n, latitudeDeg: 0, longitudeDeg: 0, elevationM: null }))

/** What people's receivers do, and how many of the fixes are none of the ride. */
const broken: [string, Fix[], number][] = [
  ['no place found yet: zeros before the ride', [...nowhere(20), ...ride(1)], 20],
  [
    'zeros in the middle of it',
    ride(1).map((f, i) => (i > 60 && i < 64 ? { ...f, latitudeDeg: 0, longitudeDeg: 0 } : f)),
    3,
  ],
  ['a jump of 300 m and back', moved(ride(1), 50, 51, 300), 1],
  ['a jump of 300 m for four seconds', moved(ride(1), 50, 54, 300), 4],
  ['the place of last week, until the first fix', moved(ride(1), 0, 3, 900), 3],
  ['the last fixes thrown far off, under a roof', moved(ride(5), 590, 600, -2000), 10],
  ['a clock of 1980 until it was set', [{ ...ride(1)[0], timeS: -1.6e9 }, ...ride(1)], 1],
  ['several jumps', moved(moved(moved(ride(5), 20, 22, 400), 200, 203, -250), 580, 584, 5000), 9],
]

describe('fixes that are none', () => {
  it.each(broken)('%s: they are left out, and the way is the one that was ridden', (_, fixes, wild) => {
    const { fixes: sound, left } = soundFixes(fixes)
    expect(left).toBe(wild)
    const { wayM, speedMS } = wayOf(sound)
    expect(Math.abs(wayM.at(-1)! - 714) / 714).toBeLessThan(0.05)
    expect(Math.max(...speedMS)).toBeLessThan(12)
  })
  it('the same fixes, believed, make a way of their own: that is why', () => {
    const { wayM } = wayOf(moved(ride(1), 50, 54, 300))
    expect(wayM.at(-1)).toBeGreaterThan(1000)
  })
  it('of a sound ride none is left out, at any rate, over pauses and in a car', () => {
    for (const hz of [0.2, 1, 5, 10, 25])
      for (const seed of [1, 2, 3]) expect(soundFixes(ride(hz, seed)).left).toBe(0)
    // Ridden down, half an hour on the lift, and up at another place.
    const later = ride(1).map((f) => ({ ...f, timeS: f.timeS + 1800, latitudeDeg: f.latitudeDeg + 0.03 }))
    expect(soundFixes([...ride(1), ...later]).left).toBe(0)
    // 125 km/h on the way home, a fix each five seconds.
    const car = Array.from({ length: 60 }, (_, i) => ({
      ...ride(1)[119],
      timeS: 125 + 5 * i,
      latitudeDeg: ride(1)[119].latitudeDeg + ((i + 1) * 174) / perDegree,
    }))
    expect(soundFixes([...ride(1), ...car]).left).toBe(0)
  })
  it('what is left is a part of what came, in its order', () => {
    const fixes = moved(ride(5), 20, 22, 400)
    const { fixes: sound } = soundFixes(fixes)
    expect(sound).toEqual(fixes.filter((f) => sound.includes(f)))
    for (let i = 1; i < sound.length; i++) expect(distanceM(sound[i - 1], sound[i])).toBeLessThan(60)
  })
  it('of nothing nothing is left, and of zeros alone', () => {
    expect(soundFixes([])).toEqual({ fixes: [], left: 0 })
    expect(soundFixes(nowhere(5))).toEqual({ fixes: [], left: 5 })
  })
})
