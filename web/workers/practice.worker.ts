import { expose, transfer } from 'comlink'
import type { Recording } from '#contract/recording'
import { drillOf } from '#core/practice/drills'
import { hiddenRider } from '#core/practice/hiddenRider'
import type { PracticeAct } from '#core/practice/day'
import type { Positions } from '#core/practice/landscape'
import { followsAdviser } from '#core/practice/players/adviser'
import { playOut } from '#core/practice/players/play'
import { disciplinedTester } from '#core/practice/players/tester'
import { recordedRide, tracedRide, type TracedRide } from '#core/practice/recorded'
import { rideOf, type RiddenCourse } from '#core/practice/ride'
import { varied, type Variation } from '#core/practice/vary'

/** Which rider, so that every thread makes the same one. */
export interface RiderKey {
  drill: string
  variation: Variation | null
  seed: number
}

const riderOf = ({ drill, variation, seed }: RiderKey) => {
  const found = drillOf(drill)
  if (!found) throw new Error(`There is no drill "${drill}".`)
  return hiddenRider(varied(found, variation), seed)
}

/** Rides and other players of practice, off the page's thread. */
const practising = {
  ride(key: RiderKey, positions: Positions, run: number): RiddenCourse {
    const course = rideOf(riderOf(key), positions, run)
    return transfer(course, [course.depthPct.front.buffer, course.depthPct.rear.buffer])
  },
  /** What the sensors kept of a ride. */
  record: (key: RiderKey, positions: Positions, run: number): Recording =>
    recordedRide(riderOf(key), positions, run),
  /** The same with its channels, to be drawn. */
  trace(key: RiderKey, positions: Positions, run: number): TracedRide {
    const traced = tracedRide(riderOf(key), positions, run)
    return transfer(
      traced,
      Object.values(traced.depthPct).map((x) => x.buffer),
    )
  },
  /**
   * What another player would have done with the same rider.
   * @param sensors for the adviser: on the bike, too
   * @param onRun told after every ride
   */
  play(
    key: RiderKey,
    who: 'adviser' | 'tester',
    sensors: boolean,
    mostRuns: number,
    onRun: (run: number) => void,
  ): PracticeAct[] {
    const rider = riderOf(key)
    const player = who === 'adviser' ? followsAdviser(sensors) : disciplinedTester(rider)
    return playOut(rider, player, mostRuns, onRun)
  },
}
export type Practising = typeof practising

expose(practising)
