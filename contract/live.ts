import { z } from 'zod'
import { Bench } from './bench.ts'
import { Id } from './common.ts'
import { TrailDay } from './day.ts'
import { ProposalRecord } from './proposal.ts'
import { Feel, Run } from './run.ts'
import { Setup } from './setup.ts'

/**
 * Header of every answer: the number of the last event told before it was begun. Events carry their number as the stream's
 * `id`, so a page knows whether an answer on its way has been overtaken by what it was told.
 */
export const toldHeader = 'Told'

/**
 * What every open window is told as it happens, the sender's too: what changed, and no more. A setup that is not wanted is
 * on its bike from then on. `stale` names what has to be fetched again, where the change itself would be larger.
 */
export const LiveEvent = z.discriminatedUnion('type', [
  z.strictObject({ type: z.literal('feel'), dayId: Id, feel: Feel }),
  z.strictObject({ type: z.literal('run'), dayId: Id, run: Run }),
  z.strictObject({ type: z.literal('setup'), setup: Setup }),
  z.strictObject({ type: z.literal('day'), day: TrailDay }),
  z.strictObject({ type: z.literal('proposal'), proposal: ProposalRecord }),
  z.strictObject({ type: z.literal('bench'), bench: Bench }),
  z.strictObject({
    type: z.literal('stale'),
    what: z.enum(['garage', 'days', 'day', 'benches', 'setups', 'letterhead', 'tents', 'tent']),
    id: Id.nullable(),
  }),
  /** Somebody was erased: what devices keep of their own accord is let go of. */
  z.strictObject({ type: z.literal('forgotten') }),
  z.strictObject({
    type: z.literal('ingest'),
    recordingId: Id,
    share: z.number().min(0).max(1),
    doing: z.string(),
  }),
])
export type LiveEvent = z.infer<typeof LiveEvent>
