import { Hono } from 'hono'
import { channelContentType } from '#contract/channels'
import { Id } from '#contract/common'
import { endpoints } from '#contract/endpoints'
import { limits } from '#contract/limits'
import { RecordingUpload } from '#contract/recording'
import type { Deps } from '../deps.ts'
import { recordings } from '../db/schema.ts'
import { checked, mount } from '../mount.ts'
import { Refusal } from '../refusal.ts'
import { dayOfRun } from '../services/days.ts'
import { findMapping, findRecording, importRecording, readPart } from '../services/recordings.ts'
import { setDeleted } from '../services/records.ts'

/** Sensor files in, channels and original bytes out. */
export function recordingRoutes(deps: Deps): Hono {
  const { store, now, events } = deps
  const app = new Hono()
  mount(app, endpoints.getMapping, ({ params }) => findMapping(store, params.fingerprint))
  for (const [endpoint, at] of [
    [endpoints.deleteRecording, now],
    [endpoints.restoreRecording, () => null],
  ] as const) {
    mount(app, endpoint, async ({ params }) => {
      await store.writes.run(() => setDeleted(store, recordings, params.id, at()))
      const held = await findRecording(store, params.id)
      const dayId = held && (await dayOfRun(store, held.runId))
      if (dayId) events.emit({ type: 'day', dayId })
      return {}
    })
  }
  app.put('/recordings/:id', async (c) => {
    const id = checked(Id, c.req.param('id'))
    const meta = checked(RecordingUpload, parseMeta(c.req.query('meta')))
    const body = c.req.raw.body
    if (!body)
      throw new Refusal(
        'recording.unreadable',
        'The file is empty; choose a delimited text file with a header line and rows of numbers.',
      )
    if (Number(c.req.header('content-length') ?? 0) > limits.uploadBytes) {
      await body.cancel()
      throw new Refusal(
        'request.too-large',
        `A sensor file may be at most ${Math.round(limits.uploadBytes / 1024 / 1024)} MB; split the recording.`,
      )
    }
    const recording = await importRecording(deps, id, meta, body, c.req.raw.signal)
    const dayId = await dayOfRun(store, recording.runId)
    if (dayId) events.emit({ type: 'day', dayId })
    return c.json(recording)
  })
  app.get('/recordings/:id/original', async (c) => {
    const id = checked(Id, c.req.param('id'))
    const held = await findRecording(store, id)
    const bytes = await readPart(store, id, 'original')
    return c.body(bytes, 200, {
      'Content-Type': 'application/octet-stream',
      'Content-Disposition': `attachment; filename*=UTF-8''${encodeURIComponent(held?.fileName ?? 'recording.csv')}`,
    })
  })
  app.get('/recordings/:id/channels', async (c) => {
    const id = checked(Id, c.req.param('id'))
    const held = await findRecording(store, id)
    if (!held) throw new Refusal('record.not-found', 'There is no such recording.')
    const parts = await Promise.all(held.ends.map((end) => readPart(store, id, end)))
    return c.body(Uint8Array.from(Buffer.concat(parts)), 200, { 'Content-Type': channelContentType })
  })
  return app
}

function parseMeta(text: string | undefined): unknown {
  try {
    return JSON.parse(text ?? '')
  } catch {
    throw new Refusal(
      'request.invalid',
      'The "meta" part of the address must be JSON with runId, fileName and mapping.',
      { path: 'meta' },
    )
  }
}
