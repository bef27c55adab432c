import { describe, expect, it } from 'vitest'
import { Bike } from '#contract/bike'
import { TrailDay } from '#contract/day'
import { Run } from '#contract/run'
import { sampleLetters } from './sampleDay.ts'

const text = JSON.stringify([
  { kind: 'rider', record: { id: '11111111-1111-8111-a111-111111111111' } },
  {
    kind: 'day',
    record: {
      id: '22222222-2222-8222-a222-222222222222',
      riderId: '11111111-1111-8111-a111-111111111111',
      date: '2000-01-01',
    },
  },
])

describe('the invented rider', () => {
  it('has ids of its own each time, that still belong together', () => {
    const [rider, day] = sampleLetters(text, '2026-11-25')
    expect(day.record).toMatchObject({ riderId: rider.record.id, date: '2026-11-25' })
    expect(sampleLetters(text, '2026-11-25')[0].record.id).not.toBe(rider.record.id)
    expect(text).not.toContain(rider.record.id!)
  })
  it('is told by the demo world in records that the contract takes', async () => {
    const { sampleDay } = await import('#demo/sampleDay')
    const letters = sampleLetters(JSON.stringify(await sampleDay()), '2026-11-25')
    const of = (kind: string) => letters.filter((l) => l.kind === kind).map((l) => l.record)
    expect(() => [
      Bike.array().parse(of('bike')),
      TrailDay.array().parse(of('day')),
      Run.array().parse(of('run')),
    ]).not.toThrow()
    expect(of('run').length).toBeGreaterThan(3)
    expect(of('rider')[0]).toMatchObject({ name: expect.stringContaining('(invented)') })
  })
})
