import type { Context } from 'hono'
import type { ContentfulStatusCode } from 'hono/utils/http-status'
import { errorCodes, inputProblem, type ErrorCode, type Problem, type ProblemCode } from '#contract/errors'
import { InputError } from '#core/errors'
import { isAway } from './libsql/away.ts'
import { Refusal } from './refusal.ts'

export interface Log {
  error: (message: string, cause: unknown) => void
  /** A line for each request (requestLog.ts); left out: none is kept. */
  request?: (line: string) => void
}

/** One handler for every error: known ones by their code, the rest as 500, logged whole and told without detail. */
export function toProblem(log: Log) {
  return (error: Error, c: Context): Response => {
    if (error instanceof Refusal) return reply(c, error.code, error.message, error.more)
    if (error instanceof InputError) return reply(c, error.code, error.message)
    if (isDiskFull(error))
      return reply(c, 'storage.full', 'The disk is full; nothing was saved. Make room and try again.')
    if (isAway(error))
      return reply(
        c,
        'storage.away',
        'The libSQL server that keeps the data does not answer; nothing was saved. It is tried again.',
      )
    log.error(`${c.req.method} ${c.req.path}`, error)
    if (codesOf(error).some((code) => code.startsWith('SQLITE_READONLY')))
      return reply(
        c,
        'storage.read-only',
        'The data file cannot be written; nothing was saved. Whoever runs Wild Spring has to give it the right to write.',
      )
    if (codesOf(error).some((code) => code.startsWith('SQLITE_CORRUPT')))
      return reply(
        c,
        'storage.damaged',
        'The data file is damaged; nothing was saved. Put a safe copy in its place before anything else.',
      )
    return reply(c, 'internal', 'The server could not do this. Nothing was saved; try again.')
  }
}

const isDiskFull = (error: unknown) =>
  codesOf(error).some((code) => code === 'SQLITE_FULL' || code === 'ENOSPC')

/** Codes of an error and of what caused it. */
function codesOf(error: unknown): string[] {
  const codes: string[] = []
  for (let e: unknown = error; e instanceof Error; e = e.cause) if ('code' in e) codes.push(String(e.code))
  return codes
}

export function reply(c: Context, code: ProblemCode, detail: string, more: Partial<Problem> = {}): Response {
  const { status } = titled(code)
  return c.json(problemOf(code, detail, more), status as ContentfulStatusCode, {
    'Content-Type': 'application/problem+json',
  })
}

/** The same where there is no application to ask. */
export const problemResponse = (code: ProblemCode, detail: string): Response =>
  Response.json(problemOf(code, detail), {
    status: titled(code).status,
    headers: { 'Content-Type': 'application/problem+json', 'Retry-After': '2' },
  })

const titled = (code: ProblemCode) => (code in errorCodes ? errorCodes[code as ErrorCode] : inputProblem)

function problemOf(code: ProblemCode, detail: string, more: Partial<Problem> = {}): Problem {
  const { status, title } = titled(code)
  return { type: `urn:wild-spring:problem:${code}`, title, status, detail, code, ...more }
}
