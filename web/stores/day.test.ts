// @vitest-environment happy-dom
import { createPinia, setActivePinia } from 'pinia'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import type { DayBundle } from '#contract/endpoints'
import { advise } from '#core/adviser/advise'
import { historyOf, spaceOf } from '#core/adviser/history'
import { summarise } from '#core/adviser/summary'
import { makeRun, startApp, startStory, type TestApp } from '../../server/test/harness.ts'
import { readDraft } from '../support/drafts.ts'
import { useDay } from './day.ts'

// The worker's job on this thread, since there is no worker here; the server is the real one, without a socket.
vi.stubGlobal('Worker', class {})
vi.mock('comlink', () => ({
  wrap: () => async (b: DayBundle) => ({
    proposal: advise(historyOf(b), spaceOf(b.units, b.bike)),
    knowledge: summarise(historyOf(b), spaceOf(b.units, b.bike)),
  }),
}))

let t: TestApp
let story: Awaited<ReturnType<typeof startStory>>
let online = true
beforeEach(async () => {
  localStorage.clear()
  online = true
  t = await startApp()
  story = await startStory(t)
  vi.stubGlobal('fetch', (path: string, init?: RequestInit) =>
    online ? t.app.request(path, init) : Promise.reject(new TypeError('offline')),
  )
  setActivePinia(createPinia())
})
afterEach(() => t.store.close())

const open = async () => {
  const day = useDay()
  await day.load(story.day.id)
  await vi.waitFor(() => expect(day.proposal).not.toBeNull())
  return day
}
const held = async () => (await t.get(`/days/${story.day.id}`)).body as DayBundle
const rebound = () => story.rear.adjusters[1].id
const frontRebound = () => story.front.adjusters[1].id

describe('opening a day', () => {
  it('knows the present setup, the run to look at and what to do next', async () => {
    const day = await open()
    expect(day.currentSetup!.id).toBe(story.setup.id)
    expect(day.selectedRun!.id).toBe(story.run.id)
    expect(day.proposal!.kind).toBe('tell-the-feel')
    expect(day.unitAt('rear')!.id).toBe(story.rear.id)
  })
})

describe('dialling', () => {
  it('is only on the screen until it is said to be on the bike', async () => {
    const day = await open()
    day.dial(rebound(), 8)
    expect(day.pendingMoves.map((m) => [m.from, m.to])).toEqual([[6, 8]])
    expect((await held()).setups).toHaveLength(1)
    await day.applyPending('stiff', false)
    expect(day.pendingMoves).toEqual([])
    const b = await held()
    expect(b.setups).toHaveLength(2)
    expect(b.bike.currentSetupId).toBe(b.setups[1].id)
    expect(b.setups[1].reason).toMatchObject({ text: 'stiff', source: 'own-idea', linked: false })
  })
  it('back to where it stands is no change', async () => {
    const day = await open()
    day.dial(rebound(), 8)
    day.dial(rebound(), 6)
    expect(day.pending).toEqual({})
  })
  it('survives the page being closed', async () => {
    const day = await open()
    day.dial(rebound(), 9)
    await vi.waitFor(() => expect(readDraft(`pending:${story.day.id}`)).toEqual({ [rebound()]: 9 }))
    setActivePinia(createPinia())
    expect((await open()).pending).toEqual({ [rebound()]: 9 })
  })
  it('two at once are refused by the server too, and nothing is lost on the screen', async () => {
    const day = await open()
    day.dial(rebound(), 8)
    day.dial(frontRebound(), 8)
    await expect(day.applyPending('', false)).rejects.toThrow(/2 adjusters were moved/)
    expect(day.pendingMoves).toHaveLength(2)
    await day.applyPending('', true)
    expect((await held()).setups[1].reason.linked).toBe(true)
  })
  it('the last change can be taken back, as a change of its own', async () => {
    const day = await open()
    day.dial(rebound(), 8)
    await day.applyPending('', false)
    await day.backTo(story.setup.id, 'Undone')
    expect(day.positions.get(rebound())).toBe(6)
    expect((await held()).setups.map((s) => s.reason.source)).toEqual(['baseline', 'own-idea', 'revert'])
  })
})

