import { describe, expect, it } from 'vitest'
import type { Setup } from '#contract/setup'
import { coil } from '../adviser/test/fieldCase.ts'
import { DayBuilder, fork, shock, startPositions } from '../test/dayBuilder.ts'
import { airFrequencyRadS } from '../damper/recovery.ts'
import { unitAir } from '../spring/unitSpring.ts'
import { ownAir, ownCompression, ownLeverage, ownRebound, ownReturn } from './ownNumbers.ts'
import { assumed } from './known.ts'

const [set] = new DayBuilder(startPositions).history().setups
/** What is on the bike, with some numbers assumed or not known at all. */
const onBike = (over: { assumed?: string[]; unread?: string[] } = {}): Setup => ({
  ...set,
  positions: set.positions
    .filter((p) => !over.unread?.includes(p.adjusterId))
    .map((p) => (over.assumed?.includes(p.adjusterId) ? { ...p, known: assumed('1:1 rule') } : p)),
})
const counted = { ...set, positions: onBike().positions }

describe('the air spring of a bike', () => {
  it('is what stands on it, and sag only where it was read at this very pressure', () => {
    const read: Setup = {
      ...onBike(),
      foundIn: {
        airTempC: 15,
        altitudeM: 400,
        place: '',
        sagFrontPct: null,
        sagRearPct: 28,
        postureFront: null,
        postureRear: null,
      },
    }
    expect(ownAir(shock, read)).toMatchObject({
      pressurePsi: 180,
      spacers: 1,
      sagPct: 28,
      mostSpacers: 3,
      ownShape: false,
    })
    expect(ownAir(shock, onBike())).toMatchObject({ pressurePsi: 180, sagPct: null })
    const pumped: Setup = {
      ...read,
      positions: read.positions.map((p) => (p.adjusterId === 'rp' ? { ...p, value: 190 } : p)),
      foundIn: null,
    }
    expect(ownAir(shock, pumped)).toMatchObject({ pressurePsi: 190, sagPct: null })
  })
  it('has no spacers where none can be fitted', () => {
    expect(ownAir(fork, onBike())).toMatchObject({ spacers: 0, mostSpacers: 0 })
  })
  it('is nothing of what is only assumed or unread, and the first of it is said', () => {
    expect(ownAir(null, onBike())).toBe('unit')
    expect(ownAir({ ...shock, spring: 'coil', adjusters: [coil] }, onBike())).toBe('air')
    expect(ownAir({ ...shock, assumed: ['strokeMm'] }, onBike())).toBe('stroke')
    expect(ownAir(shock, onBike({ assumed: ['rp'] }))).toBe('pressure')
    expect(ownAir(shock, onBike({ unread: ['rp'] }))).toBe('pressure')
    expect(ownAir(shock, onBike({ assumed: ['rs'] }))).toBe('spacers')
  })
  it('knows the air it was set in only where both were noted', () => {
    const noted = (airTempC: number | null, altitudeM: number | null): Setup => ({
      ...counted,
      positions: counted.positions.map((p) => ({
        ...p,
        known: { ...p.known, how: 'read', airTempC, altitudeM },
      })),
    })
    expect(ownAir(fork, noted(12, 900))).toMatchObject({ at: { tempC: 12, altitudeM: 900 } })
    expect(ownAir(fork, noted(12, null))).toMatchObject({ at: null })
    expect(ownAir(fork, noted(0, 0))).toMatchObject({ at: { tempC: 0, altitudeM: 0 } })
  })
})

describe('the linkage of a bike', () => {
  const none = { leverageCurve: null, leverageStart: null, leverageEnd: null }
  it('is what was noted, and nothing of travel over stroke', () => {
    expect(ownLeverage(none, shock)).toBe('leverage')
    expect(ownLeverage({ ...none, leverageStart: 2.9 }, shock)).toBe('leverage')
    expect(ownLeverage(none, null)).toBe('unit')
    expect(ownLeverage({ ...none, leverageStart: 3, leverageEnd: 2 }, shock)).toMatchObject({
      strokeMm: 55,
      leverage: { ratio: [3, 2] },
    })
    expect(
      ownLeverage({ ...none, leverageStart: 3, leverageEnd: 2 }, { ...shock, assumed: ['strokeMm'] }),
    ).toBe('stroke')
  })
})

