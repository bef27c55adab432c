import { z } from 'zod'
import { inputSentences, type InputCode } from './inputCodes.ts'

/**
 * Every code the server answers with: HTTP status and what a person reads as the title.
 * A code is stable and never reused; the detail sentence may change.
 */
export const errorCodes = {
  'request.invalid': { status: 422, title: 'Something in what was sent is not right' },
  'request.not-json': { status: 400, title: 'The request is not readable JSON' },
  'request.too-large': { status: 413, title: 'That is larger than what is accepted' },
  'request.wrong-origin': { status: 403, title: 'The request came from another site' },
  'access.needed': { status: 401, title: 'This door is locked' },
  'access.unset': { status: 401, title: 'Nobody has locked this door yet' },
  'access.denied': { status: 403, title: 'That is not for this sign-in' },
  'access.wrong': { status: 403, title: 'That does not open the door' },
  'access.slow-down': { status: 429, title: 'Too many tries' },
  'pad.ended': { status: 401, title: 'This link has ended' },
  'pad.differs': { status: 409, title: 'The tent and the phone do not say the same' },
  'live.too-many': { status: 503, title: 'Too many windows are open' },
  'record.not-found': { status: 404, title: 'There is no such record' },
  'record.stale': { status: 409, title: 'It was changed elsewhere in the meantime' },
  'record.immutable': { status: 409, title: 'A saved setup is never rewritten' },
  'reference.missing': { status: 422, title: 'It refers to something that is not there' },
  'setup.out-of-range': { status: 422, title: 'A position is outside what the part can do' },
  'setup.not-linked': { status: 422, title: 'More than one adjuster was changed' },
  'setup.not-present': { status: 409, title: 'The bike was changed in the meantime' },
  'day.past': { status: 409, title: 'That day is over' },
  'setup.not-wanted': { status: 409, title: 'What was on the bike is never removed' },
  'upload.missing': { status: 409, title: 'The bytes of the file are not here' },
  'recording.no-figures': { status: 409, title: 'There are no figures just now' },
  'recording.elsewhere': { status: 409, title: 'The same file is on another run' },
  'logger.unreachable': { status: 502, title: 'The logger does not answer' },
  'logger.refused': { status: 409, title: 'The logger did not do it' },
  'upload.cancelled': { status: 499, title: 'The upload was cancelled' },
  'storage.full': { status: 507, title: 'The disk is full' },
  'storage.read-only': { status: 507, title: 'The data file cannot be written' },
  'storage.damaged': { status: 507, title: 'The data file is damaged' },
  'storage.busy': { status: 409, title: 'The data file is in use just now' },
  'storage.exchanged': { status: 503, title: 'The data file is being exchanged' },
  'storage.away': { status: 503, title: 'The libSQL server does not answer' },
  'storage.elsewhere': { status: 409, title: 'The data are kept by a libSQL server' },
  'copy.cancelled': { status: 499, title: 'The safe copy was cancelled' },
  'copy.unsound': { status: 409, title: 'That copy cannot be used' },
  'bundle.unsound': { status: 422, title: 'That bundle cannot be used' },
  'bundle.newer': { status: 409, title: 'That bundle is of a newer version' },
  'bundle.cancelled': { status: 499, title: 'It was cancelled' },
  'bundle.overtaken': { status: 409, title: 'Something was changed since you looked' },
  'import.in-use': { status: 409, title: 'What was brought in is in use' },
  'route.unknown': { status: 404, title: 'There is no such address' },
  internal: { status: 500, title: 'Something went wrong on our side' },
} as const
export type ErrorCode = keyof typeof errorCodes
export type ProblemCode = ErrorCode | InputCode

/** Status and title under which bad input is refused. */
export const inputProblem = { status: 422, title: 'Something in what was given cannot be used' } as const

/** problem+json (RFC 9457) with our stable code. */
export const Problem = z.object({
  type: z.string(),
  title: z.string(),
  status: z.number(),
  detail: z.string(),
  /** One of the server's own codes, or what bad input is refused for (inputCodes.ts). */
  code: z.enum([...Object.keys(errorCodes), ...Object.keys(inputSentences)] as [
    ProblemCode,
    ...ProblemCode[],
  ]),
  /** Field the problem is about, dotted. */
  path: z.string().optional(),
  /** For logger.refused: what the device itself refused for. */
  deviceCode: z.string().optional(),
  /** For record.stale: what the server holds. */
  current: z.unknown().optional(),
  /** For record.stale: what was sent. */
  sent: z.unknown().optional(),
})
export type Problem = z.infer<typeof Problem>
