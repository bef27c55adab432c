// @vitest-environment happy-dom
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import type { DayBundle } from '#contract/endpoints'
import type { Feel } from '#contract/run'
import { advise } from '#core/adviser/advise'
import { historyOf, spaceOf } from '#core/adviser/history'
import { knownSagPct } from '#core/setup/sagOf'
import { summarise } from '#core/adviser/summary'
import { startApp, type TestApp } from '../../server/test/harness.ts'
import { makeReason, makeRun, startStory } from '../../server/test/story.ts'
import { cache, applyLive } from '../api/cache.ts'
import type { Outbox } from '../api/outbox.ts'
import { memoryShelf } from '../api/shelves.ts'
import { readDraft } from '../support/drafts.ts'
import { openPage, quiet } from '../test/office.ts'
import { useDay } from './day.ts'
import { emptyFeel } from '#core/setup/nothingNoted'
import { useGarage } from './garage.ts'
import { useOutbox } from './outbox.ts'

/** Days that were judged, and whether the judge is to fail. */
let judged = 0
let broken = false
/** Days that were learnt from, each time. */
const learntFrom: string[][] = []
// The worker's job on this thread, since there is no worker here; the server is the real one, without a socket.
vi.stubGlobal('Worker', class {})
vi.mock('comlink', () => ({
  wrap: () => ({
    judge: async (b: DayBundle) => {
      judged++
      if (broken) throw new Error('out of order')
      return {
        proposal: advise(historyOf(b), spaceOf(b.units, b.bike)),
        knowledge: summarise(historyOf(b), spaceOf(b.units, b.bike)),
      }
    },
    learn: async (earlier: DayBundle[]) => {
      learntFrom.push(earlier.map((b) => b.day.id))
      return []
    },
  }),
}))

let t: TestApp
let story: Awaited<ReturnType<typeof startStory>>
let outbox: Outbox
let online = true
beforeEach(async () => {
  localStorage.clear()
  online = true
  broken = false
  t = await startApp()
  story = await startStory(t)
  vi.stubGlobal('fetch', (path: string, init?: RequestInit) =>
    online ? t.app.request(path, init) : Promise.reject(new TypeError('offline')),
  )
  outbox = await openPage()
})
afterEach(async () => {
  online = true
  await quiet(outbox)
  await t.store.close()
})

const open = async () => {
  const day = useDay()
  await day.load(story.day.id)
  await vi.waitFor(() => expect(day.proposal).not.toBeNull())
  judged = 0
  return day
}
const held = async () => (await t.get(`/days/${story.day.id}`)).body as DayBundle
const rebound = () => story.rear.adjusters[1].id
const frontRebound = () => story.front.adjusters[1].id
const at = (b: DayBundle) =>
  b.setups.find((s) => s.id === b.bike.currentSetupId)!.positions.find((p) => p.adjusterId === rebound())!
    .value
/** Somebody else turns the rear rebound, on another device. */
async function elsewhere(to: number) {
  const b = await held()
  const now = b.setups.find((s) => s.id === b.bike.currentSetupId)!
  const setup = {
    ...now,
    id: crypto.randomUUID(),
    parentId: now.id,
    dayId: story.day.id,
    positions: now.positions.map((p) => (p.adjusterId === rebound() ? { ...p, value: to } : p)),
    reason: makeReason('own-idea'),
  }
  expect((await t.put(`/setups/${setup.id}`, setup)).status).toBe(200)
}

describe('opening a day', () => {
  it('knows the present setup, the run to look at and what to do next', async () => {
    const day = await open()
    expect(day.currentSetup!.id).toBe(story.setup.id)
    expect(day.selectedRun!.id).toBe(story.run.id)
    expect(day.proposal!.kind).toBe('tell-the-feel')
    expect(day.unitAt('rear')!.id).toBe(story.rear.id)
    expect(day.past).toBe(false)
  })
  it('is judged once per change of what matters, not per letter of a note', async () => {
    const day = await open()
    day.editFeel({ ...day.feelOf(story.run.id), rating: 6 })
    await quiet(outbox)
    await vi.waitFor(() => expect(judged).toBe(1))
    for (const note of ['m', 'mu', 'mus', 'mush']) day.editFeel({ ...day.feelOf(story.run.id), note })
    await quiet(outbox)
    applyLive(cache, { type: 'feel', dayId: story.day.id, feel: (await held()).feels[0] })
    await quiet(outbox)
    expect(judged).toBe(1)
  })
  it('a judge that fails is said, and the day stays usable', async () => {
    const day = await open()
    broken = true
    day.editFeel({ ...day.feelOf(story.run.id), rating: 6 })
    await vi.waitFor(() => expect(day.judgeFault).toMatch(/could not be worked out/))
    broken = false
    day.editFeel({ ...day.feelOf(story.run.id), rating: 7 })
    await vi.waitFor(() => expect(day.proposal).not.toBeNull())
    expect(day.judgeFault).toBe('')
  })
})

