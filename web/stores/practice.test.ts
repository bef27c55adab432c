// @vitest-environment happy-dom
import { createPinia, setActivePinia } from 'pinia'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import type { RiddenCourse } from '#core/practice/ride'
import { usePractice } from './practice.ts'

/** Rides that come when they are let; what the worker was asked. */
const { asked } = vi.hoisted(() => ({
  asked: [] as { run: number; positions: Record<string, number>; come: () => void }[],
}))
vi.stubGlobal(
  'Worker',
  class {
    terminate() {}
  },
)
vi.mock('comlink', () => ({
  proxy: (x: unknown) => x,
  wrap: () => ({
    ride: (_key: unknown, positions: Record<string, number>, run: number) =>
      new Promise<RiddenCourse>((resolve) =>
        asked.push({
          run,
          positions,
          come: () =>
            resolve({
              sampleRateHz: 400,
              depthPct: { front: new Float32Array(4), rear: new Float32Array(4) },
              sections: [],
              ringMm: { front: 100 + run, rear: 40 + run },
            }),
        }),
      ),
  }),
}))

const key = { drill: 'kicks', variation: null, seed: 3 }
const ridden = async () => {
  asked.at(-1)!.come()
  await new Promise((r) => setTimeout(r))
}
beforeEach(() => {
  localStorage.clear()
  asked.length = 0
  setActivePinia(createPinia())
})

describe('a day of practice on the page', () => {
  it('is ridden once, however often the key is pressed', async () => {
    const p = usePractice()
    p.open(key)
    const rides = [p.ride(), p.ride(), p.ride()]
    await ridden()
    await Promise.all(rides)
    expect(asked).toHaveLength(1)
    expect(p.day!.runs).toHaveLength(1)
  })

  it('keeps a ride before what was turned and asked while it was made', async () => {
    const p = usePractice()
    p.open(key)
    const start = p.held.get('rr')!.value
    const ride = p.ride()
    p.choose('rr', start - 2)
    p.turn('', false)
    p.read('rear')
    await ridden()
    await ride
    expect(p.acts.map((a) => a.do)).toEqual(['ride', 'turn', 'read'])
    expect(p.day!.runs[0].positions.rr).toBe(start)
    expect(p.held.get('rr')?.value).toBe(start - 2)
  })

  it('drops a ride of a day that was begun again, and of another rider', async () => {
    const p = usePractice()
    p.open(key)
    let ride = p.ride()
    p.again()
    await ridden()
    await ride
    expect(p.acts).toEqual([])
    ride = p.ride()
    p.open({ ...key, seed: 4 })
    await ridden()
    await ride
    expect(p.acts).toEqual([])
    expect(p.riding).toBe(false)
  })

  it('comes back as it was, also where the storage holds something else', async () => {
    const p = usePractice()
    p.open(key)
    const ride = p.ride()
    await ridden()
    await ride
    setActivePinia(createPinia())
    const later = usePractice()
    later.open(key)
    expect(later.bundle).toEqual(p.bundle)
    localStorage.setItem('wild-spring:practice:kicks::9', '{"do":"settle"}')
    later.open({ ...key, seed: 9 })
    expect(later.acts).toEqual([])
  })

  it('takes back a turn and an end, never a ride', async () => {
    const p = usePractice()
    p.open(key)
    const ride = p.ride()
    await ridden()
    await ride
    expect(p.undoable).toBeNull()
    p.undo()
    expect(p.acts).toHaveLength(1)
    p.choose('rr', 4)
    p.turn('', false)
    p.undo()
    expect(p.acts).toHaveLength(1)
    p.settle()
    expect(p.day!.settled).toBe(true)
    p.undo()
    expect(p.day!.settled).toBe(false)
  })
})
