import type { Proposal } from '#contract/proposal'
import { judge } from '../../stats/verdict.ts'
import { goBackCard, plain } from '../cards.ts'
import type { Candidate } from '../candidates.ts'
import { clicksOf } from '../clues.ts'
import type { HistoryRun } from '../dayHistory.ts'
import { keyOfRun, setupOf, stillPossible } from '../history.ts'
import { raceAdvice } from '../race.ts'
import type { Climb, Rung } from './climb.ts'
import { usefulOf } from './useful.ts'
import { worseBelow } from './worse.ts'

/** Only more than this is worth leaving a place for, rating points. */
const worthLeaving = 0.25
/** What a place that was ridden is worth over one that is only expected, rating points. */
const knownPlaceBonus = 0.3

/** The day's limit of changes is reached, or it is race day: back to what was better, or leave it. */
export const enough: Rung = (c) => {
  const { h, changes } = c
  const full = changes >= h.changeLimit
  if (!full && h.purpose !== 'race') return null
  const back = backToBetter(c)
  if (back) return back
  if (h.purpose === 'race') return raceAdvice(h, c.space, c.causes(), c.outlook(), c.positions)
  return {
    ...plain(
      'leave-it',
      changes === 0
        ? 'Nothing is to be turned today.'
        : `${changes} ${changes === 1 ? 'change' : 'changes'} today. Enough.`,
      'Ride the best one and enjoy it. Tomorrow starts with a clear head.',
      'Nothing today.',
    ),
    causes: c.causes(),
  }
}

/** Going on from here beats going back only where the surface knows a clearly better place than the one behind. */
export const goBack: Rung = (c) => {
  const back = betterBefore(c)
  if (!back) return null
  const gain = gainOfSetup(c, back.target.run.setupId)
  const best: Candidate | undefined = usefulOf(c)[0]
  if (gain <= worthLeaving || (best?.gain ?? 0) >= gain + knownPlaceBonus) return null
  return goBackCard(back.target, back.words, back.probability, c.causes())
}

/** Back to an earlier setup that the runs so far call better than the present one, whatever the words promise; null: there is none. */
export function backToBetter(c: Climb): Proposal | null {
  const back = betterBefore(c)
  return back && goBackCard(back.target, back.words, back.probability, c.causes())
}

/** An earlier setup that the runs so far call better than the present one. */
function betterBefore(c: Climb): { target: HistoryRun; words: string; probability: number } | null {
  const session = c.session()
  if (c.onNow.length === 0) return null
  const [first] = session.setups
    .map((key) => ({ key, level: session.level(key) }))
    .filter((x) => x.level.runs > 0)
    .sort((a, b) => b.level.mean - a.level.mean)
  if (!first || first.key === c.nowKey) return null
  const best = first.key
  const v = judge(session, best, c.nowKey)
  const target = [...c.counted].reverse().find((r) => keyOfRun(c.h, r) === best)
  const setup = target && setupOf(c.h, target.run.setupId)
  return v.probability < worseBelow && setup && stillPossible(setup, c.space)
    ? { target, words: v.state === 'not-yet' ? leaning(v.runsB) : v.words, probability: v.probability }
    : null
}

/** Enough to go back by, where more runs would be wanted to say by how much. */
const leaning = (runs: number) =>
  `Ridden ${runs === 1 ? 'once' : `${runs} times`}, the present one leans toward worse.`

/** Expected gain of going over to other settings as a whole, rating points. */
function gainOfSetup(c: Climb, setupId: string): number {
  const s = c.outlook()
  const here = s.surface.lossAt(clicksOf(c.h, c.h.currentSetupId, s.dials, null))
  const there = s.surface.lossAt(clicksOf(c.h, setupId, s.dials, null))
  return here.reduce((t, x, i) => t + x - there[i], 0) / s.surface.samples
}
