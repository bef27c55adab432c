import { describe, expect, it } from 'vitest'
import { DayBuilder, space } from '../test/dayBuilder.ts'
import { advise } from './advise.ts'

const next = (d: DayBuilder) => advise(d.history(), space)
/** Two alike, something else, and back on the first: clearly worse there now. */
const worseOnTheSame = (rating = 5) =>
  new DayBuilder()
    .run(8, [{ word: 'kicks', end: 'rear', strength: 1 }])
    .run(8)
    .run(8)
    .run(rating)

describe('the same settings feel worse than they did', () => {
  it('is no dial: both gauges are asked for, and nothing is turned', () => {
    const p = next(worseOnTheSame())
    expect(p.kind).toBe('read')
    expect(p.lookAt.toSorted()).toEqual(['fp', 'rp'])
    expect(p.moves).toEqual([])
    expect(p.speaksFor[0].text).toMatch(/Rated 5 on run 4; on the same settings 8\.0 on runs 1, 2, 3/)
  })

  it.each([
    ['it fell by no more than one run scatters', worseOnTheSame(7.5)],
    [
      'the rider says it was the same',
      new DayBuilder()
        .run(8)
        .run(8)
        .run(8)
        .run(5, [], { against: [3, 0] }),
    ],
    ['it was ridden in other air', new DayBuilder().run(8).run(8).run(8).run(5, [], { airTempC: 33 })],
    [
      'the tyres stood apart',
      new DayBuilder().run(8, [], { tyreRearPsi: 25 }).run(5, [], { tyreRearPsi: 18 }),
    ],
    ['another dial has been turned', new DayBuilder().run(8).run(8).run(8).change({ rr: 8 }).run(5)],
    ['there is no earlier run to hold it against', new DayBuilder().run(5)],
  ])('is not asked where %s', (_, day) => {
    expect(next(day).lookAt).toEqual([])
  })

  it('is not asked again after both were read, nor of a coil', () => {
    expect(next(worseOnTheSame().look({ fp: 80, rp: 180 })).lookAt).toEqual([])
    const coil = { front: null, rear: { ...space.rear!, adjusters: space.rear!.adjusters.slice(1) } }
    expect(advise(worseOnTheSame().history(), coil).lookAt).toEqual([])
  })

  it('one gauge read leaves the other to be read', () => {
    expect(next(worseOnTheSame().look({ fp: 80 })).lookAt).toEqual(['rp'])
  })

  it('a pressure that nobody has set or read is not asked for', () => {
    expect(next(worseOnTheSame().assuming('fp')).lookAt).toEqual(['rp'])
  })
})

