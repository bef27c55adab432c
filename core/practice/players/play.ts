import type { Recording } from '#contract/recording'
import type { HiddenRider } from '../hiddenRider.ts'
import { practiceDay, withRecordings, type PracticeAct, type PracticeDay } from '../day.ts'
import { recordedRide } from '../recorded.ts'
import { rideOf } from '../ride.ts'

/** Somebody who practises: told the day so far, never what is hidden. */
export interface Player {
  /** Looks at what sensors keep; who does not is not made to wait for it. */
  sensors?: boolean
  /** The next one act; to ride is one of them. */
  act: (day: PracticeDay) => PracticeAct | 'ride'
}

/** Acts between two rides before a player is taken for lost. */
const mostActs = 12

/**
 * Lets a player ride a rider's day until it settles.
 *
 * @param mostRuns it is stopped there
 * @param onRun    told after every ride, with its number
 * @throws Error for a player that never rides
 */
export function playOut(
  rider: HiddenRider,
  player: Player,
  mostRuns: number,
  onRun: (run: number) => void = () => undefined,
): PracticeAct[] {
  const acts: PracticeAct[] = []
  const recordings: Recording[] = []
  const day = () => withRecordings(practiceDay(rider, acts), recordings)
  for (let run = 1; run <= mostRuns; run++) {
    const { positions } = day()
    if (player.sensors) recordings.push(recordedRide(rider, positions, run))
    acts.push({ do: 'ride', ringMm: rideOf(rider, positions, run).ringMm })
    onRun(run)
    for (let n = 0; ; n++) {
      if (n > mostActs) throw new Error('this player does not ride')
      const act = player.act(day())
      if (act === 'ride') break
      acts.push(act)
      if (act.do === 'settle') return acts
    }
  }
  return acts
}
