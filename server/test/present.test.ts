import { v7 as uuid } from 'uuid'
import { afterEach, beforeEach, describe, expect, it } from 'vitest'
import type { SetupCard } from '#contract/card'
import type { DayBundle, Garage, ShelfItem } from '#contract/endpoints'
import type { Setup } from '#contract/setup'
import { changesMade, undoable } from '#core/setup/undo'
import { startApp, type TestApp } from './harness.ts'
import { makeReason, makeSetup, startStory } from './story.ts'

let t: TestApp
let s: Awaited<ReturnType<typeof startStory>>
beforeEach(async () => {
  t = await startApp()
  s = await startStory(t)
})
afterEach(() => t.store.close())

const garage = async () => (await t.get('/garage')).body as Garage
const bundle = async (id = s.day.id) => (await t.get(`/days/${id}`)).body as DayBundle
const onBike = async () => (await garage()).currentSetups.find((x) => x.bikeId === s.bike.id)!
const rebound = () => s.rear.adjusters[1].id
const at = (x: Setup) => x.positions.find((p) => p.adjusterId === rebound())?.value

/** The rear rebound turned, from a setup somebody sees. */
function turned(from: Setup, to: number, over: Partial<Setup> = {}): Setup {
  return {
    ...from,
    id: uuid(),
    parentId: from.id,
    dayId: s.day.id,
    positions: from.positions.map((p) => (p.adjusterId === rebound() ? { ...p, value: to } : p)),
    reason: makeReason('own-idea'),
    ...over,
  }
}
const save = (x: Setup) => t.put(`/setups/${x.id}`, x)

describe('what is on the bike now', () => {
  it('is not written over by a page that still shows an older setting', async () => {
    expect((await save(turned(s.setup, 7))).status).toBe(200)
    const late = turned(s.setup, 4)
    const refused = await save(late)
    expect(refused).toMatchObject({ status: 409, body: { code: 'setup.not-present' } })
    expect(at((refused.body as { current: Setup }).current)).toBe(7)
    expect(at(await onBike())).toBe(7)
    // Said again on what is there, it goes through.
    expect((await save(turned(await onBike(), 4))).status).toBe(200)
    expect(at(await onBike())).toBe(4)
  })
  it('of two windows that turn at once, one is kept and the other is told', async () => {
    const both = await Promise.all([save(turned(s.setup, 5)), save(turned(s.setup, 8))])
    expect(both.map((r) => r.status).sort()).toEqual([200, 409])
    expect(at(await onBike())).toBe(both[0].status === 200 ? 5 : 8)
  })
  it('is the same in garage and day, also after a bench', async () => {
    const fromBench = turned(s.setup, 3, { dayId: null, reason: makeReason('baseline') })
    await save(fromBench)
    const b = await bundle()
    expect(b.bike.currentSetupId).toBe(fromBench.id)
    expect(b.setups.some((x) => x.id === fromBench.id)).toBe(true)
  })
})

