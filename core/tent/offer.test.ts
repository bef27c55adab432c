import { describe, expect, it } from 'vitest'
import type { SuspensionUnit } from '#contract/unit'
import { bundleOf, type Happened } from '../test/bundle.ts'
import { fork, rearPressure, rearRebound, shock } from '../test/dayBuilder.ts'
import { offerFor, translatedMove, workedOn } from './offer.ts'

const kicks = [{ word: 'kicks', end: 'rear' }] as const
const story = (last: Partial<Extract<Happened, { run: string }>>): Happened[] => [
  { at: '09:00', run: 'a1', rating: 5, says: [...kicks] },
  { at: '09:20', turn: { rr: 5 } },
  { at: '09:40', run: 'a2', rating: 7, ...last },
]
const helped = bundleOf(story({ against: ['a1', 1] }), { id: 'a' })
const suffers = (over: Parameters<typeof bundleOf>[1] = {}, more: Happened[] = []) =>
  bundleOf([{ at: '09:30', run: 'b1', rating: 5, says: [...kicks] }, ...more], { id: 'b', ...over })

describe('what worked on a day', () => {
  it('is a change after which the rider said better, and the complaint was gone', () => {
    expect(workedOn(helped)).toMatchObject([
      { dayId: 'a', gone: [{ word: 'kicks', end: 'rear' }], moves: [{ from: 7, to: 5 }] },
    ])
  })
  it.each([
    ['a better rating without a comparison', story({})],
    ['a comparison that says the same', story({ against: ['a1', 0] })],
    ['worse', story({ against: ['a1', -1] })],
    ['better, with the complaint still there', story({ against: ['a1', 1], says: [...kicks] })],
    [
      'two changes between the runs',
      [
        ...story({}).slice(0, 2),
        { at: '09:25', turn: { fc: 6 } },
        { at: '09:40', run: 'a2', against: ['a1', 1] },
      ],
    ],
    [
      'a reading, which turned nothing',
      [
        story({})[0],
        { at: '09:20', turn: { rr: 5 }, source: 'reading' },
        { at: '09:40', run: 'a2', against: ['a1', 1] },
      ],
    ],
  ] as [string, Happened[]][])('is nothing after %s', (_, happened) => {
    expect(workedOn(bundleOf(happened, { id: 'a' }))).toEqual([])
  })
})

describe('offered to another rider', () => {
  const offer = (b: ReturnType<typeof bundleOf>) => offerFor(b, workedOn(helped))
  it('who says the same now, on the dial that this bike has: the same share of its way, never the same clicks', () => {
    // Half as many clicks for the whole way: 2 of 14 are 1 of 7.
    const coarse = { ...rearRebound, id: 'xr', clicks: 7, countBase: 'closed-0' } as typeof rearRebound
    const unit: SuspensionUnit = { ...shock, id: 'x', adjusters: [rearPressure, coarse] }
    const there = suffers({ units: [fork, unit], start: { fp: 80, fc: 8, fr: 6, rp: 180, xr: 4 } })
    expect(offer(there)).toMatchObject({
      fromDayId: 'a',
      word: 'kicks',
      moves: [{ end: 'rear', from: 4, to: 3 }],
    })
    expect(offer(suffers())).toMatchObject({ moves: [{ from: 7, to: 5 }] })
  })
  it.each([
    ['who says nothing of it', bundleOf([{ at: '09:30', run: 'b1', rating: 5 }], { id: 'b' })],
    [
      'who has it in front',
      bundleOf([{ at: '09:30', run: 'b1', says: [{ word: 'kicks', end: 'front' }] }], { id: 'b' }),
    ],
    ['whose bike was turned since', suffers({}, [{ at: '09:50', turn: { fc: 7 } }])],
    ['whose dial is at its end', suffers({ start: { fp: 80, rp: 180, rr: 1 } })],
    ['whose dial nobody has read', suffers({ start: { fp: 80, rp: 180 } })],
    ['without such a dial', suffers({ units: [fork, { ...shock, adjusters: [rearPressure] }] })],
    ['who has not ridden', bundleOf([], { id: 'b' })],
    ['who is the same', helped],
  ])('not to one %s', (_, day) => {
    expect(offer(day)).toBeNull()
  })
  it('not to one who is settled', () => {
    const day = suffers()
    expect(offer({ ...day, day: { ...day.day, settledSetupId: 'x' } })).toBeNull()
  })
  it('takes air by the same share of its pressure, so that it carries the same share of the rider', () => {
    const m = { end: 'rear', adjuster: rearPressure, from: 200, to: 190 } as const
    expect(translatedMove(m, suffers({ start: { rp: 160 } }))).toMatchObject({ from: 160, to: 152 })
    expect(translatedMove(m, suffers({ start: { rp: 101 } }))).toBeNull()
  })
})