describe('feel', () => {
  it('is shown at once, kept at once, and sent a moment later', async () => {
    const day = await open()
    day.editFeel({ ...day.feelOf(story.run.id), rating: 6 })
    expect(day.feelOf(story.run.id).rating).toBe(6)
    expect(readDraft(`feel:${story.run.id}`)).toMatchObject({ rating: 6 })
    await day.flushFeel()
    expect(day.saving).toBe('saved')
    expect(readDraft(`feel:${story.run.id}`)).toBeNull()
    expect((await held()).feels[0]).toMatchObject({ rating: 6, version: 1 })
  })
  it('typed without a connection stays here, and goes out when there is one', async () => {
    const day = await open()
    online = false
    day.editFeel({ ...day.feelOf(story.run.id), note: 'mushy' })
    await day.flushFeel()
    expect(day.saving).toBe('kept-here')
    expect(readDraft(`feel:${story.run.id}`)).toMatchObject({ note: 'mushy' })
    online = true
    await day.flushFeel()
    expect((await held()).feels[0].note).toBe('mushy')
  })
  it('changed elsewhere meanwhile is a question, never an overwrite', async () => {
    const day = await open()
    await t.put(`/runs/${story.run.id}/feel`, {
      runId: story.run.id,
      version: 0,
      rating: 3,
      marks: [],
      verdicts: [],
      note: 'theirs',
    })
    day.editFeel({ ...day.feelOf(story.run.id), note: 'mine' })
    await day.flushFeel()
    expect(day.conflict).toMatchObject({ mine: { note: 'mine' }, theirs: { note: 'theirs' } })
    expect((await held()).feels[0].note).toBe('theirs')
    day.settleConflict('mine')
    await day.flushFeel()
    expect((await held()).feels[0]).toMatchObject({ note: 'mine', version: 2 })
  })
  it('a draft from before the server moved on is asked about after a reload, not dropped', async () => {
    const day = await open()
    online = false
    day.editFeel({ ...day.feelOf(story.run.id), note: 'mine' })
    await day.flushFeel()
    await t.put(`/runs/${story.run.id}/feel`, {
      runId: story.run.id,
      version: 0,
      rating: 3,
      marks: [],
      verdicts: [],
      note: 'theirs',
    })
    online = true
    setActivePinia(createPinia())
    const again = await open()
    expect(again.conflict).toMatchObject({ mine: { note: 'mine' }, theirs: { note: 'theirs' } })
    expect(readDraft(`feel:${story.run.id}`)).toMatchObject({ note: 'mine' })
  })
  it('a draft whose save arrived but whose answer was lost is just put away', async () => {
    const day = await open()
    online = false
    day.editFeel({ ...day.feelOf(story.run.id), note: 'same' })
    await day.flushFeel()
    await t.put(`/runs/${story.run.id}/feel`, { ...day.feelOf(story.run.id), version: 0 })
    online = true
    setActivePinia(createPinia())
    const again = await open()
    expect(again.conflict).toBeNull()
    expect(readDraft(`feel:${story.run.id}`)).toBeNull()
  })
  it('a draft found at opening is tried again until it goes through', async () => {
    const day = await open()
    online = false
    day.editFeel({ ...day.feelOf(story.run.id), note: 'late' })
    await day.flushFeel()
    online = true
    setActivePinia(createPinia())
    const again = await open()
    await again.flushFeel()
    expect((await held()).feels[0].note).toBe('late')
  })
  it('theirs can be taken', async () => {
    const day = await open()
    await t.put(`/runs/${story.run.id}/feel`, {
      runId: story.run.id,
      version: 0,
      rating: 3,
      marks: [],
      verdicts: [],
      note: 'theirs',
    })
    day.editFeel({ ...day.feelOf(story.run.id), note: 'mine' })
    await day.flushFeel()
    day.settleConflict('theirs')
    expect(day.feelOf(story.run.id).note).toBe('theirs')
    expect(readDraft(`feel:${story.run.id}`)).toBeNull()
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
    await day.flushFeel()
    await vi.waitFor(() => expect(day.proposal!.kind).toBe('change'))
    const [move] = day.proposal!.moves
    expect(move.to).toBeLessThan(move.from)
    await day.doProposal(day.proposal!)
    const b = await held()
    expect(b.proposals).toHaveLength(1)
    expect(b.proposals[0]).toMatchObject({ decision: 'done', afterRunId: story.run.id })
    expect(b.setups[1].reason).toMatchObject({ source: 'proposal', proposalId: b.proposals[0].id })
    expect(move.adjusterId).toBe(rebound())
    expect(b.setups[1].positions.find((p) => p.adjusterId === rebound())!.value).toBe(move.to)
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
  it('are numbered along the day, taken off and brought back', async () => {
    const day = await open()
    const second = await day.saveRun(
      makeRun(story.day, story.setup.id, { startedAt: '2031-05-02T09:30:00.000Z' }),
    )
    expect(day.runNumber(second.id)).toBe(2)
    expect(day.selectedRun!.id).toBe(second.id)
    await day.removeRun(second.id)
    expect(day.bundle!.runs).toHaveLength(1)
    await day.restoreRun(second.id)
    expect(day.bundle!.runs).toHaveLength(2)
  })
})
