import type { Mark } from '#contract/run'
import { wordRules } from '../../causes/words.ts'
import { reason, repeatCard } from '../cards.ts'
import type { HistoryRun } from '../dayHistory.ts'
import type { Climb, Rung } from './climb.ts'
import { complaintsOf, strong } from './complaint.ts'
import { happyRating, hasComplaint, worthDisturbing } from './settle.ts'
import { usefulOf } from './useful.ts'

const mild = 1
/** Ridden so often on the same settings with something to say, it is no slip any more. */
const slips = 2

/**
 * A complaint that was not heard before, of settings that were liked without it or only mildly, on a run that is rated
 * well: heard again before anything is turned. A slip is not said twice.
 */
export const onceOnly: Rung = (c) => {
  const last = c.onNow.at(-1)
  if (!last || !isLiked(last)) return null
  const complaints = complaintsOf(c)
  // Who says it strongly means it.
  if (complaints.length === 0 || complaints.some((m) => m.strength === strong)) return null
  const before = c.onNow.slice(0, -1)
  const liked = before.filter((r) => isLiked(r) && !hasComplaint(r))
  const isMildFirst = before.length === 0 && complaints.every((m) => m.strength === mild)
  if (!isMildFirst && liked.length === 0) return null
  if (before.filter(hasComplaint).length >= slips || saidBefore(c, last, complaints)) return null
  const gain = usefulOf(c)[0]?.gain ?? 0
  if (gain >= (liked.length === 0 ? worthDisturbing : c.outlook().noticeable)) return null
  const said = complaints.map((m) => `“${wordRules[m.word].label}”`).join(' and ')
  const without = liked.map((r) => r.feel!.rating)
  return repeatCard(
    liked.length === 0
      ? `${said} once, and only mildly, on a run that was liked. Ride it again, same line, same speed: said twice, it is turned at.`
      : `${said} once, on settings that were liked without it. Ride them again, same line, same speed: said twice, it is turned at.`,
    [
      reason(
        `Rated ${last.feel!.rating} with it${without.length > 0 ? `, ${without.join(' and ')} without` : ''}`,
        last.run.id,
      ),
    ],
    c.causes(),
  )
}

const isLiked = (r: HistoryRun) => (r.feel?.rating ?? 0) >= happyRating

/** Said of the same end on another run today: no slip. */
const saidBefore = (c: Climb, last: HistoryRun, complaints: readonly Mark[]) =>
  c.counted.some(
    (r) =>
      r !== last && r.feel?.marks.some((m) => complaints.some((x) => x.word === m.word && x.end === m.end)),
  )
