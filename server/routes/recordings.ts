import { Hono } from 'hono'
import { channelContentType } from '#contract/channels'
import { Id } from '#contract/common'
import { endpoints } from '#contract/endpoints'
import { limits } from '#contract/limits'
import { RecordingUpload, type Recording } from '#contract/recording'
import type { Deps } from '../deps.ts'
import { recordings } from '../db/schema.ts'
import { checked, mount } from '../mount.ts'
import { Refusal } from '../refusal.ts'
import { dayOfRun } from '../services/days.ts'
import { channelsCsv, metricRows, metricsCsv } from '../services/exports.ts'
import { findMapping, findRecording, importRecording, readPart, sectionsOf } from '../services/recordings.ts'
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
    const { id, held } = await kept(c.req.param('id'))
    const parts = await Promise.all(held.ends.map((end) => readPart(store, id, end)))
    return c.body(Uint8Array.from(Buffer.concat(parts)), 200, { 'Content-Type': channelContentType })
  })
  app.get('/recordings/:id/channels.csv', async (c) => {
    const { held, id } = await kept(c.req.param('id'))
    const channels = await Promise.all(
      held.ends.map(async (end) => new Float32Array((await readPart(store, id, end)).buffer)),
    )
    const pieces = channelsCsv(held, channels)
    const encoder = new TextEncoder()
    // Pulled as it is sent: whoever reads slowly does not make the server hold the text.
    const body = new ReadableStream<Uint8Array>({
      pull(controller) {
        const next = pieces.next()
        if (next.done) controller.close()
        else controller.enqueue(encoder.encode(next.value))
      },
    })
    return c.body(body, 200, attachment(held, 'channels.csv', 'text/csv; charset=utf-8'))
  })
  app.get('/recordings/:id/metrics.csv', async (c) => {
    const { held } = await kept(c.req.param('id'))
    const csv = metricsCsv(metricRows(held, await sectionsOf(store, held.runId)))
    return c.body(csv, 200, attachment(held, 'metrics.csv', 'text/csv; charset=utf-8'))
  })
  app.get('/recordings/:id/metrics.json', async (c) => {
    const { held } = await kept(c.req.param('id'))
    const { fileName, sha256, sampleRateHz, durationS, analysis } = held
    const sections = await sectionsOf(store, held.runId)
    const document = { fileName, sha256, sampleRateHz, durationS, sections, analysis }
    return c.body(
      JSON.stringify(document, null, 2),
      200,
      attachment(held, 'metrics.json', 'application/json'),
    )
  })
  return app

  async function kept(param: string) {
    const id = checked(Id, param)
    const held = await findRecording(store, id)
    if (!held) throw new Refusal('record.not-found', 'There is no such recording.')
    return { id, held }
  }
}

function attachment(held: Recording, ending: string, type: string): Record<string, string> {
  const name = `${held.fileName.replace(/\.[^.]*$/, '')} ${ending}`
  return {
    'Content-Type': type,
    'Content-Disposition': `attachment; filename*=UTF-8''${encodeURIComponent(name)}`,
  }
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
