import type { z } from 'zod'
import type { Endpoint } from '#contract/endpoints'
import { Problem } from '#contract/errors'
import { toldHeader } from '#contract/live'
import { answered, unanswered } from './reach.ts'

export const apiBase = '/api/v1'

/** A request that did not go through; `problem` is null when the server could not be reached. */
export class ApiError extends Error {
  constructor(
    message: string,
    readonly problem: Problem | null,
  ) {
    super(message)
    this.name = 'ApiError'
  }
}

/**
 * Calls an endpoint of the contract. The reply has passed its schema.
 * @throws ApiError with one sentence for people
 */
export async function call<P extends z.ZodType, B extends z.ZodType, R extends z.ZodType>(
  endpoint: Endpoint<P, B, R>,
  params: z.input<P>,
  body?: z.input<B>,
  signal?: AbortSignal,
  headers: Record<string, string> = {},
): Promise<z.output<R>> {
  return (await callTold(endpoint, params, body, signal, headers)).answer
}

/** The same, with the number of the last event that the answer holds. @throws ApiError */
export async function callTold<P extends z.ZodType, B extends z.ZodType, R extends z.ZodType>(
  endpoint: Endpoint<P, B, R>,
  params: z.input<P>,
  body?: z.input<B>,
  signal?: AbortSignal,
  headers: Record<string, string> = {},
): Promise<{ answer: z.output<R>; told: number }> {
  const path = endpoint.path.replace(/:(\w+)/g, (_, name: string) =>
    encodeURIComponent(String((params as Record<string, unknown>)[name])),
  )
  const response = await reach(apiBase + path, {
    method: endpoint.method.toUpperCase(),
    ...(signal ? { signal } : {}),
    ...(body === undefined
      ? { headers }
      : { body: JSON.stringify(body), headers: { ...headers, 'Content-Type': 'application/json' } }),
  })
  const told = Number(response.headers.get(toldHeader) ?? 0)
  return { answer: endpoint.reply.parse(await response.json()), told }
}

const lockedListeners = new Set<() => void>()
/** Told when the server asks who we are. */
export const whenLocked = (listener: () => void): void => void lockedListeners.add(listener)

/** fetch, with every failure as an ApiError. */
export async function reach(address: string, init: RequestInit = {}): Promise<Response> {
  let response: Response
  try {
    response = await fetch(address, init)
  } catch (e) {
    // Given up by the page itself says nothing of the server.
    if (!(e instanceof DOMException && e.name === 'AbortError')) unanswered()
    throw new ApiError(
      'The server cannot be reached. What you typed is kept here; try again in a moment.',
      null,
    )
  }
  answered()
  if (response.ok) return response
  const error = await problemOf(response.status, await response.text())
  if (error.problem?.status === 401) for (const l of lockedListeners) l()
  throw error
}

export async function problemOf(status: number, text: string): Promise<ApiError> {
  try {
    const problem = Problem.parse(JSON.parse(text))
    return new ApiError(problem.detail, problem)
  } catch {
    return new ApiError(`The server answered with ${status}.`, null)
  }
}
