import type { End } from '#contract/common'
import { wordRules } from '../../causes/words.ts'
import { answerTo } from '../answers.ts'
import { plain, reason } from '../cards.ts'
import { hasAskedEnough, type Rung } from './climb.ts'
import { complaintsOf } from './complaint.ts'
import { tyreQuestion } from './lookAtTyres.ts'

/**
 * All that is complained of is said of an end without suspension: the tyre is what springs there. No dial of the other end
 * is turned for it.
 */
export const noSpringThere: Rung = (c) => {
  const complaints = complaintsOf(c)
  const end = (['rear', 'front'] as const).find((e) => !c.space[e])
  if (!end || complaints.length === 0 || hasAskedEnough(c)) return null
  if (!complaints.every((m) => m.end === end && isOfItsEnd(m.word, end))) return null
  const last = c.onNow[c.onNow.length - 1]
  const looked = answerTo(c.onNow, 'tyres-now', null) !== null
  return {
    ...plain(
      looked ? 'leave-it' : 'check-first',
      looked ? `Nothing to turn for the ${end}` : `Check the ${end} tyre: nothing else springs there`,
      looked
        ? 'What is left there is the tyre, a psi at a time within what is printed on it, and your knees. A dial of the other end does not reach it.'
        : 'Too hard it kicks and chatters, too soft it squirms. Bring it to where it was on the baseline; then ride again.',
      `Something said of the ${end === 'rear' ? 'front' : 'rear'}.`,
    ),
    speaksFor: complaints.map((m) =>
      reason(`“${wordRules[m.word].label}” of the ${end} on run ${last.number}`, last.run.id),
    ),
    question: looked ? null : tyreQuestion(c),
    causes: c.causes(),
  }
}

/** Every part that may cause it sits at the end it was said of; a tyre sits at both. */
const isOfItsEnd = (word: keyof typeof wordRules, end: End) =>
  wordRules[word].causes.every((x) => x.at === 'same' || x.at === end || x.kind === 'tyres')
