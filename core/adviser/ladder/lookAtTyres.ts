import type { AskedQuestion } from '#contract/question'
import { cannotSay, questionRules } from '../../causes/questions.ts'
import { answerTo } from '../answers.ts'
import { noAnswerCard, repeatCard } from '../cards.ts'
import { hasAskedEnough, type Climb, type Rung } from './climb.ts'

const likelyFrom = 0.15
/** An answer that speaks for the tyres more clearly than this sends to them. */
const toldFrom = 0.3

/**
 * Tyres that were read apart, or that an answer points at, make all the rest meaningless: measured before anything is
 * turned. Found wrong and put right, the same settings are ridden again before anything is blamed.
 */
export const lookAtTyres: Rung = (c) => {
  const looked = answerTo(c.onNow, 'tyres-now', null)
  const last = c.onNow[c.onNow.length - 1]
  if (looked?.answer === 'were-off' && looked.run === last)
    return repeatCard('The tyres are right now: the run before says nothing of a dial.', [], c.causes())
  const tyres = c
    .causes()
    .find(
      (x) =>
        x.kind === 'tyres' &&
        x.evidence.some(
          (e) =>
            (e.link.kind === 'runs' && x.probability >= likelyFrom) ||
            (e.link.kind === 'answer' && e.weight > toldFrom),
        ),
    )
  if (!tyres || looked || hasAskedEnough(c)) return null
  return noAnswerCard([tyres, ...c.causes().filter((x) => x !== tyres)], tyreQuestion(c))
}

/** The look that goes with a card about tyres: two answers, both known at the pump. */
export function tyreQuestion(c: Climb): AskedQuestion | null {
  const last = c.onNow[c.onNow.length - 1]
  if (!last) return null
  const { answers } = questionRules['tyres-now']
  return {
    id: 'tyres-now',
    end: null,
    runId: last.run.id,
    worth: 0,
    answers: [
      { id: 'as-before', label: answers['as-before'], leadsTo: 'Then it is not the tyres' },
      { id: 'were-off', label: answers['were-off'], leadsTo: 'Ride the same settings again' },
      { id: cannotSay, label: 'No gauge here', leadsTo: 'Go on without' },
    ],
  }
}