describe('a dial that is said to have fewer clicks than where it stands', () => {
  const unit = async () => (await garage()).units.find((u) => u.id === s.rear.id)!
  const withClicks = async (clicks: number) => {
    const u = await unit()
    const adjusters = u.adjusters.map((a) =>
      a.id === rebound() && a.kind === 'click' ? { ...a, clicks } : a,
    )
    expect((await t.put(`/units/${u.id}`, { ...u, adjusters })).status).toBe(200)
  }
  const shownOnDay = async () => {
    const b = await bundle()
    return at(b.setups.find((x) => x.id === b.bike.currentSetupId)!)
  }
  const onCard = async () => {
    const { units } = (await t.get(`/bikes/${s.bike.id}/card.json`)).body as SetupCard
    return units.find((u) => u.end === 'rear')!.dials.find((d) => d.role === 'rebound')!.value
  }
  it('is unread in the garage, on the day and on the card, and the rest can still be turned', async () => {
    await save(turned(s.setup, 9))
    expect(await onCard()).toBe(9)
    await withClicks(8)
    expect(at(await onBike())).toBeUndefined()
    expect(await shownOnDay()).toBeUndefined()
    expect(await onCard()).toBeNull()
    const here = await onBike()
    const other = here.positions.find((p) => p.end === 'front')!
    const next = {
      ...turned(here, 0),
      positions: here.positions.map((p) => (p === other ? { ...p, value: p.value + 1 } : p)),
    }
    expect(await save(next)).toMatchObject({ status: 200 })
    expect(at(await onBike())).toBeUndefined()
  })
  it('and shows again where it is written once the range is put right', async () => {
    await save(turned(s.setup, 9))
    await withClicks(8)
    await withClicks(12)
    expect(at(await onBike())).toBe(9)
    expect(await shownOnDay()).toBe(9)
  })
  it('and is read by a count that follows what was on the bike before it', async () => {
    const before = turned(s.setup, 9)
    await save(before)
    await withClicks(8)
    expect(await save(turned(before, 3, { dayId: null, reason: makeReason('reading') }))).toMatchObject({
      status: 200,
    })
    expect(at(await onBike())).toBe(3)
  })
})

describe('a past day', () => {
  const nextDay = async () => {
    const day = { ...s.day, id: uuid(), date: '2031-05-09', version: 0 }
    expect((await t.put(`/days/${day.id}`, day)).status).toBe(200)
    return day
  }
  it('never writes the present', async () => {
    const day = await nextDay()
    const tap = turned(s.setup, 11)
    expect((await save(tap)).body).toMatchObject({ code: 'day.past' })
    expect(at(await onBike())).toBe(6)
    expect((await bundle()).latest).toBe(false)
    expect((await bundle(day.id)).latest).toBe(true)
    expect((await save({ ...tap, dayId: day.id })).status).toBe(200)
  })
  it('is the last one again once the later day is removed', async () => {
    const day = await nextDay()
    await t.send('DELETE', `/days/${day.id}`)
    expect((await bundle()).latest).toBe(true)
    expect((await save(turned(s.setup, 9))).status).toBe(200)
  })
})

describe('a wanted setup', () => {
  const wanted = () => turned(s.setup, 10, { dayId: null, wanted: true, reason: makeReason('carried') })
  it('turns nothing until somebody says that the turns were made, and is a wish no more then', async () => {
    const wish = wanted()
    await save(wish)
    expect(at(await onBike())).toBe(6)
    expect((await garage()).wantedSetups.map((x) => x.id)).toEqual([wish.id])
    await save(
      turned(s.setup, 10, {
        dayId: null,
        reason: makeReason('carried', { linked: true, fromSetupId: wish.id }),
      }),
    )
    expect(at(await onBike())).toBe(10)
    expect((await garage()).wantedSetups).toEqual([])
    // Turned, not removed: it is not on the shelf.
    expect((await t.get('/shelf')).body).toEqual([])
  })
  it('can be removed and brought back; what was on the bike cannot', async () => {
    const wish = wanted()
    await save(wish)
    await t.send('DELETE', `/setups/${wish.id}`)
    expect((await garage()).wantedSetups).toEqual([])
    expect(((await t.get('/shelf')).body as ShelfItem[]).map((x) => x.kind)).toEqual(['setup'])
    await t.put(`/setups/${wish.id}/restore`, undefined)
    expect((await garage()).wantedSetups).toHaveLength(1)
    expect((await t.send('DELETE', `/setups/${s.setup.id}`)).body).toMatchObject({ code: 'setup.not-wanted' })
  })
  it('does not stand among the setups of a day, where it would count as a change', async () => {
    await save({ ...wanted(), dayId: s.day.id })
    expect(changesMade((await bundle()).setups, s.day.id)).toBe(0)
  })
})

