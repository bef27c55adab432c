import type { Adjuster } from '#contract/adjuster'
import type { End } from '#contract/common'
import type { Proposal } from '#contract/proposal'
import { adjusterName } from '../../adjusters/words.ts'
import { wordRules } from '../../causes/words.ts'
import { plain, reason } from '../cards.ts'
import { dialsOf } from '../dials.ts'
import { answersOf } from '../remedies.ts'
import { hasAskedEnough, type Climb, type Rung } from './climb.ts'
import { causesOf, complaintsOf } from './complaint.ts'

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
  return readCard(c, first, [
    reason(
      `“${wordRules[word.word].label}” may ask for the ${nameOf(first)}, and nobody has read where it stands`,
    ),
  ])
}

/** Nothing that can be turned has been read: the first part that is, before anything is said of it. */
export const readSomething: Rung = (c) => {
  const dials = dialsOf(c.space)
  const [first] = dials
  return first && dials.every((d) => !c.positions.has(d.adjuster.id)) && !hasAskedEnough(c)
    ? readCard(c, first, [reason('Nobody has read where anything stands')])
    : null
}

const nameOf = ({ end, adjuster }: { end: End; adjuster: Adjuster }) =>
  `${end} ${adjusterName(adjuster).toLowerCase()}`

function readCard(
  c: Climb,
  part: { end: End; adjuster: Adjuster },
  speaksFor: Proposal['speaksFor'],
): Proposal {
  const isCounted = part.adjuster.kind === 'click' || part.adjuster.kind === 'turn'
  return {
    ...plain(
      'read',
      isCounted ? `Count the ${nameOf(part)} to its stop first` : `Read the ${nameOf(part)} first`,
      isCounted
        ? 'Turn it gently to the stop its clicks are counted from, counting, and back by as many. From there it can be turned.'
        : 'Where it stands is not known. From there it can be changed.',
      'Read: the next turn starts from there.',
    ),
    speaksFor,
    lookAt: [part.adjuster.id],
    causes: c.causes(),
  }
}
