import type { MindTag } from '#contract/run'
import { reason, repeatCard } from '../cards.ts'
import type { Rung } from './climb.ts'
import { happyRating, hasComplaint } from './settle.ts'

/** How it was ridden by who was not himself, and how it is ridden again. */
const ridden: Partial<Record<MindTag, { how: string; again: string }>> = {
  nervous: { how: 'nervous', again: 'at a pace that feels safe' },
  tired: { how: 'tired', again: 'rested' },
  'track-new': { how: 'on a track that was new', again: 'now that you have seen it' },
  'saving-tyres': { how: 'to save the tyres', again: 'at your usual pace' },
}

/**
 * Ridden nervous, tired, on a track that was new or to save the tyres, rated low, and nothing said of the bike: the run
 * speaks of the rider. The same again before anything is read or turned; once, since who rides so twice on these settings
 * may have a reason.
 */
export const riddenOtherwise: Rung = (c) => {
  const last = c.onNow[c.onNow.length - 1]
  const rating = last?.feel?.rating ?? null
  if (rating === null || rating >= happyRating || hasComplaint(last)) return null
  const so = ridden[last.run.mind]
  if (!so || c.onNow.some((r) => r !== last && ridden[r.run.mind])) return null
  return repeatCard(
    `A run ridden ${so.how} says more of the rider than of the bike. The same again, ${so.again}; then it is judged.`,
    [reason(`Run ${last.number} was ridden ${so.how}, and nothing was said of the bike`, last.run.id)],
    c.causes(),
  )
}
