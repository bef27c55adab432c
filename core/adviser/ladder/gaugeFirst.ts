import type { Adjuster } from '#contract/adjuster'
import type { Proposal } from '#contract/proposal'
import { readingsBetween } from '../../setup/readBetween.ts'
import { plain, reason } from '../cards.ts'
import { fittedUnits } from '../history.ts'
import { lostAirBetween } from '../lostAir.ts'
import type { Climb, Rung } from './climb.ts'
import { fallHere } from './fallHere.ts'

/** Where air was missing, the gauge is asked for after so many runs; who has none at hand goes on without. */
const patienceRuns = 2

/**
 * The same settings feel clearly worse than they did: it is not a dial. Air first, which a gauge tells in a minute; and
 * where air was found missing before, after every run.
 */
export const gaugeFirst: Rung = (c) => {
  const last = c.onNow[c.onNow.length - 1]
  if (!last || !c.now || c.imagined || last !== c.counted[c.counted.length - 1]) return null
  const read = readingsBetween(c.h.setups, last.run.setupId, c.now.id)
  const open = pressuresOf(c).filter((a) => !read.has(a.id))
  if (open.length === 0) return null
  const leaking = lostAirBetween(c.h, c.space, c.h.startSetupId, last.run.setupId)
  const suspects = open.filter((a) => (leaking.get(a.id)?.since ?? Infinity) <= patienceRuns)
  if (suspects.length > 0)
    return gaugeCard(suspects, 'Gauge first: air was missing before', [
      reason('What was pumped back may be gone again', last.run.id),
    ])
  const fall = fallHere(c)
  return fall && gaugeCard(open, 'The same settings, and clearly worse: put the gauge on', [fall])
}

function gaugeCard(parts: readonly Adjuster[], headline: string, speaksFor: Proposal['speaksFor']): Proposal {
  return {
    ...plain(
      'read',
      headline,
      'No dial has moved since. What may have: the air, a tyre, a brake, the track. The gauge tells the first in a minute; feel both tyres, too.',
      'Both pressures as they were set: then it was the tyres, the track, or the day.',
    ),
    speaksFor,
    lookAt: parts.map((a) => a.id),
    // The causes would be those of a dial.
    causes: [],
  }
}

/** Main pressures that somebody has set or read. */
const pressuresOf = (c: Climb): Adjuster[] =>
  fittedUnits(c.space).flatMap((u) =>
    u.adjusters.filter(
      (a) =>
        a.role === 'main-pressure' &&
        a.kind === 'pressure' &&
        c.now!.positions.some((p) => p.adjusterId === a.id && p.known.how !== 'assumed'),
    ),
  )
