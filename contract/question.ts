import { z } from 'zod'
import { End } from './common.ts'

/** What may be asked when a word leaves two ways open, and what may be said to it. */
export const questionAnswers = {
  'kicks-when': ['along-a-row', 'single-hits', 'deep-before-a-lip'],
  'harsh-when': ['from-the-first', 'builds-up'],
  'harsh-on': ['small-chatter', 'square-edges'],
  'lever-open': ['open', 'not-open'],
  'bottoms-on': ['hardest-now-and-then', 'ordinary-ground'],
  'travel-due': ['big-hit', 'no-big-hit'],
  'sinks-when': ['on-the-brakes', 'everywhere'],
  'washes-when': ['weight-back', 'everywhere'],
  'long-where': ['rear-low', 'front-high', 'rear-tall'],
  'since-hot': ['since-hot', 'all-along'],
  'nervous-where': ['in-the-air', 'on-the-ground'],
  'stays-down-when': ['out-of-fast-turns', 'always'],
  'nothing-helps': ['checked', 'not-checked'],
  'tyres-now': ['as-before', 'were-off'],
  sticks: ['moves-freely', 'sticks'],
  'which-end': ['front', 'rear', 'both'],
  'than-before': ['much-better', 'better', 'same', 'worse', 'much-worse'],
} as const satisfies Record<string, readonly string[]>

export type QuestionId = keyof typeof questionAnswers
export const QuestionId = z.enum(Object.keys(questionAnswers) as [QuestionId, ...QuestionId[]])

/** Who cannot say has answered too: the question is not put again on these settings. */
const cannotSay = 'cannot-say'
export type CannotSay = typeof cannotSay

/** A question that was put on the card, and the answer that was tapped. Kept with the feel of the run it was about. */
export const Answer = z
  .strictObject({
    question: QuestionId,
    /** null: the whole bike. */
    end: End.nullable(),
    answer: z.string(),
  })
  .refine(
    (a) => a.answer === cannotSay || (questionAnswers[a.question] as readonly string[]).includes(a.answer),
    { error: 'This is no answer to that question.', path: ['answer'] },
  )
export type Answer = z.infer<typeof Answer>

/** A question as the card puts it. */
export const AskedQuestion = z.strictObject({
  id: QuestionId,
  end: End.nullable(),
  /** The run it is about. */
  runId: z.string(),
  /** What may be tapped, and what the next card would be then. */
  answers: z.array(z.strictObject({ id: z.string(), label: z.string(), leadsTo: z.string() })),
  /** What the answer is worth over acting at once, rating points a run. */
  worth: z.number(),
})
export type AskedQuestion = z.infer<typeof AskedQuestion>