describe('undo over the wire', () => {
  it('walks back one by one to where the day began, and does not flip', async () => {
    for (const to of [7, 8, 9]) await save(turned(await onBike(), to))
    const seen: number[] = []
    for (let i = 0; i < 6; i++) {
      const u = undoable((await bundle()).setups, s.day.id)
      if (!u) break
      const back = turned(await onBike(), at(u.before)!, {
        reason: makeReason('undo', { undoes: u.change.id }),
      })
      expect((await save(back)).status).toBe(200)
      seen.push(at(await onBike())!)
    }
    expect(seen).toEqual([8, 7, 6])
    expect(changesMade((await bundle()).setups, s.day.id)).toBe(0)
  })
})

describe('the shelf', () => {
  it('holds what was removed, long after the notice is gone, and gives it back', async () => {
    await t.send('DELETE', `/trails/${s.trail.id}`)
    await t.send('DELETE', `/runs/${s.run.id}`)
    const shelf = (await t.get('/shelf')).body as ShelfItem[]
    // A run goes by its time, which the page says on its own clock; what has a name goes by that.
    expect(shelf.find((x) => x.kind === 'run')).toMatchObject({ name: '', at: s.run.startedAt })
    expect(shelf.find((x) => x.kind === 'trail')).toMatchObject({ name: s.trail.name, at: null })
    expect(shelf.map((x) => [x.kind, x.id]).sort()).toEqual(
      [
        ['run', s.run.id],
        ['trail', s.trail.id],
      ].sort(),
    )
    expect(shelf.find((x) => x.kind === 'trail')!.name).toBe('Larch Bank')
    await t.put(`/trails/${s.trail.id}/restore`, undefined)
    expect((await garage()).trails).toHaveLength(1)
  })
  it('a rider goes with the bikes and comes back with them; the open day stays in sight', async () => {
    await t.send('DELETE', `/riders/${s.rider.id}`)
    let g = await garage()
    expect([g.riders, g.bikes]).toEqual([[], []])
    expect(((await t.get('/days')).body as { id: string }[]).map((d) => d.id)).toEqual([s.day.id])
    expect((await bundle()).rider.name).toBe(s.rider.name)
    await t.put(`/riders/${s.rider.id}/restore`, undefined)
    g = await garage()
    expect([g.riders.length, g.bikes.length]).toEqual([1, 1])
  })
  it('a bike brings its rider back; one removed on its own stays removed', async () => {
    const second = { ...s.bike, id: uuid(), name: 'Old bike' }
    await t.put(`/bikes/${second.id}`, second)
    await t.send('DELETE', `/bikes/${second.id}`)
    await t.send('DELETE', `/riders/${s.rider.id}`)
    await t.put(`/riders/${s.rider.id}/restore`, undefined)
    expect((await garage()).bikes.map((b) => b.name)).toEqual(['Trail bike'])
    await t.send('DELETE', `/riders/${s.rider.id}`)
    await t.put(`/bikes/${s.bike.id}/restore`, undefined)
    expect((await garage()).riders).toHaveLength(1)
  })
})

describe('how a number is known', () => {
  it('goes with it to the bike and back; what is not named is unread', async () => {
    const full = makeSetup(s.bike, [s.front, s.rear], { parentId: s.setup.id })
    const known = { ...full.positions[1].known, how: 'read' as const, by: 'Tarek', source: 'counted' }
    const setup = { ...full, positions: [{ ...full.positions[1], known }] }
    expect((await save(setup)).status).toBe(200)
    expect((await onBike()).positions).toEqual([{ ...full.positions[1], known }])
  })
  it('a record that does not say it passes for assumed, never for read', async () => {
    const { known: _, ...bare } = s.setup.positions[0]
    const setup = { ...makeSetup(s.bike, [s.front, s.rear], { parentId: s.setup.id }), positions: [bare] }
    await t.put(`/setups/${setup.id}`, setup)
    expect((await onBike()).positions[0].known).toMatchObject({ how: 'assumed', at: null })
  })
})
