import { wordRules } from '../../causes/words.ts'
import { answerTo } from '../answers.ts'
import { plain, reason } from '../cards.ts'
import { keyOfRun, setupOf, stillPossible } from '../history.ts'
import { hasAskedEnough, type Rung } from './climb.ts'
import { complaintInVain } from './inVain.ts'

/** After so many changes that nobody felt the next one would be the first step of an endless circle. */
const changesInVain = 5

/**
 * It was asked for air and tyres, and still nothing that is turned makes itself felt: back to where the day began, and to
 * what no click mends. Who rides on all the same is let go.
 */
export const notTheDials: Rung = (c) => {
  const looked = answerTo(c.h.runs, 'nothing-helps', null)
  if (!looked || hasAskedEnough(c)) return null
  const word = complaintInVain(c, changesInVain)
  if (!word) return null
  const [began] = c.counted
  const setup = setupOf(c.h, began.run.setupId)
  const isChecked = looked.answer === 'checked'
  const isBack = keyOfRun(c.h, began) === c.nowKey
  return {
    ...plain(
      'check-first',
      'It is not in the dials: look at the bike',
      `${isBack ? 'All stands as the day began. ' : `Put it back to run ${began.number}, where the day began. `}${isChecked ? '' : 'Both pressures and both tyres at the gauge: nobody has said that they were checked. '}Turn each damper from stop to stop by hand and push: one that changes nothing is worn or blocked. Then bushings, bearings, axles, tyre casings, a brake that rubs; let somebody else ride it once. A qualified technician finds in minutes what no click does.`,
      'A turn that is felt, either way.',
    ),
    setupId: !isBack && setup && stillPossible(setup, c.space) ? setup.id : null,
    speaksFor: [
      reason(`“${wordRules[word].label}” stays, whatever was turned`),
      reason(`The last ${changesInVain} changes made no difference that was felt`),
      ...(isChecked ? [reason('Air and tyres were checked', looked.run.run.id)] : []),
    ],
    causes: c.causes(),
  }
}
