import { wordRules } from '../../causes/words.ts'
import { reason, repeatCard } from '../cards.ts'
import { groundBetween } from '../comparable.ts'
import type { Rung } from './climb.ts'
import { complaintsOf, strong } from './complaint.ts'
import { happyRating, hasComplaint } from './settle.ts'

/**
 * Settings that were liked, and something is complained of since the ground changed: the ground has moved, no dial has.
 * Tyres for the ground, and the same again; what is said twice on it is turned at. Who says it strongly means it.
 */
export const otherGround: Rung = (c) => {
  const last = c.onNow[c.onNow.length - 1]
  if (!last || c.h.purpose === 'race' || last !== c.counted[c.counted.length - 1]) return null
  const complaints = complaintsOf(c)
  if (complaints.length === 0 || complaints.some((m) => m.strength === strong)) return null
  const before = c.onNow.slice(0, -1)
  const changed = before.map((r) => groundBetween(c.h, r, last))
  // Ridden on this ground before, liked or not: then it is no news.
  if (before.length === 0 || changed.some((words) => words.length === 0)) return null
  if (before.some((r) => hasComplaint(r) || (r.feel?.rating ?? 0) < happyRating)) return null
  const said = complaints.map((m) => `“${wordRules[m.word].label}”`).join(' and ')
  return repeatCard(
    `The ground has changed, no dial has. Set both tyres for it, and ride the same again: ${said} said twice on this ground is turned at.`,
    [
      reason(
        `Since run ${before[before.length - 1].number}: ${changed[changed.length - 1].join(', ')}`,
        last.run.id,
      ),
      reason(`Liked before: rated ${before.map((r) => r.feel!.rating).join(' and ')}`),
    ],
    c.causes(),
  )
}
