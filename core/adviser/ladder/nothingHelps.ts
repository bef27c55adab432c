import type { AskedQuestion } from '#contract/question'
import { cannotSay, questionRules } from '../../causes/questions.ts'
import { wordRules } from '../../causes/words.ts'
import { answerTo } from '../answers.ts'
import { plain, reason } from '../cards.ts'
import type { Climb, Rung } from './climb.ts'
import { complaintInVain, riddenKeys } from './inVain.ts'

/** So many changes in a row that nobody felt make one look at air and tyres, not at a fourth dial. */
const changesInVain = 3

/** Dials that do nothing: a spring or a tyre is wrong, and no dial can mend it. */
export const nothingHelps: Rung = (c) => {
  // Gone back to something older, the last change is not what is on the bike.
  if (riddenKeys(c).at(-1) !== c.nowKey) return null
  const word = complaintInVain(c, changesInVain)
  if (!word || answerTo(c.h.runs, 'nothing-helps', null)) return null
  return {
    ...plain(
      'check-first',
      'Air and tyres first: the dials do nothing',
      'Both pressures of the units at the gauge, both tyres, and the sag that was right. Then ride the same settings again.',
      'If all stands as it was set, the next dial.',
    ),
    speaksFor: [
      reason(`“${wordRules[word].label}” stays, whatever was turned`),
      reason(`The last ${changesInVain} changes made no difference that was felt`),
    ],
    question: question(c),
    causes: c.causes(),
  }
}

function question(c: Climb): AskedQuestion {
  const { answers } = questionRules['nothing-helps']
  return {
    id: 'nothing-helps',
    end: null,
    runId: c.onNow[c.onNow.length - 1].run.id,
    worth: 0,
    answers: [
      { id: 'checked', label: answers.checked, leadsTo: 'The next dial' },
      { id: 'not-checked', label: answers['not-checked'], leadsTo: 'Check both tyre pressures' },
      { id: cannotSay, label: 'Can’t say', leadsTo: 'Go on without' },
    ],
  }
}
