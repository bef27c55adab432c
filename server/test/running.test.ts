import { describe, expect, it } from 'vitest'
import { WriteQueue } from '../db/writeQueue.ts'
import type { Store } from '../db/open.ts'
import { Running } from '../running.ts'

/** An application that says which of its data files it is on, and is as slow as it is told to be. */
function running() {
  const opened: string[] = []
  const closed: string[] = []
  let slow: Promise<void> = Promise.resolve()
  const start = Running.start(async () => {
    const name = `file ${opened.length + 1}`
    opened.push(name)
    const store = { writes: new WriteQueue(), close: async () => void closed.push(name) }
    return {
      store: store as unknown as Store,
      fetch: async () => {
        await slow
        return new Response(name)
      },
    }
  })
  return { start, opened, closed, beSlow: (until: Promise<void>) => void (slow = until) }
}
const ask = async (r: Running) => {
  const answer = await r.fetch(new Request('http://localhost/'))
  return { status: answer.status, text: await answer.text() }
}
const gate = () => {
  let open = () => {}
  return { shut: new Promise<void>((resolve) => (open = resolve)), open: () => open() }
}

describe('the data file exchanged under a running application', () => {
  it('what is under way ends first; what is asked meanwhile is told to come again; then the new one answers', async () => {
    const { start, opened, closed, beSlow } = running()
    const r = await start
    const { shut, open } = gate()
    beSlow(shut)
    const underWay = ask(r)
    const log: string[] = []
    const exchanged = r.exchange(async () => void log.push(`replaced after ${closed.join()} was closed`), 0)
    expect(await ask(r)).toMatchObject({
      status: 503,
      text: expect.stringContaining('storage.exchanged') as string,
    })
    expect(closed).toEqual([])
    open()
    expect(await underWay).toEqual({ status: 200, text: 'file 1' })
    await exchanged
    expect(log).toEqual(['replaced after file 1 was closed'])
    expect(await ask(r)).toEqual({ status: 200, text: 'file 2' })
    expect(opened).toEqual(['file 1', 'file 2'])
  })
  it('when it cannot be replaced, what is there is opened again, and the reason is told', async () => {
    const { start } = running()
    const r = await start
    await expect(r.exchange(() => Promise.reject(new Error('not sound')), 0)).rejects.toThrow('not sound')
    expect((await ask(r)).status).toBe(200)
  })
  it('two at once are one, and a refusal', async () => {
    const { start } = running()
    const r = await start
    const { shut, open } = gate()
    const first = r.exchange(() => shut, 0)
    await expect(r.exchange(async () => {}, 0)).rejects.toMatchObject({ code: 'storage.busy' })
    open()
    await first
    expect((await ask(r)).status).toBe(200)
  })
  it('a request that asks for it does not wait for itself', async () => {
    const { start, beSlow } = running()
    const r = await start
    const { shut, open } = gate()
    beSlow(shut)
    const own = ask(r)
    let isDone = false
    await r.exchange(async () => void (isDone = true), 1)
    expect(isDone).toBe(true)
    open()
    expect((await own).status).toBe(200)
  })
})
