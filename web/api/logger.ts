import { z } from 'zod'
import { Hold, LoggerFaults, LoggerIdentity, LoggerState, StoredRecording } from '#contract/logger'
import type { StandInHands, StandInWorld } from '#contract/logger'
import { apiBase, reach } from './client.ts'

const StandIn = z.object({ faults: LoggerFaults, pace: z.number().positive() })
const Nothing = z.unknown()

/** Asks one device, through our own server. Every reply has passed its schema. @throws ApiError */
async function ask<S extends z.ZodType>(
  index: number,
  method: string,
  path: string,
  reply: S,
  body?: unknown,
): Promise<z.output<S>> {
  const response = await reach(loggerAddress(index, path), {
    method,
    ...(body === undefined
      ? {}
      : { body: JSON.stringify(body), headers: { 'Content-Type': 'application/json' } }),
  })
  return reply.parse(await response.json())
}

export const loggerAddress = (index: number, path: string) => `${apiBase}/loggers/${index}/${path}`

/** The open logger protocol, as calls. */
export const loggerCalls = {
  identity: (i: number) => ask(i, 'GET', 'v1/identity', LoggerIdentity),
  state: (i: number) => ask(i, 'GET', 'v1/state', LoggerState),
  hold: (i: number, seconds: number) => ask(i, 'POST', 'v1/hold', Hold, { seconds }),
  start: (i: number) => ask(i, 'POST', 'v1/recording/start', z.object({ id: z.string() })),
  stop: (i: number) => ask(i, 'POST', 'v1/recording/stop', StoredRecording),
  list: (i: number) => ask(i, 'GET', 'v1/recordings', z.array(StoredRecording)),
  remove: (i: number, id: string) => ask(i, 'DELETE', `v1/recordings/${id}`, Nothing),
  standIn: (i: number) => ask(i, 'GET', 'stand-in', StandIn),
  mount: (i: number, world: StandInWorld) => ask(i, 'PUT', 'stand-in/world', LoggerIdentity, world),
  hands: (i: number, hands: StandInHands) => ask(i, 'PUT', 'stand-in/hands', Nothing, hands),
  faults: (i: number, faults: LoggerFaults) => ask(i, 'PUT', 'stand-in/faults', LoggerFaults, faults),
}

/**
 * Takes a recording off the device piece by piece.
 * @param onProgress share of the bytes that have arrived
 */
export async function offload(
  index: number,
  id: string,
  onProgress: (share: number) => void,
  signal: AbortSignal,
): Promise<Blob> {
  const response = await reach(loggerAddress(index, `v1/recordings/${id}`), { signal })
  const total = Number(response.headers.get('content-length') ?? 0)
  const reader = response.body!.getReader()
  const pieces: Uint8Array<ArrayBuffer>[] = []
  let seen = 0
  for (;;) {
    const { done, value } = await reader.read()
    if (done) break
    pieces.push(value)
    seen += value.length
    onProgress(total ? seen / total : 0)
  }
  return new Blob(pieces, { type: 'text/csv' })
}
