import { noAnswerCard } from '../cards.ts'
import type { Rung } from './climb.ts'

const likelyFrom = 0.15
/** Looked at on the first runs of a setting; after that it was looked at. */
const askedRuns = 2

/** Tyres that were read apart make all the rest meaningless: looked at before anything is turned. */
export const lookAtTyres: Rung = (c) => {
  const tyres = c
    .causes()
    .find(
      (x) =>
        x.kind === 'tyres' && x.probability >= likelyFrom && x.evidence.some((e) => e.link.kind === 'runs'),
    )
  return tyres && c.onNow.length <= askedRuns
    ? noAnswerCard([tyres, ...c.causes().filter((x) => x !== tyres)])
    : null
}