describe('a gauge that shows less than was set', () => {
  const leaking = () => worseOnTheSame().look({ fp: 80, rp: 168 })

  it('is answered by pumping back, with the caution of a pump, and not by a dial', () => {
    const p = next(leaking())
    expect(p.moves).toEqual([{ end: 'rear', adjusterId: 'rp', from: 168, to: 180 }])
    expect(p.headline).toBe('The shock’s air back to 180 psi')
    expect(p.speaksFor[0].text).toBe('The gauge shows 168 psi; it was 180 psi 4 runs ago')
    expect(p.caution).toMatch(/never above the maximum printed/)
    expect(p.outlook).toBeNull()
  })

  it('pumped back, the same settings are ridden again; then a dial may be looked at', () => {
    const d = leaking().change({ rp: 180 })
    expect(next(d).headline).toBe('Ride the same settings again')
    d.run(8)
    const p = next(d)
    expect([p.headline, p.lookAt]).toEqual(['Gauge first: air was missing before', ['rp']])
    expect(next(d.look({ rp: 180 })).lookAt).toEqual([])
  })

  it('who has no gauge at hand is asked twice, and then goes on without', () => {
    const d = leaking().change({ rp: 180 }).run(8)
    expect(next(d).lookAt).toEqual(['rp'])
    d.run(8)
    expect(next(d).lookAt).toEqual(['rp'])
    d.run(8)
    expect(next(d).lookAt).toEqual([])
  })

  it('gone twice, it is to be mended before any dial', () => {
    const d = leaking().change({ rp: 180 }).run(8).look({ rp: 172 })
    expect(next(d).headline).toBe('The shock loses air: mend it before any dial')
  })

  it('held once it was mended, it is not asked for any more', () => {
    const d = leaking().change({ rp: 180 }).run(8).look({ rp: 180 }).run(8)
    expect(next(d).lookAt).toEqual([])
  })

  it.each([
    ['a gauge’s own breadth', { rp: 178.5 }],
    ['more than was set', { rp: 186 }],
    ['nothing else than was set', { rp: 180 }],
  ])('is not seen in %s', (_, found) => {
    expect(next(worseOnTheSame().look({ fp: 80, ...found })).moves.map((m) => m.adjusterId)).not.toContain(
      'rp',
    )
  })

  const known = (d: DayBuilder, n: number, over: object) => {
    const h = d.history()
    for (const s of h.setups.slice(n))
      s.positions = s.positions.map((p) =>
        p.adjusterId === 'rp' ? { ...p, known: { ...p.known, ...over } } : p,
      )
    return d
  }
  it('is not seen between two gauges, which may only disagree, nor in what cooler air takes', () => {
    const pumped = (d: DayBuilder) => next(d).moves.map((m) => m.adjusterId)
    expect(pumped(leaking())).toContain('rp')
    const gauges = known(known(leaking(), 0, { gaugeId: 'a' }), 1, { gaugeId: 'b' })
    expect(pumped(gauges)).not.toContain('rp')
    const same = known(leaking(), 0, { gaugeId: 'a' })
    expect(pumped(same)).toContain('rp')
    // (180 + 14.2) · 278/296 − 14.2 = 168.2 psi at 5 °C of what was 180 at 23.
    const cooler = known(known(leaking(), 0, { airTempC: 23, altitudeM: 300 }), 1, {
      airTempC: 5,
      altitudeM: 300,
    })
    expect(pumped(cooler)).not.toContain('rp')
    const warmer = known(known(leaking(), 0, { airTempC: 5, altitudeM: 300 }), 1, {
      airTempC: 23,
      altitudeM: 300,
    })
    expect(pumped(warmer)).toContain('rp')
  })

  it('who rides on with less is not told again: that is what is ridden now', () => {
    const p = next(leaking().run(6))
    expect(p.headline).not.toMatch(/air back/)
  })
})

describe('a dial that nobody counted', () => {
  const kicking = () =>
    new DayBuilder().run(4, [
      { word: 'kicks', end: 'rear', strength: 3 },
      { word: 'pogo', end: 'rear', strength: 3 },
    ])

  it('is counted to its stop before its first turn', () => {
    const turned = next(kicking())
    const [id] = turned.moves.map((m) => m.adjusterId)
    expect(turned.kind).toBe('change')
    const asked = next(kicking().assuming(id))
    expect([asked.kind, asked.lookAt]).toEqual(['read', [id]])
    // Counted two clicks from where it was written: the turn starts from there.
    const found = kicking()
      .assuming(id)
      .look({ [id]: 5 })
    expect(next(found).moves.find((m) => m.adjusterId === id)?.from ?? 5).toBe(5)
    expect(next(found).lookAt).toEqual([])
  })

  it('is not asked for where another dial is turned, nor after a second run without', () => {
    const [id] = next(kicking()).moves.map((m) => m.adjusterId)
    const other = ['fc', 'fr'].find((x) => x !== id)!
    expect(next(kicking().assuming(other)).lookAt).toEqual([])
    const again = kicking().run(4, [{ word: 'kicks', end: 'rear', strength: 3 }])
    expect(next(again.assuming('fr', 'rr', 'fc')).lookAt).toEqual([])
  })
})
