import { positionWords } from '../../adjusters/words.ts'
import { plain, reason, repeatCard } from '../cards.ts'
import { cautionFor } from '../change.ts'
import { leastLoss, lostAirBetween, type LostAir } from '../lostAir.ts'
import type { Climb, Rung } from './climb.ts'

/**
 * A gauge shows less than was set: it is put back before a dial is blamed. Where most of it was gone before the last run
 * began, that run says nothing of a dial, and the same settings are ridden again.
 */
export const lostAir: Rung = (c) => {
  const last = c.counted[c.counted.length - 1]
  if (!last || !c.now) return null
  const [lost] = [...lostAirBetween(c.h, c.space, last.run.setupId, c.now.id).values()]
  const now = lost && c.positions.get(lost.adjuster.id)
  if (!lost || now === undefined) return null
  if (now - lost.readPsi < leastLoss(lost.setPsi) / 2) return pumpBack(c, lost, now)
  // Air goes steadily: of three runs, two thirds were gone when the third began.
  const atStart = ((lost.setPsi - lost.readPsi) * (lost.runs - 1)) / Math.max(1, lost.runs)
  return atStart > leastLoss(lost.setPsi)
    ? repeatCard(
        `The ${lost.end} air is back: what the last run felt like was a spring with less in it.`,
        [found(c, lost)],
        [],
      )
    : null
}

function pumpBack(c: Climb, lost: LostAir, now: number): ReturnType<Rung> {
  const { end, adjuster, setPsi } = lost
  const again = lostBefore(c, lost)
  const unit = end === 'front' ? 'fork' : 'shock'
  const back = positionWords(adjuster, setPsi, c.space.units)
  return {
    ...plain(
      'change',
      again ? `The ${unit} loses air: mend it before any dial` : `The ${unit}’s air back to ${back}`,
      again
        ? `Valve core and seals, by its manual or a workshop, before the next hard run: a unit that leaks cannot be tuned, and may be empty on the next landing. Pumped back to ${back} it gets you down.`
        : 'Oil, or a hiss at the valve, while you pump it back. A hose takes a little when the pump is put on; more than that went by itself.',
      again
        ? 'If the gauge shows the same after the next ride.'
        : 'If as much is gone after the next ride, it leaks: that comes before any dial. If it was another gauge, the two may only disagree.',
    ),
    moves: [{ end, adjusterId: adjuster.id, from: now, to: setPsi }],
    speaksFor: [found(c, lost)],
    caution: cautionFor(adjuster),
    // What the words speak for may all be the air that is gone.
    causes: [],
  }
}

const found = (c: Climb, { adjuster, readPsi, setPsi, runs }: LostAir) =>
  reason(
    `The gauge shows ${positionWords(adjuster, readPsi, c.space.units)}; it was ${positionWords(adjuster, setPsi, c.space.units)} ${runs === 1 ? 'one run' : `${runs} runs`} ago`,
  )

/** A reading of the day before the last run had found air missing in the same place. */
function lostBefore(c: Climb, { adjuster }: LostAir): boolean {
  const last = c.counted[c.counted.length - 1]
  return lostAirBetween(c.h, c.space, c.h.startSetupId, last.run.setupId).has(adjuster.id)
}
