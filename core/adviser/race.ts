import type { Cause, Evidence, Proposal } from '#contract/proposal'
import { isComplaint, wordRules } from '../causes/words.ts'
import { changeCard } from './change.ts'
import { forAndAgainst, plain, reason } from './cards.ts'
import type { Outlook } from './decide.ts'
import type { DayHistory, HistoryRun, SetupSpace } from './dayHistory.ts'
import { countedRuns } from './history.ts'
import { remedyMoves } from './remedies.ts'

/**
 * On race day nothing new is tried: a known setup is kept, and only what heat, cold or a changed track explain is
 * answered, one click at a time. Going back to a known setup is decided before this.
 */
export function raceAdvice(
  h: DayHistory,
  space: SetupSpace,
  causes: Cause[],
  outlook: Outlook,
  positions: ReadonlyMap<string, number>,
): Proposal {
  const weather = causes.find((c) => (c.kind === 'heat' || c.kind === 'cold') && c.probability >= 0.2)
  const move = weather && remedyMoves(weather.kind, weather.end, space, positions)[0]
  const dial = move ? outlook.dials.findIndex((d) => d.adjuster.id === move.adjuster.id) : -1
  const candidate =
    move &&
    outlook.candidates.find(
      (c) => c.steps.length === 1 && c.steps[0].dial === dial && c.steps[0].to === move.to,
    )
  if (weather && candidate)
    return {
      ...changeCard(h, space, outlook.dials, candidate, causes, positions),
      ...forAndAgainst(weather),
      changeOurMind: 'Race day: if it does not feel clearly better, turn it back.',
    }
  const wrong = strongTwice(h)
  if (wrong)
    return {
      ...plain(
        'check-first',
        'Not as it should be: look at it before you race',
        'Known settings do not turn bad by themselves: both airs at the gauge, both tyres, levers, play, oil. Found nothing: one click at most, tried at low speed, or a qualified mechanic.',
        'A run without it.',
      ),
      speaksFor: [wrong],
      causes,
    }
  return {
    ...plain(
      'leave-it',
      'Race day: leave it alone',
      'Keep what is known. Only heat, cold or a changed track are worth a click today.',
      'The same complaint on two runs, and a reason for it in the weather or on the track.',
    ),
    causes,
  }
}

const strong = 3

/** A complaint that was said strongly on the last two runs. */
function strongTwice(h: DayHistory): Evidence | null {
  const [a, b] = countedRuns(h).slice(-2)
  if (!b) return null
  const loud = (r: HistoryRun) =>
    (r.feel?.marks ?? []).filter((m) => isComplaint(m.word) && m.strength === strong)
  const both = loud(b).find((m) => loud(a).some((x) => x.word === m.word && x.end === m.end))
  return (
    (both &&
      reason(`“${wordRules[both.word].label}”, strong, on runs ${a.number} and ${b.number}`, b.run.id)) ??
    null
  )
}