describe('the rebound dial of a bike', () => {
  it('is one whose clicks were counted, where it was counted to stand', () => {
    expect(ownRebound(shock, onBike())).toMatchObject({ adjuster: { id: 'rr', clicks: 14 }, value: 7 })
    expect(ownRebound({ ...shock, assumed: ['rr'] }, onBike())).toBe('dial')
    expect(ownRebound({ ...shock, adjusters: [] }, onBike())).toBe('dial')
    expect(ownRebound(shock, onBike({ assumed: ['rr'] }))).toBe('place')
    expect(ownRebound(null, onBike())).toBe('unit')
  })
})

describe('how a bike comes back', () => {
  const bike = { rearWheelTravelMm: 150, assumed: [] as string[] }
  const both = (end: 'front' | 'rear') => (end === 'front' ? fork : shock)

  it('is the rear with the spring it sits on, along the wheel', () => {
    expect(ownReturn(bike, both, onBike())).toEqual({
      adjuster: shock.adjusters.find((a) => a.id === 'rr'),
      value: 7,
      end: 'rear',
      omegaRadS: airFrequencyRadS(shock.sagTargetPct, 180, 1, unitAir(shock).shape, 0.15),
      sagRead: false,
    })
  })
  it('is the fork of a bike that springs at the front only', () => {
    const hardtail = { rearWheelTravelMm: null, assumed: [] }
    expect(ownReturn(hardtail, (end) => (end === 'front' ? fork : null), onBike())).toMatchObject({
      end: 'front',
      omegaRadS: airFrequencyRadS(fork.sagTargetPct, 80, 0, unitAir(fork).shape, fork.strokeMm / 1000),
    })
  })
  it('has no spring that somebody would have to guess', () => {
    for (const now of [onBike({ assumed: ['rp'] }), onBike({ unread: ['rs'] })])
      expect(ownReturn(bike, both, now)).toMatchObject({ value: 7, omegaRadS: null, sagRead: false })
    expect(ownReturn({ ...bike, assumed: ['rearWheelTravelMm'] }, both, onBike())).toMatchObject({
      omegaRadS: null,
    })
  })
  it('is nothing without a counted dial', () => {
    expect(ownReturn(bike, both, onBike({ assumed: ['rr'] }))).toBe('place')
    expect(ownReturn(bike, (end) => (end === 'front' ? fork : { ...shock, assumed: ['rr'] }), onBike())).toBe(
      'dial',
    )
  })
})

describe('two compression dials', () => {
  const high = { ...fork.adjusters.find((a) => a.id === 'fc')!, id: 'fh', role: 'high-speed-compression' }
  const two = { ...fork, adjusters: [...fork.adjusters, high as (typeof fork.adjusters)[number]] }
  const now = onBike()
  const withHigh: Setup = {
    ...now,
    positions: [
      ...now.positions,
      { ...now.positions.find((p) => p.adjusterId === 'fc')!, adjusterId: 'fh', value: 3 },
    ],
  }
  it('are told apart, each where it was counted', () => {
    expect(ownCompression(two, withHigh)).toMatchObject({ low: { value: 8 }, high: { value: 3 } })
  })
  it('are both needed, counted, and at a known place', () => {
    expect(ownCompression(null, now)).toBe('unit')
    expect(ownCompression(fork, now)).toBe('two-dials')
    expect(ownCompression({ ...two, assumed: ['fh'] }, withHigh)).toBe('two-dials')
    expect(ownCompression(two, now)).toBe('two-places')
  })
})
