import type { End } from '#contract/common'
import type { Evidence, Proposal } from '#contract/proposal'
import { plain } from '../cards.ts'
import type { Climb } from './climb.ts'

/** Asks for the sag of an end before anything is turned: a minute at the ring, and no run. */
export const sagFirst = (c: Climb, end: End, why: string, speaksFor: Evidence[]): Proposal => ({
  ...plain('read', `Read the ${end} sag first`, why, 'Sag read on this very pressure.'),
  speaksFor,
  readEnd: end,
  causes: c.causes(),
})