describe('the log by the hour', () => {
  const [mine, theirs] = [crypto.randomUUID(), crypto.randomUUID()]
  const line = (id: string, airTempC: number) => ({
    id,
    at: '2031-04-02T10:00:00.000Z',
    airTempC,
    altitudeM: null,
    surface: null,
    track: [],
    note: '',
  })
  it('a line is kept with its day, and the air of now is what it says', async () => {
    const day = await open()
    await day.editHours((hours) => [...hours, line(mine, 27)])
    expect((await held()).day.hours).toEqual([line(mine, 27)])
    expect(day.air.airTempC).toBe(27)
  })
  it('a line that another device added meanwhile stays beside it, and so does what else was changed', async () => {
    const day = await open()
    const { version, ...of } = (await held()).day
    await t.put(`/days/${of.id}`, { ...of, version, hours: [line(theirs, 24)], note: 'windy' })
    await day.editHours((hours) => [...hours, line(mine, 27)])
    const now = (await held()).day
    expect(now.hours.map((h) => h.id)).toEqual([theirs, mine])
    expect(now.note).toBe('windy')
  })
  it('what is refused changes nothing, and says why', async () => {
    const day = await open()
    await expect(day.editHours((hours) => [...hours, line(mine, 81)])).rejects.toThrow(/°F/)
    expect((await held()).day.hours).toEqual([])
  })
  it('of the tent that the day is in comes with the day, and a line that waits to be sent too', async () => {
    const day = await open()
    const tent = { id: crypto.randomUUID(), version: 0, name: 'Practice', date: story.day.date }
    await t.put(`/tents/${tent.id}`, { ...tent, trailId: story.trail.id, schedule: [], note: '' })
    await t.put(`/tent-riders/${story.day.id}`, {
      id: story.day.id,
      version: 0,
      tentId: tent.id,
      number: 1,
      whereabouts: 'here',
      since: '2031-04-02T08:00:00.000Z',
      temper: 'reasons',
      named: false,
    })
    applyLive(cache, { type: 'stale', what: 'day', id: story.day.id })
    await vi.waitFor(() => expect(day.bundle!.tent?.id).toBe(tent.id))
    online = false
    const hour = { ...line(crypto.randomUUID(), 31), version: 0, tentId: tent.id }
    await useOutbox().save('tentHour', hour)
    await vi.waitFor(() => expect(day.air.airTempC).toBe(31))
    const elsewhere = { ...line(crypto.randomUUID(), 5), version: 0, tentId: crypto.randomUUID() }
    await useOutbox().save('tentHour', elsewhere)
    expect(day.air.airTempC).toBe(31)
  })
})

