import type { AskedQuestion } from '#contract/question'
import { cannotSay, questionRules } from '../../causes/questions.ts'
import { isComplaint, wordRules } from '../../causes/words.ts'
import { answerTo } from '../answers.ts'
import { plain, reason } from '../cards.ts'
import { keyOfRun } from '../history.ts'
import type { Climb, Rung } from './climb.ts'

/** So many changes in a row that nobody felt make one look at air and tyres, not at a fourth dial. */
const changesInVain = 3
/** Chance of better between these is "nothing felt". */
const undecided = { low: 0.3, high: 0.7 }

/** Dials that do nothing: a spring or a tyre is wrong, and no dial can mend it. */
export const nothingHelps: Rung = (c) => {
  const word = complaintThatStays(c)
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

function complaintThatStays(c: Climb) {
  const keys = [...new Set(c.counted.flatMap((r) => keyOfRun(c.h, r) ?? []))]
  if (c.nowKey !== keys[keys.length - 1] || keys.length <= changesInVain) return null
  const last = keys.slice(-changesInVain - 1)
  const felt = last
    .slice(1)
    .map((key, i) => c.session().chanceOfBetter(last[i], key))
    .some((p) => p < undecided.low || p > undecided.high)
  if (felt) return null
  const runs = c.counted.filter((r) => last.includes(keyOfRun(c.h, r) ?? ''))
  const [first] = runs
  return (
    first.feel?.marks.find(
      (m) =>
        isComplaint(m.word) &&
        runs.every((r) => r.feel?.marks.some((x) => x.word === m.word && x.end === m.end)),
    )?.word ?? null
  )
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
