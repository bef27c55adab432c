import { z } from 'zod'
import { End, Id, Instant, Note, Version } from './common.ts'
import { AskedQuestion } from './question.ts'
import { FeelWord } from './run.ts'

/** A cause the judgement keeps alive. `spring-soft`, `rebound-slow` … always with an end, or whole-bike. */
export const CauseKind = z.enum([
  'spring-soft',
  'spring-firm',
  'ramp-low',
  'ramp-high',
  'lsc-open',
  'lsc-closed',
  'hsc-open',
  'hsc-closed',
  'rebound-fast',
  'rebound-slow',
  'stiction',
  'nose-low',
  'nose-high',
  'tyres',
  'heat',
  'cold',
  'line-or-rider',
  'none',
])
export type CauseKind = z.infer<typeof CauseKind>

export const Evidence = z.strictObject({
  /** Log-likelihood weight; + speaks for, − against. */
  weight: z.number(),
  text: z.string(),
  /** Lines on one topic are one line: the same word at one place, the same figure of one end. */
  topic: z.string(),
  /** Runs it was seen in, as numbered on the day line. */
  runNumbers: z.array(z.number().int()),
  /** Where it can be looked up. */
  link: z.strictObject({
    kind: z.enum(['mark', 'answer', 'metric', 'runs', 'bench', 'conditions']),
    runId: Id.nullable(),
    sectionId: Id.nullable(),
    word: FeelWord.nullable(),
  }),
})
export type Evidence = z.infer<typeof Evidence>

export const Cause = z.strictObject({
  kind: CauseKind,
  end: End.nullable(),
  probability: z.number().min(0).max(1),
  evidence: z.array(Evidence),
})
export type Cause = z.infer<typeof Cause>

export const ProposedMove = z.strictObject({
  end: End,
  adjusterId: Id,
  from: z.number(),
  to: z.number(),
})
export type ProposedMove = z.infer<typeof ProposedMove>

export const ProposalKind = z.enum([
  'log-first-run',
  'tell-the-feel',
  'ride-it',
  'ask',
  'read',
  'repeat',
  'change',
  'separating-test',
  'go-back',
  'leave-it',
  'settled',
  'untangle',
  'check-first',
])
export type ProposalKind = z.infer<typeof ProposalKind>

/** What a change is expected to bring against standing still, rating points: mean and 80 % interval. */
export const Outlook = z.strictObject({
  gain: z.number(),
  low80: z.number(),
  high80: z.number(),
  /** Chance that it is better at all. */
  better: z.number().min(0).max(1),
})
export type Outlook = z.infer<typeof Outlook>

/** What would come next, by how a change turns out. */
export const PlannedStep = z.strictObject({ when: z.enum(['better', 'worse']), does: z.string() })
export type PlannedStep = z.infer<typeof PlannedStep>

export const Proposal = z.strictObject({
  kind: ProposalKind,
  headline: z.string(),
  moves: z.array(ProposedMove).max(4),
  /** Whose positions to return to, for go-back and untangle. */
  setupId: Id.nullable(),
  speaksFor: z.array(Evidence),
  speaksAgainst: z.array(Evidence),
  watchFor: z.string(),
  changeOurMind: z.string(),
  caution: z.string().nullable(),
  outlook: Outlook.nullable().default(null),
  /** What is asked of the rider, with the answers to tap. */
  question: AskedQuestion.nullable().default(null),
  /** One step at a time: what would follow this one. */
  plan: z.array(PlannedStep).max(2).default([]),
  /** The end whose sag is to be read. */
  readEnd: End.nullable().default(null),
  /** Adjusters whose place is to be read before anything is turned: a gauge put on, a dial counted to its stop. */
  lookAt: z.array(Id).max(8).default([]),
  causes: z.array(Cause),
})
export type Proposal = z.infer<typeof Proposal>

/** A proposal as it was shown, and what was done instead of or with it. */
export const ProposalRecord = z.strictObject({
  id: Id,
  version: Version,
  dayId: Id,
  afterRunId: Id.nullable(),
  shownAt: Instant,
  proposal: Proposal,
  decision: z.enum(['open', 'done', 'something-else', 'repeat', 'happy']),
  note: Note,
})
export type ProposalRecord = z.infer<typeof ProposalRecord>
