import 'fake-indexeddb/auto'
import { QueryObserver } from '@tanstack/vue-query'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { ApiError, reach } from './client.ts'
import { toldHeader } from '#contract/live'
import type { DaySummary } from '#contract/endpoints'
import { cache, hear, holdLetters, reads } from './cache.ts'
import { forgetHeld, keep, recall } from './held.ts'
import { outOfReachSince } from './reach.ts'

const sampleSummary: DaySummary = {
  id: '019b0000-0000-7000-8000-000000000001',
  date: '2031-05-02',
  riderId: '019b0000-0000-7000-8000-000000000002',
  riderName: 'Someone',
  bikeId: '019b0000-0000-7000-8000-000000000003',
  bikeName: 'the bike',
  trailName: 'Old quarry',
  runs: 0,
  countedRuns: 0,
  lastRating: null,
  bestRating: null,
  settled: false,
}
const pause = () => new Promise((r) => setTimeout(r, 1200))
let answer: (() => Response | Promise<Response>) | null = null
beforeEach(() => {
  vi.stubGlobal('fetch', async () => {
    if (!answer) throw new TypeError('out of reach')
    return answer()
  })
})
afterEach(async () => {
  cache.clear()
  await forgetHeld()
})
const away = () => (answer = null)
const serves = (body: unknown, status = 200) => (answer = () => Response.json(body, { status }))

describe('what was read last', () => {
  it('stands in while the server is out of reach, as it was last changed, and is said to be old', async () => {
    serves([])
    await cache.fetchQuery(reads.days())
    expect(outOfReachSince.value).toBeNull()
    await pause()
    away()
    cache.clear()
    expect(await cache.fetchQuery(reads.days())).toEqual([])
    expect(outOfReachSince.value).not.toBeNull()
    serves([])
    await cache.fetchQuery({ ...reads.days(), staleTime: 0 })
    expect(outOfReachSince.value).toBeNull()
  })
  it('is read anew once anything is answered, though nobody was told that the server was away', async () => {
    serves([])
    const stop = new QueryObserver(cache, reads.days()).subscribe(() => {})
    await vi.waitFor(() => expect(cache.getQueryData(['days'])).toEqual([]))
    away()
    await cache.invalidateQueries({ queryKey: ['days'] })
    serves([sampleSummary])
    await pause()
    expect(cache.getQueryData(['days'])).toEqual([])
    await reach('/anything')
    await vi.waitFor(() => expect(cache.getQueryData(['days'])).toEqual([sampleSummary]))
    stop()
  })
  it('never stands in for a server that answers: what is refused or gone is told', async () => {
    keep('tents', [])
    await pause()
    serves({ type: 'x', title: 'x', status: 401, detail: 'Sign in first.', code: 'access.needed' }, 401)
    await expect(cache.fetchQuery(reads.tents())).rejects.toThrow('Sign in first.')
    serves({ type: 'x', title: 'x', status: 404, detail: 'Gone.', code: 'record.not-found' }, 404)
    await expect(cache.fetchQuery(reads.tents())).rejects.toThrow('Gone.')
  })
  it('never takes the place of what a screen has been told since it was written down', async () => {
    serves([])
    await cache.fetchQuery(reads.tents())
    await pause()
    const told = [{ name: 'told since' }]
    cache.setQueryData(['tents'], told)
    away()
    expect(await cache.fetchQuery({ ...reads.tents(), staleTime: 0 })).toEqual(told)
  })
  it('gives way to the server where it speaks again while it is looked up', async () => {
    keep('days', [])
    await pause()
    const day = { ...sampleSummary }
    let tries = 0
    answer = () => {
      if (++tries > 1) return Response.json([day], { headers: { [toldHeader]: '999' } })
      // The stream is there again before this failure is known.
      hear(999)
      throw new TypeError('out of reach')
    }
    expect(await cache.fetchQuery(reads.days())).toEqual([day])
    expect(tries).toBe(2)
    hear(0)
  })
  it('of another version of the page is not shown', async () => {
    keep('days', [{ shape: 'of another year' }])
    await pause()
    away()
    await expect(cache.fetchQuery(reads.days())).rejects.toBeInstanceOf(ApiError)
  })
  it('is so much and no more; the oldest makes room', async () => {
    for (let i = 0; i < 200; i++) keep(`day,${i}`, i)
    await pause()
    keep('day,new', 'new')
    await pause()
    const kept = await Promise.all(Array.from({ length: 200 }, (_, i) => recall(`day,${i}`)))
    expect(kept.filter((k) => k !== null)).toHaveLength(159)
    expect((await recall('day,new'))?.answer).toBe('new')
  })
  it('is forgotten by whoever signs out, with what was just being written', async () => {
    keep('garage', { riders: ['somebody'] })
    await forgetHeld()
    await pause()
    expect(await recall('garage')).toBeNull()
  })
  it('a day that nobody has is no day', async () => {
    away()
    holdLetters(() => [])
    await expect(cache.fetchQuery(reads.day('00000000-0000-7000-8000-000000000001'))).rejects.toBeInstanceOf(
      ApiError,
    )
  })
})
