import type { Adjuster } from '#contract/adjuster'
import type { End } from '#contract/common'
import type { Proposal } from '#contract/proposal'
import { adjusterName } from '../../adjusters/words.ts'
import { plain } from '../cards.ts'
import type { Climb } from './climb.ts'

/** A part of one end. */
export interface Part {
  end: End
  adjuster: Adjuster
}

/** "rear rebound" */
export const partName = ({ end, adjuster }: Part) => `${end} ${adjusterName(adjuster).toLowerCase()}`

/** Asks where parts stand that nobody knows of; the first gives the card its name. */
export function readPart(c: Climb, parts: readonly Part[], speaksFor: Proposal['speaksFor']): Proposal {
  const [first] = parts
  const isCounted = first.adjuster.kind === 'click' || first.adjuster.kind === 'turn'
  const isSpacer = first.adjuster.kind === 'spacer'
  return {
    ...plain(
      'read',
      isCounted
        ? `Count the ${partName(first)} to its stop first`
        : isSpacer
          ? `Find out how many ${partName(first)} are in`
          : `Read the ${partName(first)} first`,
      isSpacer
        ? 'Whoever built it up may have noted it; else they are counted with the air let out and the unit opened, by its manual or in a workshop. Then one can go in or out.'
        : isCounted
          ? 'Turn it gently to the stop its clicks are counted from, counting, and back by as many. From there it can be turned.'
          : 'Where it stands is not known. From there it can be changed.',
      'A number there: the next turn starts from it.',
    ),
    speaksFor,
    lookAt: parts.map((p) => p.adjuster.id),
    causes: c.causes(),
  }
}
