import { QueryClient } from '@tanstack/vue-query'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import { toldHeader } from '#contract/live'
import type { endpoints as Endpoints } from '#contract/endpoints'
import { cache, hear, lay, readMissed, reads } from './cache.ts'

/** A server that numbers what it tells, and whose answers can be held back on their way. */
const asked = vi.fn()
let told = 100
let onTheWay: (() => Promise<void>) | null = null
const list = (name: string) => [{ name }]
let days: unknown[] = []
vi.stubGlobal('fetch', async (address: string) => {
  asked(address)
  const answer = Response.json(days, { headers: { [toldHeader]: String(told) } })
  await onTheWay?.()
  return answer
})
vi.mock('#contract/endpoints', async (original) => {
  const real = await original<{ endpoints: typeof Endpoints }>()
  const { z } = await import('zod')
  return {
    ...real,
    endpoints: { ...real.endpoints, listDays: { ...real.endpoints.listDays, reply: z.any() } },
  }
})

const fresh = () => new QueryClient({ defaultOptions: { queries: { staleTime: Infinity, retry: false } } })

describe('reading while things change', () => {
  beforeEach(() => {
    asked.mockClear()
    told = 100
    onTheWay = null
    days = list('as it was')
    hear(100)
  })
  const read = (client: QueryClient) => client.fetchQuery<unknown>(reads.days())

  it('asks once when nothing was told meanwhile', async () => {
    expect(await read(fresh())).toEqual(list('as it was'))
    expect(asked).toHaveBeenCalledTimes(1)
  })
  it('asks again when its answer was overtaken by what was told', async () => {
    onTheWay = async () => {
      onTheWay = null
      told = 101
      days = list('changed')
      hear(101)
    }
    expect(await read(fresh())).toEqual(list('changed'))
    expect(asked).toHaveBeenCalledTimes(2)
  })
  it('takes an answer that already holds what the stream has still to tell', async () => {
    told = 105
    expect(await read(fresh())).toEqual(list('as it was'))
    expect(asked).toHaveBeenCalledTimes(1)
  })
  it('does not ask for ever where somebody changes things without a pause', async () => {
    onTheWay = async () => hear(++told)
    await read(fresh())
    expect(asked.mock.calls.length).toBeGreaterThan(1)
    expect(asked.mock.calls.length).toBeLessThan(10)
  })
  it('shows the last of many overtaken answers, and reads again once it is quieter: nothing told is lost for good', async () => {
    // What the test before left to be read again is asked for by then.
    await new Promise((r) => setTimeout(r, 1100))
    onTheWay = async () => {
      hear(++told)
      // What was told last is in no answer yet.
      if (told < 110) return
      onTheWay = null
    }
    await cache.fetchQuery<unknown>(reads.days())
    onTheWay = null
    days = list('changed')
    expect(cache.getQueryData(['days'])).toEqual(list('as it was'))
    await vi.waitFor(() => expect(cache.getQueryState(['days'])!.isInvalidated).toBe(true), 3000)
    expect(await cache.fetchQuery<unknown>(reads.days())).toEqual(list('changed'))
    const before = asked.mock.calls.length
    await new Promise((r) => setTimeout(r, 1300))
    expect(cache.getQueryState(['days'])!.isInvalidated).toBe(false)
    expect(asked.mock.calls.length).toBe(before)
    cache.clear()
  })
  it('reads again what the stream missed, and nothing else', async () => {
    const client = fresh()
    await read(client)
    const stale = () => client.getQueryState(['days'])!.isInvalidated
    readMissed(client)
    expect(stale()).toBe(false)
    hear(102)
    readMissed(client)
    expect(stale()).toBe(true)
  })
  it('a change told since is laid over an old answer, and the answer is still to be read again', async () => {
    const client = fresh()
    await read(client)
    hear(102)
    readMissed(client)
    lay<{ name: string }[]>(client, ['days'], (held) => [...held, { name: 'told' }])
    expect(client.getQueryData(['days'])).toEqual([...list('as it was'), { name: 'told' }])
    expect(client.getQueryState(['days'])!.isInvalidated).toBe(true)
    days = list('missed')
    told = 102
    expect(await read(client)).toEqual(list('missed'))
    // Over a whole one it stays whole; over nothing it lays nothing.
    lay<{ name: string }[]>(client, ['days'], (held) => held)
    lay(client, ['tents'], () => 'made up')
    expect(client.getQueryState(['days'])!.isInvalidated).toBe(false)
    expect(client.getQueryData(['tents'])).toBeUndefined()
  })
  it('reads again after the server began anew, even with a clock that went back', async () => {
    const client = fresh()
    await read(client)
    hear(7)
    readMissed(client)
    expect(client.getQueryState(['days'])!.isInvalidated).toBe(true)
  })
})