describe('choosing on the rails', () => {
  it('is only on the screen until it is said to be on the bike', async () => {
    const day = await open()
    day.choose(rebound(), 8)
    expect(day.pendingMoves.map((m) => [m.from, m.to])).toEqual([[6, 8]])
    expect((await held()).setups).toHaveLength(1)
    const done = await day.applyPending('stiff', false)
    expect(done.moves.map((m) => [m.from, m.to])).toEqual([[6, 8]])
    expect(day.pendingMoves).toEqual([])
    const b = await held()
    expect(b.setups).toHaveLength(2)
    expect(b.bike.currentSetupId).toBe(b.setups[1].id)
    expect(b.setups[1].reason).toMatchObject({ text: 'stiff', source: 'own-idea', linked: false })
  })
  it('back to where it stands is no change', async () => {
    const day = await open()
    day.choose(rebound(), 8)
    day.choose(rebound(), 6)
    expect(day.pending).toEqual({})
  })
  it('survives the page being closed', async () => {
    const day = await open()
    day.choose(rebound(), 9)
    await vi.waitFor(() => expect(readDraft(`pending:${story.day.id}`)).toEqual({ [rebound()]: 9 }))
    outbox = await openPage()
    expect((await open()).pending).toEqual({ [rebound()]: 9 })
  })
  it('two at once without saying that they belong together are refused, and told with the sentence', async () => {
    const day = await open()
    day.choose(rebound(), 8)
    day.choose(frontRebound(), 8)
    await day.applyPending('', false)
    expect(useOutbox().refused[0].problem!.detail).toMatch(/2 adjusters were moved/)
    expect((await held()).setups).toHaveLength(1)
    expect(day.positions.get(rebound())).toBe(6)
  })
  it('a dial nobody has read is read, not turned, and counts as no change', async () => {
    const bare = { ...story.setup, id: crypto.randomUUID(), parentId: story.setup.id }
    bare.positions = bare.positions.filter((p) => p.adjusterId !== rebound())
    await t.put(`/setups/${bare.id}`, bare)
    const day = await open()
    expect(day.positions.has(rebound())).toBe(false)
    day.choose(rebound(), 9)
    expect(day.pendingMoves).toEqual([])
    expect(day.pendingReadings.map((r) => r.value)).toEqual([9])
    await day.applyPending('', false)
    const b = await held()
    const now = b.setups.find((s) => s.id === b.bike.currentSetupId)!
    expect(now.reason.source).toBe('reading')
    expect(now.positions.find((p) => p.adjusterId === rebound())).toMatchObject({
      value: 9,
      known: { how: 'read', airTempC: 14 },
    })
    expect([day.changes, day.undo]).toEqual([0, null])
  })
})

describe('undo', () => {
  it('walks back change by change, says what it will do, and counts as nothing', async () => {
    const day = await open()
    for (const to of [7, 8]) {
      day.choose(rebound(), to)
      await day.applyPending('', false)
    }
    expect(day.changes).toBe(2)
    expect(day.undo!.moves.map((m) => [m.from, m.to])).toEqual([[8, 7]])
    expect((await day.undoLast())!.moves.map((m) => [m.from, m.to])).toEqual([[8, 7]])
    expect(day.undo!.moves.map((m) => [m.from, m.to])).toEqual([[7, 6]])
    await day.undoLast()
    expect([day.positions.get(rebound()), day.undo, day.changes]).toEqual([6, null, 0])
    expect(await day.undoLast()).toBeNull()
    expect(at(await held())).toBe(6)
  })
  it('gives a dial back the way it was known', async () => {
    const day = await open()
    const before = day.held.get(rebound())!
    day.choose(rebound(), 8)
    await day.applyPending('', false)
    await day.undoLast()
    expect(day.held.get(rebound())).toEqual(before)
  })
})

describe('going back to earlier settings', () => {
  it('turns what is known now; a dial that is unread since is not recorded as set', async () => {
    const b = await held()
    const now = b.setups.find((s) => s.id === b.bike.currentSetupId)!
    const unread = {
      ...now,
      id: crypto.randomUUID(),
      parentId: now.id,
      dayId: story.day.id,
      positions: now.positions
        .filter((p) => p.adjusterId !== rebound())
        .map((p) => (p.adjusterId === frontRebound() ? { ...p, value: 9 } : p)),
      reason: makeReason('own-idea'),
    }
    expect((await t.put(`/setups/${unread.id}`, unread)).status).toBe(200)
    const day = await open()
    const done = await day.backTo(story.setup.id, 'Back to run 1')
    expect(done.moves.map((m) => [m.adjuster.id, m.from, m.to])).toEqual([[frontRebound(), 9, 6]])
    await quiet(outbox)
    const after = await held()
    const present = after.setups.find((s) => s.id === after.bike.currentSetupId)!
    expect(present.positions.some((p) => p.adjusterId === rebound())).toBe(false)
    expect(present.reason).toMatchObject({ source: 'revert', fromSetupId: story.setup.id })
  })
})

