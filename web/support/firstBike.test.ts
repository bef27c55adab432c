import { describe, expect, it } from 'vitest'
import { Bike } from '#contract/bike'
import { Rider } from '#contract/rider'
import { SuspensionUnit } from '#contract/unit'
import { assumedWords, stillAssumed } from './assumed.ts'
import { firstBike, kitKg, noAnswers, startEstimates, type Answers, type Part } from './firstBike.ts'

const answers = (over: Partial<Answers> = {}): Answers => ({
  ...noAnswers(),
  name: 'Mara',
  bodyMassKg: 64,
  ...over,
})
const end = (parts: Part[], over: Partial<Answers['front']> = {}): Answers['front'] => ({
  travelMm: null,
  parts,
  counts: {},
  rateNPerMm: null,
  ...over,
})
const made = (over: Partial<Answers> = {}) =>
  firstBike(answers({ front: end(['air', 'red', 'blue']), rear: end(['air', 'red', 'blue']), ...over }), null)

describe('the guided way', () => {
  it('ends in records the contract takes, for every kind of bike and every set of parts', () => {
    const sets: Part[][] = [
      ['air'],
      ['coil'],
      ['air', 'red'],
      ['air', 'red', 'red-two', 'blue', 'blue-two', 'lever', 'turn'],
      ['coil', 'blue', 'lever'],
      [],
    ]
    for (const kind of ['cross-country', 'trail', 'enduro', 'downhill', 'other'] as const)
      for (const parts of sets)
        for (const hardtail of [false, true]) {
          const f = made({ kind, hardtail, front: end(parts), rear: end(parts) })
          expect(Rider.safeParse(f.rider).error).toBeUndefined()
          for (const u of f.units) expect(SuspensionUnit.safeParse(u).error).toBeUndefined()
          expect(Bike.safeParse(f.bike).error).toBeUndefined()
          expect(f.units).toHaveLength(hardtail ? 1 : 2)
        }
  })
  it('one red and one blue on a shock are rebound and compression; two of a colour are low and high speed', () => {
    const roles = (parts: Part[]) =>
      made({ rear: end(parts) }).units[1].adjusters.flatMap((a) => (a.kind === 'click' ? [a.role] : []))
    expect(roles(['air', 'red', 'blue'])).toEqual(['compression', 'rebound'])
    expect(roles(['air', 'red', 'red-two', 'blue', 'blue-two'])).toEqual([
      'low-speed-compression',
      'high-speed-compression',
      'low-speed-rebound',
      'high-speed-rebound',
    ])
  })
  it('names tell two apart', () => {
    expect(made().units.map((u) => u.name)).toEqual(['Mara’s 140 mm fork', 'Mara’s trail air shock'])
    expect(made({ name: 'Jonas' }).bike.name).toBe('Jonas’ trail bike')
  })
  it('what nobody measured or counted is assumed; what was said is not', () => {
    const f = made({
      front: end(['air', 'red'], { travelMm: 150, counts: { rebound: { clicks: 14, at: 5 } } }),
    })
    const words = f.units.map((u) => assumedWords(u, (a) => a.role))
    expect(words[0]).toEqual(['range of main-pressure'])
    expect(words[1]).toEqual(['travel', 'range of main-pressure', 'range of compression', 'range of rebound'])
    expect(assumedWords(f.bike, (a) => a.role)).toEqual(['rear travel'])
    expect([...f.counted.values()]).toEqual([5])
  })
  it('nothing is counted that nobody counted, and a coil without a number has no rate', () => {
    expect(made().counted.size).toBe(0)
    const coil = made({ front: end(['coil', 'red']) })
    expect(coil.units[0].adjusters.map((a) => a.kind)).toEqual(['click'])
    const told = made({ front: end(['coil'], { rateNPerMm: 9 }) })
    expect([...told.counted.values()]).toEqual([9])
  })
  it('kit is a guess that says so, or unknown', () => {
    const worn = made({ kit: ['clothes', 'shoes'] }).rider
    expect([worn.kitMassKg, worn.assumed]).toEqual([
      kitKg(['clothes', 'shoes']),
      ['kitMassKg', 'level', 'taste'],
    ])
    expect(made({ kit: null }).rider).toMatchObject({ kitMassKg: null, assumed: ['level', 'taste'] })
  })
})

describe('where to start', () => {
  const psi = (over: Partial<Answers>) =>
    startEstimates(made(over)).flatMap((e) => (e.adjuster.kind === 'pressure' ? [e.value] : []))
  it('pressure grows with the weight at both ends, and an unknown kit is reckoned with and said', () => {
    const [light, heavy] = [psi({ bodyMassKg: 55 }), psi({ bodyMassKg: 95 })]
    expect(light.every((p, i) => p < heavy[i])).toBe(true)
    expect(startEstimates(made({ kit: null }))[0].words).toContain('kit unknown, about 5 kg assumed')
    expect(startEstimates(made({ kit: ['pack'] }))[0].words).not.toContain('kit unknown')
  })
  it('a rebound whose clicks nobody counted has no start', () => {
    const rebound = (f: ReturnType<typeof made>) =>
      startEstimates(f).filter((e) => e.adjuster.role === 'rebound')
    expect(rebound(made())).toEqual([])
    const counted = made({ front: end(['air', 'red'], { counts: { rebound: { clicks: 14, at: null } } }) })
    expect(rebound(counted)).toHaveLength(1)
  })
  it('no weight, no estimate', () => {
    expect(psi({ bodyMassKg: null })).toEqual([])
  })
})

describe('what is assumed', () => {
  const unit = made().units[1]
  it('stays so until somebody changes it', () => {
    expect(stillAssumed(unit, { ...unit, name: 'Another name' }).assumed).toEqual(unit.assumed)
    expect(stillAssumed(unit, { ...unit, strokeMm: 55 }).assumed).not.toContain('strokeMm')
    const dial = unit.adjusters.find((a) => a.kind === 'click')!
    const recounted = unit.adjusters.map((a) => (a.id === dial.id ? { ...dial, clicks: 17 } : a))
    expect(stillAssumed(unit, { ...unit, adjusters: recounted }).assumed).not.toContain(dial.id)
    expect(stillAssumed(unit, { ...unit, adjusters: [] }).assumed).toEqual(['strokeMm'])
  })
})
