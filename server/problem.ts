import type { Context } from 'hono'
import type { ContentfulStatusCode } from 'hono/utils/http-status'
import { errorCodes, inputProblem, type ErrorCode, type Problem, type ProblemCode } from '#contract/errors'
import { InputError } from '#core/errors'
import { Refusal } from './refusal.ts'

export interface Log {
  error: (message: string, cause: unknown) => void
}

/** One handler for every error: known ones by their code, the rest as 500, logged whole and told without detail. */
export function toProblem(log: Log) {
  return (error: Error, c: Context): Response => {
    if (error instanceof Refusal) return reply(c, error.code, error.message, error.more)
    if (error instanceof InputError) return reply(c, error.code, error.message)
    if (isDiskFull(error))
      return reply(c, 'storage.full', 'The disk is full; nothing was saved. Make room and try again.')
    log.error(`${c.req.method} ${c.req.path}`, error)
    return reply(c, 'internal', 'The server could not do this. Nothing was saved; try again.')
  }
}

function isDiskFull(error: unknown): boolean {
  for (let e: unknown = error; e instanceof Error; e = e.cause) {
    const code = 'code' in e ? String(e.code) : ''
    if (code === 'SQLITE_FULL' || code === 'ENOSPC') return true
  }
  return false
}

export function reply(c: Context, code: ProblemCode, detail: string, more: Partial<Problem> = {}): Response {
  const { status, title } = code in errorCodes ? errorCodes[code as ErrorCode] : inputProblem
  const body = { type: `urn:wild-spring:problem:${code}`, title, status, detail, code, ...more }
  return c.json(body, status as ContentfulStatusCode, { 'Content-Type': 'application/problem+json' })
}