describe('the bike, changed elsewhere', () => {
  it('is seen by the garage of every window as it happens', async () => {
    await useGarage().load()
    const day = await open()
    await elsewhere(9)
    const b = await held()
    const setup = b.setups.find((s) => s.id === b.bike.currentSetupId)!
    applyLive(cache, { type: 'setup', setup })
    await vi.waitFor(() => expect(day.positions.get(rebound())).toBe(9))
    expect(useGarage().currentSetup(story.bike.id)!.id).toBe(setup.id)
    expect(useGarage().bike(story.bike.id)!.currentSetupId).toBe(setup.id)
  })
  it('a turn that met it is put to the person; on top of it, only what was turned moves', async () => {
    const day = await open()
    await elsewhere(9)
    day.choose(frontRebound(), 4)
    await day.applyPending('', false)
    expect(at(await held())).toBe(9)
    expect(day.overtaken!.moves.map((m) => [m.from, m.to])).toEqual([[6, 4]])
    await day.settleOvertaken('mine')
    await quiet(outbox)
    const b = await held()
    const now = new Map(
      b.setups.find((s) => s.id === b.bike.currentSetupId)!.positions.map((p) => [p.adjusterId, p.value]),
    )
    expect([now.get(rebound()), now.get(frontRebound())]).toEqual([9, 4])
  })
  it('given up, it leaves the bike as the other one left it', async () => {
    const day = await open()
    await elsewhere(9)
    day.choose(frontRebound(), 4)
    await day.applyPending('', false)
    await day.settleOvertaken('theirs')
    expect(day.overtaken).toBeNull()
    await vi.waitFor(() => expect(day.positions.get(rebound())).toBe(9))
    expect(day.positions.get(frontRebound())).toBe(6)
  })
  it('a live event that comes while a save is under way is not lost', async () => {
    const day = await open()
    day.editFeel({ ...day.feelOf(story.run.id), rating: 6 })
    await elsewhere(9)
    const b = await held()
    applyLive(cache, { type: 'setup', setup: b.setups.find((s) => s.id === b.bike.currentSetupId)! })
    await quiet(outbox)
    expect(day.positions.get(rebound())).toBe(9)
    expect((await held()).feels[0].rating).toBe(6)
  })
})

describe('a past day', () => {
  it('is known as one, shows its own end, and cannot be undone', async () => {
    const day = await open()
    day.choose(rebound(), 8)
    await day.applyPending('', false)
    const next = { ...story.day, id: crypto.randomUUID(), date: '2031-06-02', version: 0 }
    await t.put(`/days/${next.id}`, next)
    await elsewhere(11).catch(() => undefined)
    await day.load(story.day.id)
    expect([day.past, day.undo]).toEqual([true, null])
    expect(day.positions.get(rebound())).toBe(8)
  })
})

