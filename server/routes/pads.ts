import { Hono, type Context } from 'hono'
import { bodyLimit } from 'hono/body-limit'
import { Id } from '#contract/common'
import { endpoints } from '#contract/endpoints'
import { voiceLimits } from '#contract/pad'
import { hashOf } from '../access/codes.ts'
import { Limiter } from '../access/limiter.ts'
import { cameFrom } from '../access/visitor.ts'
import type { Deps } from '../deps.ts'
import { checked, mount } from '../mount.ts'
import { reply } from '../problem.ts'
import { Refusal } from '../refusal.ts'
import {
  endPad,
  givePad,
  keepReport,
  keepVoice,
  mustBePad,
  readPad,
  readVoice,
  takeReport,
  touchPad,
} from '../services/pads.ts'
import { tentOf } from '../services/tents.ts'
import { sameId } from './garage.ts'

/** The phones of riders: a link is for one rider in one tent, and adds feel and notes, nothing else. */
export function padRoutes({ store, events, now, door }: Deps): Hono {
  const app = new Hono()
  const each = new Limiter(30, 60)
  const wrong = new Limiter(10, 10)
  const stale = (id: string | null) => events.emit({ type: 'stale', what: 'tent', id })

  /** @throws Refusal 'pad.ended', 'access.slow-down' */
  const padOf = async (c: Context) => {
    const token = /^Bearer ([\w-]{10,60})$/.exec(c.req.header('authorization') ?? '')?.[1] ?? ''
    const nowMs = Date.parse(now())
    const wait = each.take(hashOf(token), nowMs)
    if (wait > 0) throw new Refusal('access.slow-down', `Too much at once; try again in ${wait} seconds.`)
    const from = cameFrom(c, door)
    try {
      return await mustBePad(store, token, now())
    } catch (e) {
      if (wrong.take(from, nowMs) > 0) throw new Refusal('access.slow-down', 'Too many tries; wait a minute.')
      throw e
    }
  }

  mount(app, endpoints.getPad, async ({ c }) => readPad(store, await padOf(c)))
  mount(app, endpoints.putPadReport, async ({ params, body, c }) => {
    const pad = await padOf(c)
    sameId(params.id, body.report)
    const { feel } = await keepReport(store, pad.pad.dayId, body, now())
    if (feel) events.emit({ type: 'feel', dayId: pad.pad.dayId, feel })
    await touchPad(store, pad.pad.dayId, now())
    stale(pad.pad.tentId)
    return readPad(store, pad)
  })
  app.put(
    '/pad/voices/:id',
    bodyLimit({
      maxSize: voiceLimits.bytes,
      onError: (c) =>
        reply(c, 'request.too-large', `A spoken note may be at most ${voiceLimits.seconds} seconds.`),
    }),
    async (c) => {
      const { pad } = await padOf(c)
      const id = checked(Id, c.req.param('id'))
      await keepVoice(store, pad.dayId, id, Buffer.from(await c.req.arrayBuffer()), now())
      return c.json({})
    },
  )
  app.get('/voices/:id', async (c) => {
    const { bytes, type } = await readVoice(store, checked(Id, c.req.param('id')))
    return c.body(Uint8Array.from(bytes), 200, {
      'Content-Type': type,
      'Content-Length': String(bytes.length),
    })
  })
  mount(app, endpoints.givePadLink, async ({ params }) => {
    const { tentId, ...given } = await givePad(store, params.id, now())
    stale(tentId)
    return given
  })
  mount(app, endpoints.endPadLink, async ({ params }) => {
    await endPad(store, params.id)
    stale(await tentOf(store, params.id))
    return {}
  })
  mount(app, endpoints.handOverReport, async ({ params, body }) => {
    sameId(params.reportId, body.report)
    const tentId = await tentOf(store, params.id)
    if (tentId === null) throw new Refusal('record.not-found', 'That rider is in no tent here.')
    // A file may have lain for days: its own clock is wrong by less than that.
    const handed = { report: body.report, phoneNow: now() }
    const { report, feel } = await keepReport(store, params.id, handed, now())
    if (feel) events.emit({ type: 'feel', dayId: params.id, feel })
    stale(tentId)
    return report
  })
  mount(app, endpoints.takePadReport, async ({ params, body }) => {
    const { report, feel } = await takeReport(
      store,
      params.id,
      sameId(params.id, body).runId,
      now(),
      body.phoneIsRight,
    )
    if (feel) events.emit({ type: 'feel', dayId: report.dayId, feel })
    stale(await tentOf(store, report.dayId))
    return report
  })
  return app
}
