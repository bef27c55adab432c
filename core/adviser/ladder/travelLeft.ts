import type { End } from '#contract/common'
import type { Proposal } from '#contract/proposal'
import { facts as rules } from '../../causes/factRules.ts'
import { isComplaint, wordRules } from '../../causes/words.ts'
import { knownSagPct } from '../../setup/sagOf.ts'
import { answerTo } from '../answers.ts'
import { plain, reason, repeatCard } from '../cards.ts'
import { cautionFor, stepWords } from '../change.ts'
import type { HistoryRun } from '../dayHistory.ts'
import { usedItAll, type Deepest } from '../deepest.ts'
import { oneStep } from '../remedies.ts'
import { hasAskedEnough, heard, type Climb, type Rung } from './climb.ts'
import { leadsBack } from './leadsBack.ts'
import { sagFirst } from './sagFirst.ts'
import { sensorSays } from './sensorSays.ts'
import { readPart } from './readPart.ts'
import { spacerStep, unreadSpacers } from './spacerStep.ts'

/**
 * Travel that is never used, the other way round than bottoming: where no hit was big enough it is kept for one; with sag
 * unread it is read first; where sag is right a spacer comes out with the pressure of the same sag, or high-speed
 * compression is opened. A spring that is too firm went to its target before.
 */
export const travelLeft: Rung = (c) => atEnd(c, 'rear') ?? atEnd(c, 'front')

function atEnd(c: Climb, end: End): Proposal | null {
  const unit = c.space[end]
  const last = c.onNow[c.onNow.length - 1]
  const said = heard(c, end, ['unused-travel'])
  if (!unit || !c.now || !said || said.run !== last) return null
  const signs = [reason(`“${wordRules['unused-travel'].label}” on run ${last.number}`, last.run.id)]
  const used = usedItAll(last, end, c.space)
  if (used) return allUsed(c, end, last, used)
  if (answerTo(c.onNow, 'travel-due', end)?.answer === 'no-big-hit') return keptForBigger(c, end, last)
  if (last.run.effort === 'held-back' && !hasAskedEnough(c))
    return repeatCard(
      `Held back, the ${end} has travel left whatever is turned. Ride it at your usual pace, then look again.`,
      signs,
      c.causes(),
    )
  // A sensor tells ride height and travel on the trail: what it shows is weighed with the rest.
  if (sensorSays(c, end)) return null
  const sag = knownSagPct(c.h.setups, c.now, unit)
  if (sag === null)
    return hasAskedEnough(c)
      ? null
      : sagFirst(
          c,
          end,
          'A minute on the bench. Shallow: the spring is too firm. Right: it has more ramp than it needs. The two answers go different ways.',
          [...signs, reason('Nobody has read sag at this pressure')],
        )
  if (Math.abs(sag - unit.sagTargetPct) > rules.sagBandPct) return null
  const unread = hasAskedEnough(c) ? null : unreadSpacers(c, end)
  if (unread) return readPart(c, [unread], [...signs, reason('Nobody has noted how many spacers are in')])
  const card = bySpacer(c, end) ?? byHighSpeed(c, end)
  if (!card || leadsBack(c, card.moves)) return null
  return {
    ...card,
    speaksFor: [...signs, reason(`Sag is right: ${Math.round(sag)} %, its target is ${unit.sagTargetPct} %`)],
    causes: c.causes(),
  }
}

/** It was said to keep travel back, and ring or sensor show that it did not. Other complaints go on to the next rungs. */
function allUsed(c: Climb, end: End, last: HistoryRun, used: Deepest): Proposal | null {
  const only = last.feel?.marks.every((m) => !isComplaint(m.word) || m.word === 'unused-travel') ?? false
  if (!only || hasAskedEnough(c)) return null
  const seen = `The ${end} ${used.by} went to ${Math.round(used.pct)} %`
  return {
    ...plain(
      'leave-it',
      `The ${end} does use its travel: leave it alone`,
      `${seen}. There is none left to set free; softer, it would only bottom. If it feels firm at the end, that is what keeps it from doing so.`,
      `A ring that stops well short of the end.`,
    ),
    speaksFor: [
      reason(`“${wordRules['unused-travel'].label}” on run ${last.number}`, last.run.id),
      reason(seen),
    ],
    causes: c.causes(),
  }
}

/** Travel that is left on ground without a hit for it is no fault. Other complaints go on to the next rungs. */
function keptForBigger(c: Climb, end: End, last: HistoryRun): Proposal | null {
  const only = last.feel?.marks.every((m) => !isComplaint(m.word) || m.word === 'unused-travel') ?? false
  if (!only || hasAskedEnough(c)) return null
  return {
    ...plain(
      'leave-it',
      `The ${end} keeps its travel for a bigger hit: leave it alone`,
      'Nothing on this trail was big enough for the last of it. The day it comes, it will be wanted.',
      'A hit that should have used it all, and a ring that stops well short.',
    ),
    speaksFor: [reason('No hit was big enough to use it all', last.run.id)],
    causes: c.causes(),
  }
}

const mustNotBottom =
  'Does the ring come to 80 to 90 % of travel on the biggest hit? It must not bottom: build up to that hit.'

function bySpacer(c: Climb, end: End): Proposal | null {
  const step = spacerStep(c, end, -1)
  return (
    step && {
      ...plain(
        'change',
        step.words,
        mustNotBottom,
        'If it bottoms now, the spacer goes back in: then the travel was kept for that hit.',
      ),
      moves: step.moves,
      caution: cautionFor(step.dial),
    }
  )
}

function byHighSpeed(c: Climb, end: End): Proposal | null {
  const dial = c.space[end]!.adjusters.find((a) => a.role === 'high-speed-compression')
  const from = dial && c.positions.get(dial.id)
  const to = dial && from !== undefined ? oneStep(dial, from, 1) : null
  if (!dial || from === undefined || to === null) return null
  return {
    ...plain(
      'change',
      stepWords(end, dial, from, to, c.space),
      mustNotBottom,
      'If it bottoms now, turn it back: then the travel was kept for that hit.',
    ),
    moves: [{ end, adjusterId: dial.id, from, to }],
    caution: cautionFor(dial),
  }
}
