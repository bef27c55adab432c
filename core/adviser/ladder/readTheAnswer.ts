import { wordRules } from '../../causes/words.ts'
import { reason } from '../cards.ts'
import { dialsOf } from '../dials.ts'
import { answersOf } from '../remedies.ts'
import { hasAskedEnough, type Rung } from './climb.ts'
import { causesOf, complaintsOf } from './complaint.ts'
import { partName, readPart } from './readPart.ts'

/**
 * What would answer the complaint stands nobody knows where: it is read first, for half a minute and no run. Until then
 * nothing can be said of it, and to turn another part would be to look where the light is.
 */
export const readTheAnswer: Rung = (c) => {
  if (hasAskedEnough(c)) return null
  const said = complaintsOf(c)
  const [cause] = causesOf(c, said)
  const right = cause ? answersOf(cause.kind, cause.end, c.space).filter((a) => !a.standIn) : []
  const [first] = right
  if (!first || right.some((a) => c.positions.has(a.adjuster.id))) return null
  const word = said.find((m) => cause.evidence.some((e) => e.link.word === m.word))!
  return readPart(
    c,
    [first],
    [
      reason(
        `“${wordRules[word.word].label}” may ask for the ${partName(first)}, and nobody has read where it stands`,
      ),
    ],
  )
}

/** Nothing that can be turned has been read: the first part that is, before anything is said of it. */
export const readSomething: Rung = (c) => {
  const dials = dialsOf(c.space)
  const [first] = dials
  return first && dials.every((d) => !c.positions.has(d.adjuster.id))
    ? readPart(c, [first], [reason('Nobody has read where anything stands')])
    : null
}
