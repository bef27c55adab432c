import type { MindTag } from '#contract/run'
import { reason, repeatCard } from '../cards.ts'
import type { Rung } from './climb.ts'
import { happyRating, hasComplaint } from './settle.ts'

/** How it is ridden again by who was not himself. */
const again: Partial<Record<MindTag, string>> = { nervous: 'at a pace that feels safe', tired: 'rested' }

/**
 * Ridden nervous or tired, rated low, and nothing said of the bike: the run speaks of the rider. The same again before anything is
 * read or turned; once, since who is so twice on these settings may
 * have a reason.
 */
export const riddenNervous: Rung = (c) => {
  const last = c.onNow[c.onNow.length - 1]
  const rating = last?.feel?.rating ?? null
  if (rating === null || rating >= happyRating || hasComplaint(last)) return null
  const shaken = c.onNow.filter((r) => again[r.run.mind])
  if (shaken.length !== 1 || shaken[0] !== last) return null
  return repeatCard(
    `A run ridden ${last.run.mind} says more of the rider than of the bike. The same again, ${again[last.run.mind]}; then it is judged.`,
    [reason(`Run ${last.number} was ridden ${last.run.mind}, and nothing was said of the bike`, last.run.id)],
    c.causes(),
  )
}
