import type { Cause } from '#contract/proposal'
import { answerTopic } from '../answers.ts'
import type { Climb } from './climb.ts'
import { likelyFrom } from './useful.ts'

/** Figures, rings or answers that weigh so for a cause point there. */
const pointsFrom = 0.5
/** Which end was worse points at no cause. */
const whichEnd = answerTopic({ question: 'which-end', end: null })

/** The likeliest cause that something read, measured or answered points at; null: nothing points anywhere. */
export const pointedOut = (c: Climb): Cause | null =>
  c
    .causes()
    .find(
      (x) =>
        x.kind !== 'none' &&
        x.probability >= likelyFrom &&
        x.evidence.some((e) => e.weight >= pointsFrom && e.topic !== whichEnd),
    ) ?? null
