import { v7 as uuid } from 'uuid'
import { describe, expect, it } from 'vitest'
import { BikeSetups } from '#contract/bikeSetups'
import { Garage } from '#contract/endpoints'
import type { Setup } from '#contract/setup'
import { recordsOf } from '#core/notebook/records'
import { startApp } from './harness.ts'
import { startStory } from './story.ts'

async function story() {
  const t = await startApp()
  const s = await startStory(t)
  const [pressure, rebound] = s.front.adjusters
  const rows = ['2024-05-12', '2024-06-20', '2025-04-01'].map((date, i) => ({
    line: i + 2,
    date,
    name: '',
    place: 'Larch Bank',
    note: `note ${i}`,
    faults: [],
    positions: [
      { end: 'front' as const, adjusterId: pressure.id, value: 70 + i },
      { end: 'front' as const, adjusterId: rebound.id, value: 3 + i },
    ],
  }))
  const noted = recordsOf(rows, s.bike, 'old.csv', uuid, '2031-05-02T12:00:00.000Z')
  const read = async () => BikeSetups.parse((await t.get(`/bikes/${s.bike.id}/setups`)).body)
  const keep = (body: unknown) => t.put(`/bikes/${s.bike.id}/noted`, body)
  return { t, s, noted, read, keep }
}
/** One of the setups otherwise. */
const withSetup = (noted: { setups: Setup[]; kept: unknown[] }, at: number, over: object) => ({
  ...noted,
  setups: noted.setups.map((s, i) => (i === at ? { ...s, ...over } : s)),
})

describe('settings of before, out of somebody’s own table', () => {
  it('stand before what was saved here, by name; the bike, its wishes and its days stay as they are', async () => {
    const { t, s, noted, read, keep } = await story()
    const before = Garage.parse((await t.get('/garage')).body)
    const day = (await t.get(`/days/${s.day.id}`)).body
    expect((await keep(noted)).status).toBe(200)
    const all = await read()
    expect(all.setups.map((x) => x.id)).toEqual([...noted.setups.map((x) => x.id), s.setup.id])
    expect(all.kept.map((k) => k.words)).toEqual(['note 0', 'note 1', 'note 2'])
    const after = Garage.parse((await t.get('/garage')).body)
    expect({ ...after, kept: [] }).toEqual({ ...before, kept: [] })
    expect((await t.get(`/days/${s.day.id}`)).body).toEqual(day)
    await t.store.close()
  })
  it('said again it is the same, and not twice there', async () => {
    const { t, noted, read, keep } = await story()
    await keep(noted)
    expect((await keep(noted)).status).toBe(200)
    expect((await read()).setups).toHaveLength(4)
    expect((await keep(withSetup(noted, 0, { name: 'another' }))).status).toBe(409)
    await t.store.close()
  })
  it.each<[string, number, object, RegExp]>([
    ['a place the dial does not have', 1, { positions: null }, /^Row 2: Front rebound goes from/],
    ['a number that claims to be read', 2, { positions: 'read' }, /^Row 3: .*assumed here, never read/],
    ['a day to come', 2, { madeAt: '2031-05-03T12:00:00.000Z' }, /^Row 3: It is of a day that has not come/],
    ['a wish', 0, { wanted: true }, /^Row 1:/],
    ['another bike', 0, { bikeId: uuid() }, /^Row 1:/],
    ['a parent that is not the row before', 2, { parentId: null }, /^Row 3:/],
  ])('with %s in one row, none is kept', async (what, at, over, sentence) => {
    const { t, noted, read, keep } = await story()
    const positions = noted.setups[at].positions
    const change =
      what === 'a place the dial does not have'
        ? { positions: positions.map((p) => ({ ...p, value: 99 })).slice(1) }
        : what === 'a number that claims to be read'
          ? { positions: positions.map((p) => ({ ...p, known: { ...p.known, how: 'read' } })) }
          : over
    const refused = await keep(withSetup(noted, at, change))
    expect(refused.status).toBe(422)
    expect((refused.body as { detail: string }).detail).toMatch(sentence)
    expect((await read()).setups).toHaveLength(1)
    await t.store.close()
  })
  it('one can be removed and brought back, with its name; what was on the bike cannot', async () => {
    const { t, s, noted, read, keep } = await story()
    await keep(noted)
    const [, second] = noted.setups
    expect((await t.send('DELETE', `/setups/${second.id}`)).status).toBe(200)
    const left = await read()
    expect(left.setups.map((x) => x.id)).not.toContain(second.id)
    expect(left.kept.map((k) => k.id)).not.toContain(second.id)
    expect((await t.put(`/setups/${second.id}/restore`, undefined)).status).toBe(200)
    expect((await read()).setups).toHaveLength(4)
    expect((await read()).kept).toHaveLength(3)
    expect((await t.send('DELETE', `/setups/${s.setup.id}`)).status).toBe(409)
    await t.store.close()
  })
})
