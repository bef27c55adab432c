import { z } from 'zod'

/**
 * Every code the server answers with: HTTP status and what a person reads as the title.
 * A code is stable and never reused; the detail sentence may change.
 */
export const errorCodes = {
  'request.invalid': { status: 422, title: 'Something in what was sent is not right' },
  'request.not-json': { status: 400, title: 'The request is not readable JSON' },
  'request.too-large': { status: 413, title: 'That is larger than what is accepted' },
  'request.wrong-origin': { status: 403, title: 'The request came from another site' },
  'record.not-found': { status: 404, title: 'There is no such record' },
  'record.stale': { status: 409, title: 'It was changed elsewhere in the meantime' },
  'record.immutable': { status: 409, title: 'A saved setup is never rewritten' },
  'record.in-use': { status: 409, title: 'Something still refers to it' },
  'reference.missing': { status: 422, title: 'It refers to something that is not there' },
  'setup.out-of-range': { status: 422, title: 'A position is outside what the part can do' },
  'setup.not-linked': { status: 422, title: 'More than one adjuster was changed' },
  'recording.unreadable': { status: 422, title: 'The sensor file could not be read' },
  'logger.unreachable': { status: 502, title: 'The logger does not answer' },
  'logger.refused': { status: 409, title: 'The logger did not do it' },
  'upload.cancelled': { status: 499, title: 'The upload was cancelled' },
  'storage.full': { status: 507, title: 'The disk is full' },
  'route.unknown': { status: 404, title: 'There is no such address' },
  internal: { status: 500, title: 'Something went wrong on our side' },
} as const
export type ErrorCode = keyof typeof errorCodes

/** problem+json (RFC 9457) with our stable code. */
export const Problem = z.object({
  type: z.string(),
  title: z.string(),
  status: z.number(),
  detail: z.string(),
  code: z.enum(Object.keys(errorCodes) as [ErrorCode, ...ErrorCode[]]),
  /** Field the problem is about, dotted. */
  path: z.string().optional(),
  /** For record.stale: what the server holds. */
  current: z.unknown().optional(),
  /** For record.stale: what was sent. */
  sent: z.unknown().optional(),
})
export type Problem = z.infer<typeof Problem>
