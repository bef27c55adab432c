import { eq, inArray } from 'drizzle-orm'
import { Hono, type Context } from 'hono'
import { z } from 'zod'
import { Id } from '#contract/common'
import type { Proposal } from '#contract/proposal'
import { endpoints, type DayBundle } from '#contract/endpoints'
import { judgeBundle, learntOf } from '#core/adviser/judgeBundle'
import { openQuestions } from '#core/tent/openQuestions'
import { writeCode } from '#core/card/code'
import { canonicalUnits, type UnitChoice } from '#core/units/choice'
import type { Deps } from '../deps.ts'
import { bikes, units } from '../db/schema.ts'
import { checked, mount } from '../mount.ts'
import { packing } from '../print/packing.ts'
import { render, renderOnePage } from '../print/render.ts'
import { sagStrip } from '../print/sagStrip.ts'
import { papers, setupCard } from '../print/setupCard.ts'
import { tentSheets } from '../print/tentSheets.ts'
import { Refusal } from '../refusal.ts'
import { readCard } from '../services/cards.ts'
import { readDay, readEarlierDays } from '../services/days.ts'
import { readTent } from '../services/tents.ts'
import { readLetterhead, saveLetterhead } from '../services/letterhead.ts'
import { sameId } from './garage.ts'

/** More than this makes squares too small for a camera at arm's length, letters. */
const mostInCode = 900

const Query = z.strictObject({
  pressure: z.enum(['psi', 'bar']).optional(),
  length: z.enum(['mm', 'in']).optional(),
  temperature: z.enum(['°C', '°F']).optional(),
  springRate: z.enum(['N/mm', 'lb/in']).optional(),
  altitude: z.enum(['m', 'ft']).optional(),
})

/** A time zone that the clock knows. */
const isZone = (zone: string) => {
  try {
    return new Intl.DateTimeFormat('en', { timeZone: zone }) !== null
  } catch {
    return false
  }
}
/** On whose clock. */
const ZoneName = z.string().max(60).refine(isZone, { error: 'That time zone is not known.' })

const CardQuery = Query.extend({
  /** Left out: what is on the bike now. */
  setup: Id.optional(),
  paper: z.enum(papers).optional(),
  /** Said at all: the riding weight is on the card. */
  weight: z.literal('yes').optional(),
  zone: ZoneName.optional(),
})

const SheetsQuery = Query.extend({
  paper: z.enum(['A4', 'LETTER']).optional(),
  zone: ZoneName.optional(),
})

/** Sheets to print, as PDF in the units of whoever asks. */
export function printRoutes({ store, events }: Deps): Hono {
  const { db } = store
  const app = new Hono()

  async function find(c: Context) {
    const id = checked(Id, c.req.param('id'))
    const choice = checked(Query, c.req.query())
    const [bike] = await db.select().from(bikes).where(eq(bikes.id, id))
    if (!bike) throw new Refusal('record.not-found', 'There is no such bike.')
    const ids = [bike.frontUnitId, bike.rearUnitId].filter((x) => x !== null)
    const fitted = (await db.select().from(units).where(inArray(units.id, ids))).map((u) => u.body)
    fitted.sort((a, b) => a.end.localeCompare(b.end))
    return {
      bike,
      fitted,
      choice: { ...canonicalUnits, ...choice } as UnitChoice,
    }
  }

  app.get('/bikes/:id/sag-strip.pdf', async (c) => {
    const { bike, fitted, choice } = await find(c)
    return pdf(c, await render(sagStrip(fitted, bike.body.name, choice)))
  })
  const cardAsked = (c: Context) => {
    const asked = checked(CardQuery, c.req.query())
    return readCard(store, checked(Id, c.req.param('id')), asked.setup, asked.weight !== undefined)
  }
  app.get('/bikes/:id/card.pdf', async (c) => {
    const { setup: _setup, weight: _weight, paper, zone, ...choice } = checked(CardQuery, c.req.query())
    const card = await cardAsked(c)
    const letterhead = await readLetterhead(store)
    const code = writeCode(JSON.stringify(card), packing)
    const look = {
      paper: paper ?? 'A4',
      zone,
      choice: { ...canonicalUnits, ...choice } as UnitChoice,
      letterhead,
      code: code.length <= mostInCode ? code : null,
    }
    return pdf(c, await renderOnePage((scale) => setupCard(card, { ...look, scale })))
  })
  /** What is next on a day; null: it cannot be judged, and the sheet stands without. */
  async function nextOn(day: DayBundle, choice: UnitChoice): Promise<Proposal | null> {
    const earlier = day.day.judgedAlone ? [] : await readEarlierDays(store, day.day.id)
    try {
      return judgeBundle(day, learntOf(earlier), choice).proposal
    } catch {
      return null
    }
  }
  app.get('/tents/:id/sheets.pdf', async (c) => {
    const { paper, zone, ...choice } = checked(SheetsQuery, c.req.query())
    const tent = await readTent(store, checked(Id, c.req.param('id')))
    const look = {
      paper: paper ?? 'A4',
      zone: zone ?? 'UTC',
      choice: { ...canonicalUnits, ...choice } as UnitChoice,
    } as const
    const days: DayBundle[] = []
    const questions = new Map<string, string[]>()
    for (const { id } of tent.riders) {
      const day = await readDay(store, id)
      days.push(day)
      questions.set(id, openQuestions(tent, day, await nextOn(day, look.choice)))
    }
    return pdf(c, await render(tentSheets(tent, days, questions, look)))
  })
  mount(app, endpoints.getLetterhead, () => readLetterhead(store))
  mount(app, endpoints.putLetterhead, async ({ params, body }) => {
    const saved = await saveLetterhead(store, sameId(params.id, body))
    events.emit({ type: 'stale', what: 'letterhead', id: null })
    return saved
  })
  app.get('/bikes/:id/card.json', async (c) => c.json(await cardAsked(c)))
  return app
}

const pdf = (c: Context, bytes: Uint8Array<ArrayBuffer>) =>
  c.body(bytes, 200, { 'Content-Type': 'application/pdf', 'Content-Disposition': 'inline' })
