import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import type { TentHour, TrackWindow } from '#contract/tent'
import { frontLsc, frontPressure, frontRebound, rearRebound } from '../test/dayBuilder.ts'
import { clockSpan, hourMarks, shareOf, windowAt } from './clock.ts'
import { byNeed, type Need } from './need.ts'
import { trends, type TrendMove } from './trend.ts'

const t = (clock: string) => Date.parse(`2026-11-21T${clock}:00.000Z`)

describe('the clock of a tent', () => {
  it('holds all that happened and the present, with room ahead, two hours at least', () => {
    const instant = fc.integer({ min: t('06:00'), max: t('20:00') })
    fc.assert(
      fc.property(fc.array(instant, { maxLength: 20 }), instant, (happened, now) => {
        const span = clockSpan(happened, now)
        expect(span.toMs - span.fromMs).toBeGreaterThanOrEqual(2 * 3_600_000)
        for (const ms of [...happened, now]) {
          expect(shareOf(span, ms)).toBeGreaterThan(0)
          expect(shareOf(span, ms)).toBeLessThan(1)
        }
        const marks = hourMarks(span)
        expect(marks.length).toBeGreaterThan(2)
        for (const m of marks) expect([0, 30]).toContain(new Date(m.atMs).getUTCMinutes())
      }),
    )
  })
  it('tells what is open and for how long, else what opens next, else nothing', () => {
    const schedule: TrackWindow[] = [
      { kind: 'timed', from: '2026-11-21T13:30:00.000Z', to: '2026-11-21T16:00:00.000Z' },
      { kind: 'practice', from: '2026-11-21T09:00:00.000Z', to: '2026-11-21T12:30:00.000Z' },
    ]
    expect(windowAt(schedule, t('11:49'))).toMatchObject({
      window: { kind: 'practice' },
      begun: true,
      minutes: 41,
    })
    expect(windowAt(schedule, t('12:30'))).toMatchObject({
      window: { kind: 'timed' },
      begun: false,
      minutes: 60,
    })
    expect(windowAt(schedule, t('16:00'))).toBeNull()
    expect(windowAt([], t('10:00'))).toBeNull()
  })
})

describe('the order by need', () => {
  const rider = (number: number, over: Partial<Need>): Need => ({
    number,
    whereabouts: 'here',
    sinceMs: t('11:00'),
    openQuestion: false,
    later: false,
    ...over,
  })
  it('who stands here longest, then who was asked something, then who is out, resting, left alone', () => {
    const list = [
      rider(1, { whereabouts: 'settled', sinceMs: t('08:00') }),
      rider(2, { whereabouts: 'out', sinceMs: t('11:20') }),
      rider(3, { sinceMs: t('11:47') }),
      rider(4, { whereabouts: 'out', sinceMs: t('11:40'), openQuestion: true }),
      rider(5, { whereabouts: 'resting', sinceMs: t('09:00') }),
      rider(6, { sinceMs: t('11:43') }),
      rider(7, { whereabouts: 'out', sinceMs: t('11:30'), later: true }),
    ]
    expect(byNeed(list).map((r) => r.number)).toEqual([6, 3, 7, 4, 2, 5, 1])
  })
  it('does not hang on the order they were given in, and loses nobody', () => {
    const riders = fc.uniqueArray(
      fc.record({
        number: fc.integer({ min: 1, max: 99 }),
        whereabouts: fc.constantFrom('here' as const, 'out' as const, 'resting' as const, 'settled' as const),
        sinceMs: fc.integer({ min: 0, max: 5 }),
        openQuestion: fc.boolean(),
        later: fc.boolean(),
      }),
      { selector: (r) => r.number, maxLength: 12 },
    )
    fc.assert(
      fc.property(riders, (list) => {
        const order = byNeed(list).map((r) => r.number)
        expect([...order].sort((a, b) => a - b)).toEqual(list.map((r) => r.number).sort((a, b) => a - b))
        expect(byNeed([...list].reverse()).map((r) => r.number)).toEqual(order)
        const here = byNeed(list).findIndex((r) => r.whereabouts !== 'here')
        if (here >= 0)
          expect(
            byNeed(list)
              .slice(here)
              .every((r) => r.whereabouts !== 'here'),
          ).toBe(true)
      }),
    )
  })
})

describe('what turns in the tent', () => {
  const hour = (clock: string, airTempC: number | null): TentHour => ({
    id: `018f0000-0000-7000-8000-0000000${clock.replace(':', '')}0`,
    version: 1,
    tentId: '018f0000-0000-7000-8000-000000000001',
    at: new Date(t(clock)).toISOString(),
    airTempC,
    altitudeM: null,
    surface: null,
    track: [],
    note: '',
  })
  const warm = [hour('09:00', 14), hour('10:30', 20), hour('11:45', 27)]
  const turn = (dayId: string, clock: string, ...moves: TrendMove['moves']): TrendMove => ({
    dayId,
    atMs: t(clock),
    moves,
  })
  const rebound = (from: number, to: number) => ({ end: 'rear' as const, adjuster: rearRebound, from, to })
  const lsc = (from: number, to: number) => ({ end: 'front' as const, adjuster: frontLsc, from, to })

  it('two who went the same way are a trend, and rising air explains slower and firmer', () => {
    const found = trends(
      [
        turn('a', '10:35', rebound(7, 6)),
        turn('b', '10:40', { end: 'front', adjuster: frontRebound, from: 8, to: 7 }),
        turn('c', '11:20', rebound(6, 5)),
        turn('a', '09:50', lsc(9, 8)),
        turn('d', '10:05', lsc(10, 9)),
        turn('d', '10:50', { end: 'front', adjuster: frontPressure, from: 80, to: 82 }),
      ],
      warm,
    )
    expect(found.map((x) => [x.family, x.way, x.dayIds.length, x.by])).toEqual([
      ['rebound', 'slower', 3, 'heat'],
      ['compression', 'firmer', 2, 'heat'],
    ])
    expect(found[0].sinceMs).toBe(t('10:35'))
  })
  it('the way that heat does not ask for is not put down to it', () => {
    const found = trends([turn('a', '10:00', rebound(5, 6)), turn('b', '10:10', rebound(5, 7))], warm)
    expect(found).toMatchObject([{ way: 'faster', by: null }])
  })
  it('air that was not read twice, or hardly moved, explains nothing', () => {
    const both = [turn('a', '10:00', rebound(7, 6)), turn('b', '10:10', rebound(7, 6))]
    for (const hours of [
      [],
      [hour('09:00', 14)],
      [hour('09:00', 24), hour('11:00', 27)],
      [hour('09:00', null), hour('11:00', 27)],
    ])
      expect(trends(both, hours)).toMatchObject([{ way: 'slower', by: null }])
  })
  it('what one rider turned, or turned and turned back, is none', () => {
    expect(trends([turn('a', '10:00', rebound(7, 6)), turn('a', '10:20', rebound(6, 5))], warm)).toEqual([])
    const back = [
      turn('a', '10:00', rebound(7, 6)),
      turn('a', '10:30', rebound(6, 7)),
      turn('b', '10:10', rebound(7, 6)),
    ]
    expect(trends(back, warm)).toEqual([])
  })
})
