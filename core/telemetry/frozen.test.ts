import { describe, expect, it } from 'vitest'
import { gapFrozen, tellFrozen } from './frozen.ts'
import type { CleanRecording } from './cleanRecording.ts'

const rate = 100
/** 30 s of hits, never the same twice on end. */
const moving = (phase: number) =>
  Float64Array.from({ length: 30 * rate }, (_, i) => 25 + 20 * Math.sin(i / 7 + phase) + (i % 13) / 100)
const held = (fromS: number, toS: number, pct: number, phase = 0) =>
  moving(phase).fill(pct, fromS * rate, toS * rate)
const gapsS = (x: Float64Array) => x.reduce((n, v) => n + (Number.isNaN(v) ? 1 : 0), 0) / rate
const both = (front: Float64Array, rear: Float64Array) => ({ depthPct: { front, rear }, sampleRateHz: rate })

describe('a sensor that stands at one number', () => {
  it('is a gap while the other end moves, and nothing else is', () => {
    const front = held(10, 14, 31)
    const rear = moving(2)
    const was = Float64Array.from(rear)
    expect(gapFrozen(both(front, rear))).toEqual([{ end: 'front', stretches: 1, seconds: 4 }])
    expect(front.findIndex(Number.isNaN)).toBe(10 * rate)
    expect(gapsS(front)).toBe(4)
    expect(rear).toEqual(was)
  })

  it.each([
    ['the bike stands still', held(10, 20, 22), held(10, 20, 28, 2)],
    ['half a second on a smooth stretch', held(10, 10.5, 22), moving(2)],
    ['the front is carried on a manual for three seconds', held(10, 13, 4), moving(2)],
    [
      'the other end hardly moves either',
      held(10, 14, 22),
      held(10, 14, 28, 2).map((v, i) => v + (i % 50) / 10),
    ],
  ])('is left alone where %s', (_, front, rear) => {
    expect(gapFrozen(both(front, rear))).toEqual([])
    expect(gapsS(front) + gapsS(rear)).toBe(0)
  })

  it('is left alone where nothing else is there to tell', () => {
    const front = held(5, 25, 31)
    expect(gapFrozen({ depthPct: { front }, sampleRateHz: rate })).toEqual([])
    expect(gapsS(front)).toBe(0)
  })

  it('hanging at full extension for longer than anybody carries a wheel is frozen too', () => {
    expect(gapFrozen(both(held(10, 17, 4), moving(2)))).toMatchObject([{ end: 'front', seconds: 7 }])
  })

  it('is told once, with how long and how often, however often it is looked for', () => {
    const front = held(5, 8, 31).fill(12.5, 20 * rate, 23 * rate)
    const recording = { ...both(front, moving(2)), issues: [] } as unknown as CleanRecording
    tellFrozen(recording)
    tellFrozen(recording)
    expect(recording.issues.map((i) => [i.code, i.count])).toEqual([['frozen', 2]])
    expect(recording.issues[0].message).toMatch(
      /^Front travel .* for 6 s in 2 stretches while the other end moves/,
    )
  })
})