describe('feel', () => {
  it('is shown at once and sent a moment later', async () => {
    const day = await open()
    day.editFeel({ ...day.feelOf(story.run.id), rating: 6 })
    await vi.waitFor(() => expect(day.feelOf(story.run.id).rating).toBe(6))
    await quiet(outbox)
    expect(useOutbox().saving).toBe('saved')
    expect((await held()).feels[0]).toMatchObject({ rating: 6, version: 1 })
  })
  it('typed without a connection stays here, and goes out when there is one', async () => {
    const day = await open()
    online = false
    day.editFeel({ ...day.feelOf(story.run.id), note: 'mushy' })
    await quiet(outbox)
    // In memory only here, and said so: this test's browser keeps nothing.
    expect(useOutbox().saving).toBe('not-kept')
    online = true
    await outbox.flush()
    expect((await held()).feels[0].note).toBe('mushy')
  })
  const theirs = (note = 'theirs'): Feel => ({
    runId: story.run.id,
    version: 0,
    rating: 3,
    marks: [],
    verdicts: [],
    answers: [],
    note,
  })
  it.each(['mine', 'theirs'] as const)(
    'changed elsewhere meanwhile is a question, never an overwrite: %s',
    async (which) => {
      const day = await open()
      await t.put(`/runs/${story.run.id}/feel`, theirs())
      day.editFeel({ ...day.feelOf(story.run.id), note: 'mine' })
      await vi.waitFor(() => expect(day.conflict).not.toBeNull())
      expect(day.conflict).toMatchObject({ mine: { note: 'mine' }, theirs: { note: 'theirs' } })
      expect((await held()).feels[0].note).toBe('theirs')
      await day.settleConflict(which)
      await quiet(outbox)
      expect((await held()).feels[0]).toMatchObject({ note: which, version: which === 'mine' ? 2 : 1 })
      await day.load(story.day.id)
      expect(day.feelOf(story.run.id).note).toBe(which)
    },
  )
  it('a rating here and a word there go together, and nobody is asked', async () => {
    const day = await open()
    const word = {
      id: crypto.randomUUID(),
      word: 'kicks',
      sectionId: null,
      end: 'rear',
      strength: 2,
    } as const
    await t.put(`/runs/${story.run.id}/feel`, { ...theirs(), rating: null, marks: [word] })
    day.editFeel({ ...day.feelOf(story.run.id), rating: 4 })
    day.editFeel({ ...day.feelOf(story.run.id), rating: 6 })
    await quiet(outbox)
    expect(useOutbox().letters).toEqual([])
    expect((await held()).feels[0]).toMatchObject({ rating: 6, note: 'theirs', marks: [word], version: 2 })
  })
  it.each(['mine', 'theirs'] as const)('of what differs %s holds, of the rest both', async (which) => {
    const day = await open()
    await t.put(`/runs/${story.run.id}/feel`, { ...theirs(), rating: null })
    day.editFeel({ ...day.feelOf(story.run.id), note: 'mine', rating: 6 })
    await vi.waitFor(() => expect(day.conflict).not.toBeNull())
    expect(day.conflict!.differences).toEqual(['note: “mine” here, “theirs” there'])
    await day.settleConflict(which)
    await quiet(outbox)
    expect((await held()).feels[0]).toMatchObject({ note: which, rating: 6, version: 2 })
    expect(useOutbox().letters).toEqual([])
  })
  it('said out of reach, in two goes, what others said meanwhile stays', async () => {
    const day = await open()
    online = false
    day.editFeel({ ...day.feelOf(story.run.id), rating: 4 })
    await quiet(outbox)
    await t.put(`/runs/${story.run.id}/feel`, { ...theirs(), rating: null })
    day.editFeel({ ...day.feelOf(story.run.id), rating: 5 })
    await quiet(outbox)
    online = true
    await outbox.flush()
    await quiet(outbox)
    expect((await held()).feels[0]).toMatchObject({ rating: 5, note: 'theirs' })
    await t.put(`/runs/${story.run.id}/feel`, { ...(await held()).feels[0], note: 'theirs again' })
    day.editFeel({ ...day.feelOf(story.run.id), rating: 6 })
    await quiet(outbox)
    expect((await held()).feels[0]).toMatchObject({ rating: 6, note: 'theirs again' })
  })
  it('written before a reload and overtaken meanwhile is asked about, not dropped', async () => {
    const shelf = memoryShelf()
    outbox = await openPage(shelf)
    const day = await open()
    online = false
    day.editFeel({ ...day.feelOf(story.run.id), note: 'mine' })
    await quiet(outbox)
    await t.put(`/runs/${story.run.id}/feel`, theirs())
    online = true
    await outbox.close()
    outbox = await openPage(shelf)
    const again = await open()
    await vi.waitFor(() => expect(again.conflict).not.toBeNull())
    expect(again.conflict).toMatchObject({ mine: { note: 'mine' }, theirs: { note: 'theirs' } })
  })
  it('a mark in a section that is gone is told with its reason and not tried for ever', async () => {
    const day = await open()
    day.editFeel({
      ...day.feelOf(story.run.id),
      marks: [{ id: story.run.id, word: 'pogo', sectionId: crypto.randomUUID(), end: 'rear', strength: 2 }],
    })
    await vi.waitFor(() => expect(useOutbox().refused).toHaveLength(1))
    expect(useOutbox().refused[0].problem!.detail).toMatch(/section that the trail does not have any more/)
  })
})

describe('what was proposed', () => {
  it('is kept with what was done, and the change names it', async () => {
    const day = await open()
    day.editFeel({
      ...day.feelOf(story.run.id),
      rating: 5,
      marks: [{ id: story.run.id, word: 'pogo', sectionId: null, end: 'rear', strength: 3 }],
    })
    await quiet(outbox)
    await vi.waitFor(() => expect(day.proposal!.kind).toBe('change'))
    const [move] = day.proposal!.moves
    expect(move.to).toBeLessThan(move.from)
    await day.doProposal(day.proposal!)
    await quiet(outbox)
    const b = await held()
    expect(b.proposals).toHaveLength(1)
    expect(b.proposals[0]).toMatchObject({ decision: 'done', afterRunId: story.run.id })
    expect(b.setups[1].reason).toMatchObject({ source: 'proposal', proposalId: b.proposals[0].id })
    expect(move.adjusterId).toBe(rebound())
    expect(at(b)).toBe(move.to)
  })
  it('a sag reading is taken back as a slip: nothing is turned, and nothing counts as a change', async () => {
    const day = await open()
    const { after } = await day.readSag('rear', 12)
    await quiet(outbox)
    await day.unreadSag(after)
    await quiet(outbox)
    const b = await held()
    expect(b.setups.at(-1)!.reason).toMatchObject({ source: 'undo', undoes: after.id })
    expect(knownSagPct(b.setups, b.setups.at(-1)!, story.rear)).toBeNull()
    expect([day.changes, day.undo]).toEqual([0, null])
  })
  it('settling silences the day, opening it brings it back', async () => {
    const day = await open()
    await day.settle(story.setup.id)
    await vi.waitFor(() => expect(day.proposal!.headline).toMatch(/^Settled/))
    await day.settle(null)
    await vi.waitFor(() => expect(day.proposal!.kind).toBe('tell-the-feel'))
  })
})

