import { isComplaint, wordRules } from '../../causes/words.ts'
import { plain, reason } from '../cards.ts'
import { hasAskedEnough, heard, type Rung } from './climb.ts'
import { hasLever } from './openLever.ts'

/** A bike that bobs while it is pedalled has a lever for that: nothing that the descent needs is turned for a climb. */
export const leverForClimbs: Rung = (c) => {
  const last = c.onNow[c.onNow.length - 1]
  const said = heard(c, 'rear', ['pedal-bob'])
  const lever = hasLever(c, 'rear')
  if (!last || !lever || said?.run !== last || hasAskedEnough(c)) return null
  // Firm already, and it bobs all the same: then it is the spring or a dial.
  if ((c.positions.get(lever.id) ?? 0) !== 0) return null
  const only = last.feel!.marks.every((m) => !isComplaint(m.word) || m.word === 'pedal-bob')
  if (!only) return null
  const [, firmer] = lever.positions
  return {
    ...plain(
      'check-first',
      'Use the rear lever on the climb, and open it before the descent',
      `Put the lever to “${firmer}” where you pedal. Compression and air that stop the bobbing cost grip all the way down.`,
      'If it bobs with the lever firm too, or between the roots of the descent.',
    ),
    speaksFor: [reason(`“${wordRules['pedal-bob'].label}” on run ${last.number}`, last.run.id)],
    causes: c.causes(),
  }
}
