import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { gunzipSync } from 'node:zlib'
import { eq } from 'drizzle-orm'
import { describe, expect, it } from 'vitest'
import { DayBundle, Garage, type DaySummary } from '#contract/endpoints'
import { coreVersion } from '#core/version'
import { recordings } from '../db/schema.ts'
import { mendRecords } from '../safekeeping/mend.ts'
import { startApp, type TestApp } from './harness.ts'

/** A data file as a released version left it: written by that version, never touched since. */
async function opened(shape: string): Promise<TestApp> {
  const dir = mkdtempSync(join(tmpdir(), 'wild-spring-frozen-'))
  const bytes = gunzipSync(readFileSync(join(import.meta.dirname, 'fixtures', `shape-${shape}.sqlite.gz`)))
  writeFileSync(join(dir, 'test.sqlite'), bytes)
  return startApp(dir)
}
const dayOf = async (t: TestApp) => {
  const [day] = (await t.get('/days')).body as DaySummary[]
  return (await t.get(`/days/${day.id}`)) as { status: number; body: DayBundle }
}
/** Waits for figures that are made again in the background. */
async function renewed(t: TestApp): Promise<DayBundle> {
  for (let i = 0; i < 200; i++) {
    const { body } = await dayOf(t)
    if (body.recordings.every((r) => r.figures !== 'renewing')) return body
    await new Promise((r) => setTimeout(r, 25))
  }
  throw new Error('the figures were never made again')
}

describe.each(['0000', '0001', '0002', '0004'])('a data file of shape %s', (shape) => {
  it('opens with its day, its feel and its recording', async () => {
    const t = await opened(shape)
    const { status, body } = await dayOf(t)
    expect(status).toBe(200)
    expect(body.feels[0]).toMatchObject({ rating: 6.5, note: 'as it was' })
    expect(body.recordings).toHaveLength(1)
    const day = await renewed(t)
    expect(day.recordings[0]).toMatchObject({ figures: 'current', analysis: { coreVersion } })
    expect(t.logged).toEqual([])
    await t.store.close()
  })
  it('reads as a day of today, with nothing in it that nobody noted', async () => {
    const t = await opened(shape)
    const b = DayBundle.parse((await dayOf(t)).body)
    expect(b.runs[0]).toMatchObject({ effort: null, airTempC: null, heardBottomsRear: null })
    expect(b.day.judgedAlone).toBe(false)
    expect(Garage.safeParse((await t.get('/garage')).body).success).toBe(true)
    await t.store.close()
  })
  it('has no record that is taken for damaged', async () => {
    const t = await opened(shape)
    expect(await mendRecords(t.store, [], '2031-05-02T18:00:00.000Z')).toBe(0)
    await t.store.close()
  })
})

describe.each(['0000', '0001'])(
  'a data file of shape %s, from before positions said how they are known',
  (shape) => {
    it('says so of them', async () => {
      const t = await opened(shape)
      const garage = (await t.get('/garage')).body as Garage
      const how = garage.currentSetups.flatMap((s) => s.positions.map((p) => p.known.how))
      expect(how).toHaveLength(4)
      expect(new Set(how)).toEqual(new Set(['assumed']))
      await t.store.close()
    })
  },
)

describe('a data file of shape 0002', () => {
  it('keeps what was answered and how its positions are known', async () => {
    const t = await opened('0002')
    const { body } = await dayOf(t)
    expect(body.feels[0].answers).toEqual([{ question: 'kicks-when', end: 'rear', answer: 'along-a-row' }])
    expect(new Set(body.setups.flatMap((s) => s.positions.map((p) => p.known.how)))).toEqual(new Set(['set']))
    await t.store.close()
  })
})

describe('figures of an older core', () => {
  it('are made again from the kept bytes while the day opens at once', async () => {
    const t = await opened('0001')
    const before = (await renewed(t)).recordings[0]
    const [row] = await t.store.db.select().from(recordings)
    const older = { ...row.body, analysis: { ...row.body.analysis!, coreVersion: 'older' } }
    await t.store.db.update(recordings).set({ body: older }).where(eq(recordings.id, row.id))
    const { status, body } = await dayOf(t)
    expect(status).toBe(200)
    expect(body.recordings[0]).toMatchObject({ analysis: null, figures: 'renewing' })
    expect((await renewed(t)).recordings[0]).toEqual(before)
    await t.store.close()
  })
  it('in a shape that is none any more do not close the day: a metric was added since', async () => {
    const t = await opened('0001')
    const [row] = await t.store.db.select().from(recordings)
    const { hits: _, ...missing } = row.body.analysis!.whole.front!
    const analysis = { ...row.body.analysis!, whole: { ...row.body.analysis!.whole, front: missing } }
    await t.store.db
      .update(recordings)
      .set({ body: { ...row.body, analysis } as never })
      .where(eq(recordings.id, row.id))
    expect((await dayOf(t)).status).toBe(200)
    expect((await renewed(t)).recordings[0].analysis!.whole.front!.hits).toBeGreaterThanOrEqual(0)
    await t.store.close()
  })
  it('whose bytes give none any more are told as broken, and the day opens', async () => {
    const t = await opened('0001')
    const [row] = await t.store.db.select().from(recordings)
    const columns = row.body.mapping.columns.map((c) => ({ ...c, column: c.column + 40 }))
    const body = { ...row.body, mapping: { ...row.body.mapping, columns }, analysis: null }
    await t.store.db
      .update(recordings)
      .set({ body: body as never })
      .where(eq(recordings.id, row.id))
    expect((await renewed(t)).recordings[0]).toMatchObject({ figures: 'broken', analysis: null })
    expect((await t.get(`/recordings/${row.id}/metrics.csv`)).body).toMatchObject({
      code: 'recording.no-figures',
    })
    expect((await t.get(`/recordings/${row.id}/original`)).status).toBe(200)
    await t.store.close()
  })
})

describe('a data file of shape 0004, from before the shelf said whose a piece is', () => {
  it('says of none that it is anybody’s, lent, or counted otherwise', async () => {
    const t = await opened('0004')
    const garage = Garage.parse((await t.get('/garage')).body)
    expect(garage.stock.map((s) => [s.name, s.ownerId, s.out])).toEqual([['as it was', null, []]])
    expect(garage.units.length).toBeGreaterThan(0)
    for (const u of garage.units) expect([u.ownerId, u.loan]).toEqual([null, null])
    expect(garage.baselines.map((b) => [b.countedFrom, b.notHere, b.score])).toEqual([[null, [], null]])
    // As it was read it can be saved: nothing is missing that the page would have to make up.
    const [spring] = garage.stock
    expect((await t.put(`/stock/${spring.id}`, { ...spring, count: 2 })).status).toBe(200)
    await t.store.close()
  })
})
