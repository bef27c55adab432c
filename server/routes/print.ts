import { eq, inArray } from 'drizzle-orm'
import { Hono, type Context } from 'hono'
import { z } from 'zod'
import { Id } from '#contract/common'
import { canonicalUnits, type UnitChoice } from '#core/units/choice'
import type { Deps } from '../deps.ts'
import { bikes, riders, setups, units } from '../db/schema.ts'
import { checked } from '../mount.ts'
import { baselineSheet } from '../print/baselineSheet.ts'
import { render } from '../print/render.ts'
import { sagStrip } from '../print/sagStrip.ts'
import { Refusal } from '../refusal.ts'

const Query = z.strictObject({
  setup: Id.optional(),
  pressure: z.enum(['psi', 'bar']).optional(),
  length: z.enum(['mm', 'in']).optional(),
  temperature: z.enum(['°C', '°F']).optional(),
  springRate: z.enum(['N/mm', 'lb/in']).optional(),
  altitude: z.enum(['m', 'ft']).optional(),
})

/** Sheets to print, as PDF in the units of whoever asks. */
export function printRoutes({ store: { db } }: Deps): Hono {
  const app = new Hono()

  async function find(c: Context) {
    const id = checked(Id, c.req.param('id'))
    const { setup: setupId, ...choice } = checked(Query, c.req.query())
    const [bike] = await db.select().from(bikes).where(eq(bikes.id, id))
    if (!bike) throw new Refusal('record.not-found', 'There is no such bike.')
    const asked = setupId ?? bike.currentSetupId
    const [setup] = asked ? await db.select().from(setups).where(eq(setups.id, asked)) : []
    if (setupId && setup?.bikeId !== id)
      throw new Refusal('reference.missing', 'That setup is not kept for this bike.', { path: 'setup' })
    const ids = [bike.frontUnitId, bike.rearUnitId].filter((x) => x !== null)
    const fitted = (await db.select().from(units).where(inArray(units.id, ids))).map((u) => u.body)
    fitted.sort((a, b) => a.end.localeCompare(b.end))
    return {
      bike,
      setup: setup?.body ?? null,
      fitted,
      choice: { ...canonicalUnits, ...choice } as UnitChoice,
    }
  }

  app.get('/bikes/:id/sag-strip.pdf', async (c) => {
    const { bike, fitted, choice } = await find(c)
    return pdf(c, await render(sagStrip(fitted, bike.body.name, choice)))
  })
  app.get('/bikes/:id/baseline.pdf', async (c) => {
    const { bike, setup, fitted, choice } = await find(c)
    if (!setup)
      throw new Refusal(
        'record.not-found',
        'Nothing is known of where this bike stands; read its dials first.',
      )
    const [rider] = await db.select().from(riders).where(eq(riders.id, bike.riderId))
    return pdf(c, await render(baselineSheet(bike.body, rider.body.name, setup, fitted, choice)))
  })
  return app
}

const pdf = (c: Context, bytes: Uint8Array<ArrayBuffer>) =>
  c.body(bytes, 200, { 'Content-Type': 'application/pdf', 'Content-Disposition': 'inline' })
