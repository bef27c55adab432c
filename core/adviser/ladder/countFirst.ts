import { adjusterName } from '../../adjusters/words.ts'
import { plain, reason } from '../cards.ts'
import { movedToday } from '../decide.ts'
import type { Climb, Rung } from './climb.ts'
import { usefulOf } from './useful.ts'

/**
 * The next turn is of a dial that nobody has counted: its number comes off a card or was carried over. Counting it to its
 * stop costs half a minute and no run. Asked before its first turn of the day, and once on the same settings.
 */
export const countFirst: Rung = (c) => {
  if (c.imagined || c.onNow.length !== 1 || !c.now) return null
  const [best] = usefulOf(c)
  if (!best) return null
  const moved = movedToday(c.h)
  const uncounted = best.steps
    .map((s) => c.outlook().dials[s.dial])
    .filter(
      (d) =>
        (d.adjuster.kind === 'click' || d.adjuster.kind === 'turn') &&
        !moved.has(d.adjuster.id) &&
        isAssumed(c, d.adjuster.id),
    )
  const [first] = uncounted
  if (!first) return null
  const name = `${first.end} ${adjusterName(first.adjuster).toLowerCase()}`
  return {
    ...plain(
      'read',
      `Count the ${name} to its stop first`,
      'Turn it gently to the stop its clicks are counted from, counting, and back by as many. A wrong count would make every step of today wrong.',
      'Counted: where it stands is known, and the next turn starts from there.',
    ),
    speaksFor: [reason(`The next turn would be the ${name}, and nobody has counted it`)],
    lookAt: uncounted.map((d) => d.adjuster.id),
    causes: c.causes(),
  }
}

const isAssumed = (c: Climb, adjusterId: string) =>
  c.now!.positions.some((p) => p.adjusterId === adjusterId && p.known.how === 'assumed')
