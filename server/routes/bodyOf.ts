import type { HonoRequest } from 'hono'
import { InputError } from '#core/errors'
import { tooLarge, type Most } from '../ingest/spool.ts'

/** @throws InputError 'file.empty', Refusal 'request.too-large' */
export async function bodyOf(req: HonoRequest, most: Most): Promise<ReadableStream<Uint8Array>> {
  const body = req.raw.body
  if (!body) throw new InputError('file.empty')
  if (Number(req.header('content-length') ?? 0) > most.bytes) {
    await body.cancel()
    throw tooLarge(most)
  }
  return body
}
