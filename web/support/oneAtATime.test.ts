import { afterEach, beforeEach, expect, it, vi } from 'vitest'
import { oneAtATime } from './oneAtATime.ts'

beforeEach(() => void vi.useFakeTimers())
afterEach(() => void vi.useRealTimers())
const wait = (ms: number) => new Promise((done) => setTimeout(done, ms))

it('does once what is asked for again meanwhile, and answers both', async () => {
  let n = 0
  const act = oneAtATime(async () => (await wait(100), ++n))
  const both = Promise.all([act(), act()])
  await vi.advanceTimersByTimeAsync(100)
  expect(await both).toEqual([1, 1])
  const again = act()
  await vi.advanceTimersByTimeAsync(100)
  expect(await again).toBe(2)
})

it('is free again after it failed, and whoever asked hears of it', async () => {
  let n = 0
  const act = oneAtATime(async () => {
    n++
    await wait(10)
    throw new Error('no')
  })
  const both = Promise.allSettled([act(), act()])
  await vi.advanceTimersByTimeAsync(10)
  expect((await both).map((x) => x.status)).toEqual(['rejected', 'rejected'])
  const again = expect(act()).rejects.toThrow('no')
  await vi.advanceTimersByTimeAsync(10)
  await again
  expect(n).toBe(2)
})

it('rests from its beginning, and never longer than the slower of both', async () => {
  let n = 0
  const act = oneAtATime(async () => (await wait(10), ++n), { restMs: 500 })
  void act()
  await vi.advanceTimersByTimeAsync(499)
  void act()
  await vi.advanceTimersByTimeAsync(2)
  expect(n).toBe(1)
  void act()
  await vi.advanceTimersByTimeAsync(20)
  expect(n).toBe(2)
})

it('what is done for another does not wait', async () => {
  let who = 'Mika'
  const done: string[] = []
  const act = oneAtATime(
    async () => {
      const of = who
      await wait(50)
      done.push(of)
    },
    { by: () => who },
  )
  void act()
  void act()
  who = 'Nuri'
  void act()
  await vi.advanceTimersByTimeAsync(50)
  expect(done).toEqual(['Mika', 'Nuri'])
})
