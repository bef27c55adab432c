import { noAnswerCard } from '../cards.ts'
import { hasAskedEnough, type Rung } from './climb.ts'

const likelyFrom = 0.15

/** Tyres that were read apart make all the rest meaningless: looked at before anything is turned. */
export const lookAtTyres: Rung = (c) => {
  const tyres = c
    .causes()
    .find(
      (x) =>
        x.kind === 'tyres' && x.probability >= likelyFrom && x.evidence.some((e) => e.link.kind === 'runs'),
    )
  return tyres && !hasAskedEnough(c) ? noAnswerCard([tyres, ...c.causes().filter((x) => x !== tyres)]) : null
}