describe('runs', () => {
  it('are numbered along the day, removed and brought back', async () => {
    const day = await open()
    const second = await day.saveRun(
      makeRun(story.day, story.setup.id, { startedAt: '2031-05-02T09:30:00.000Z' }),
    )
    await vi.waitFor(() => expect(day.runNumber(second.id)).toBe(2))
    expect(day.selectedRun!.id).toBe(second.id)
    await day.removeRun(second.id)
    await vi.waitFor(() => expect(day.bundle!.runs).toHaveLength(1))
    await day.restoreRun(second.id)
    await vi.waitFor(() => expect(day.bundle!.runs).toHaveLength(2))
  })
  it('logged while the answer is lost: kept once, and the next run can be logged', async () => {
    const day = await open()
    let lose = true
    vi.stubGlobal('fetch', async (path: string, init?: RequestInit) => {
      const answer = await t.app.request(path, init)
      if (lose && String(path).includes('/runs/') && init?.method === 'PUT') {
        lose = false
        throw new TypeError('connection reset')
      }
      return answer
    })
    const second = makeRun(story.day, story.setup.id, { startedAt: '2031-05-02T09:30:00.000Z' })
    await day.saveRun(second)
    await quiet(outbox)
    await outbox.flush()
    await quiet(outbox)
    await day.saveRun(makeRun(story.day, story.setup.id, { startedAt: '2031-05-02T09:50:00.000Z' }))
    await quiet(outbox)
    expect((await held()).runs).toHaveLength(3)
    expect(useOutbox().letters).toEqual([])
  })
})

describe('earlier days', () => {
  const before = async () => {
    const earlier = { ...story.day, id: crypto.randomUUID(), version: 0, date: '2031-04-01' }
    await t.put(`/days/${earlier.id}`, earlier)
    const run = makeRun(earlier, story.setup.id)
    await t.put(`/runs/${run.id}`, run)
    return { earlier, run }
  }
  const lessons = () => learntFrom.splice(0)
  it('are learnt from once, not at every judging', async () => {
    const { earlier } = await before()
    lessons()
    const day = await open()
    day.editFeel({ ...day.feelOf(story.run.id), rating: 6 })
    await quiet(outbox)
    await vi.waitFor(() => expect(judged).toBe(1))
    expect(lessons()).toEqual([[earlier.id]])
  })
  it('are learnt from anew when somebody changes one of them', async () => {
    const { earlier, run } = await before()
    await open()
    lessons()
    const feel = { ...emptyFeel(run.id), rating: 8 }
    await t.put(`/runs/${run.id}/feel`, feel)
    applyLive(cache, { type: 'feel', dayId: earlier.id, feel: { ...feel, version: 1 } })
    await vi.waitFor(() => expect(lessons()).toEqual([[earlier.id]]))
  })
  it('are left out of a day that is judged on its own', async () => {
    await before()
    await t.put(`/days/${story.day.id}`, { ...story.day, version: 1, judgedAlone: true })
    lessons()
    const day = await open()
    expect(day.proposal!.kind).toBe('tell-the-feel')
    expect(lessons()).toEqual([])
  })
  it('that cannot be had are said, and the day is judged without them', async () => {
    vi.stubGlobal('fetch', (path: string, init?: RequestInit) =>
      String(path).endsWith('/earlier') ? Promise.reject(new TypeError('reset')) : t.app.request(path, init),
    )
    const day = await open()
    expect(day.earlierFailed).toBe(true)
    expect(day.proposal).not.toBeNull()
  })
})
