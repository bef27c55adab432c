import { Hono } from 'hono'
import { channelContentType } from '#contract/channels'
import { Id } from '#contract/common'
import { endpoints } from '#contract/endpoints'
import type { Recording, Upload } from '#contract/recording'
import type { Deps } from '../deps.ts'
import { recordings } from '../db/schema.ts'
import { checked, mount } from '../mount.ts'
import { Refusal } from '../refusal.ts'
import { dayOfRun } from '../services/days.ts'
import { channelsCsv, metricRows, metricsCsv } from '../services/exports.ts'
import { forgetUnnamed, sensorFile, spool } from '../ingest/spool.ts'
import { bodyOf } from './bodyOf.ts'
import { sectionsOf } from '../services/recordings/context.ts'
import { importRecording } from '../services/recordings/import.ts'
import {
  findMapping,
  findRecording,
  mustFind,
  originalPart,
  readPart,
  sidePartsOf,
  wayOf,
} from '../services/recordings/kept.ts'
import type { PerRecord } from '../services/recordings/reading.ts'
import { addFile, dropFile, placeSpans } from '../services/recordings/reread.ts'
import { setDeleted } from '../services/records.ts'

/** Sensor files in, channels and original bytes out. */
export function recordingRoutes(deps: Deps, perRecord: PerRecord): Hono {
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
      if (dayId) events.emit({ type: 'stale', what: 'day', id: dayId })
      return {}
    })
  }
  mount(app, endpoints.getWay, async ({ params }) => wayOf(store, await mustFind(store, params.id)))
  const told = async (recording: Recording) => {
    const dayId = await dayOfRun(store, recording.runId)
    if (dayId) events.emit({ type: 'stale', what: 'day', id: dayId })
    return recording
  }
  app.put('/uploads/:id', async (c) => {
    const id = checked(Id, c.req.param('id'))
    await forgetUnnamed(deps.incomingDir, Date.now())
    const kept = await spool(await bodyOf(c.req, sensorFile), deps.incomingDir, id, c.req.raw.signal)
    const upload: Upload = { id, ...kept }
    return c.json(upload)
  })
  mount(app, endpoints.putRecording, async ({ params, body, signal }) =>
    told(await importRecording(deps, perRecord, params.id, body, signal)),
  )
  mount(app, endpoints.addFile, async ({ params, body, signal }) =>
    told(await addFile(deps, perRecord, params.id, params.fileId, body, signal)),
  )
  mount(app, endpoints.placeSections, async ({ params, body }) =>
    told(await placeSpans(deps, perRecord, params.id, body, neverAborted())),
  )
  mount(app, endpoints.dropFile, async ({ params }) =>
    told(await dropFile(deps, perRecord, params.id, params.fileId, neverAborted())),
  )
  app.get('/recordings/:id/original', async (c) => {
    const { id, held } = await kept(c.req.param('id'))
    return c.body(await readPart(store, id, originalPart()), 200, asItCame(held.fileName))
  })
  app.get('/recordings/:id/files/:fileId/original', async (c) => {
    const { id, held } = await kept(c.req.param('id'))
    const file = held.addedFiles.find((f) => f.id === c.req.param('fileId'))
    if (!file) throw new Refusal('record.not-found', 'There is no such file on this recording.')
    return c.body(await readPart(store, id, originalPart(file.id)), 200, asItCame(file.fileName))
  })
  app.get('/recordings/:id/channels', async (c) => {
    const { id, held } = await kept(c.req.param('id'))
    const parts = await Promise.all(held.ends.map((end) => readPart(store, id, end)))
    return c.body(Uint8Array.from(Buffer.concat(parts)), 200, { 'Content-Type': channelContentType })
  })
  app.get('/recordings/:id/channels.csv', async (c) => {
    const { held, id } = await kept(c.req.param('id'))
    const side = await sidePartsOf(store, id)
    const channels = await Promise.all(
      [...held.ends, ...side].map(async (part) => new Float32Array((await readPart(store, id, part)).buffer)),
    )
    const pieces = channelsCsv(held, channels, side)
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
    return { id, held: await mustFind(store, id) }
  }
}

/** Readings again from kept bytes are quick, and no upload can be broken off by its sender. */
const neverAborted = () => new AbortController().signal

const asItCame = (fileName: string) => ({
  'Content-Type': 'application/octet-stream',
  'Content-Disposition': `attachment; filename*=UTF-8''${encodeURIComponent(fileName)}`,
})

function attachment(held: Recording, ending: string, type: string): Record<string, string> {
  const name = `${held.fileName.replace(/\.[^.]*$/, '')} ${ending}`
  return {
    'Content-Type': type,
    'Content-Disposition': `attachment; filename*=UTF-8''${encodeURIComponent(name)}`,
  }
}
