import { afterEach, beforeEach, expect, it, vi } from 'vitest'
import { readingsBehind } from './behind.ts'
import { answered, unanswered } from './reach.ts'

beforeEach(() => void vi.useFakeTimers())
afterEach(() => {
  answered()
  vi.useRealTimers()
})

it('asks again for what did not arrive as soon as the server answers anything, each once', () => {
  const read = vi.fn()
  const behind = readingsBehind(read)
  unanswered()
  behind.add(['day', 'a'])
  behind.add(['day', 'a'])
  behind.add(['garage'])
  expect(read).not.toHaveBeenCalled()
  answered()
  expect(read.mock.calls).toEqual([[['day', 'a']], [['garage']]])
  answered()
  vi.advanceTimersByTime(60_000)
  expect(read).toHaveBeenCalledTimes(2)
})
it('asks again after a while by itself, and on, while it fails', () => {
  const behind = readingsBehind((key) => read(key))
  const read = vi.fn((key: string[]) => behind.add(key))
  unanswered()
  behind.add(['garage'])
  vi.advanceTimersByTime(60_000)
  expect(read.mock.calls.length).toBeGreaterThan(3)
  expect(read.mock.calls.length).toBeLessThan(10)
})
