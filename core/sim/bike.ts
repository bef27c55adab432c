import type { Adjuster, AdjusterRole } from '#contract/adjuster'
import type { Bike } from '#contract/bike'
import type { End } from '#contract/common'
import type { AdvisedPosition } from '#contract/setup'
import type { SuspensionUnit } from '#contract/unit'
import { InputError } from '../errors.ts'
import {
  linearLeverage,
  leverageOf,
  shaftMmAt,
  ratioAt,
  wheelTravelMm,
  type Leverage,
} from '../linkage/leverage.ts'
import { coilForceN } from '../spring/coil.ts'
import { netPressurePsi, ridingPressurePsi } from '../spring/air.ts'
import { sprungMassKg, type LoadCase } from '../spring/load.ts'
import { unitAir } from '../spring/unitSpring.ts'
import { paPerPsi, standardGravity } from '../units/convert.ts'
import { usualRatioPerClick } from '../damper/clicks.ts'
import { tabulate } from './endSpring.ts'
import type { DampSlope } from '../damper/force.ts'
import type { HalfCar, SimEnd } from './halfCar.ts'

/** What no record says, taken as usual for a trail bike. */
export const usualFrame = {
  headAngleDeg: 65,
  wheelbaseM: 1.22,
  centreM: 1.05,
  /** Radius of gyration of frame and rider about the pitch axis. */
  gyrationM: 0.42,
  holdNmPerRad: 300,
  holdNmsPerRad: 80,
} as const

const usualWheel = {
  front: { unsprungKg: 3.5, tyreNPerM: 80_000, tyreNsPerM: 150, frictionN: 25 },
  rear: { unsprungKg: 4.2, tyreNPerM: 90_000, tyreNsPerM: 150, frictionN: 18 },
} as const

/** Damping ratio at the axle in the middle of a dial for 80 kg, and what a knee and the slope beyond it are. */
const usualDamper = {
  ridingMassKg: 80,
  rebound: { ratio: 0.62, kneeMS: 0.8, highShare: 0.5 },
  compression: { ratio: 0.22, kneeMS: 0.3, highShare: 0.4 },
  clicksPerTurn: 4,
} as const

/** The spring of an end as it stands, over the stroke of the unit. */
export interface EndSetting {
  unit: SuspensionUnit
  /** Wheel movement over the shaft; null at the front. */
  leverage: Leverage | null
  pressurePsi: number | null
  spacers: number
  /** Stroke share at which it stands still under its load. */
  restShare: number
}

export interface SimBike {
  car: HalfCar
  front: EndSetting | null
  rear: EndSetting | null
}

/**
 * The half-car of a bike as it is set: springs from their records, dampers by clicks from stated usual values, masses
 * from the rider and the usual shares.
 *
 * @param positions canonical, of both ends; what is missing stands in the middle of its range
 * @throws InputError 'mass.missing', 'sim.no-pressure', 'sim.no-spring'
 */
export function simBike(
  bike: Bike,
  units: readonly SuspensionUnit[],
  positions: readonly AdvisedPosition[],
  ridingMassKg: number,
): SimBike {
  const load: LoadCase = {
    ridingMassKg,
    bikeMassKg: bike.massKg,
    eBike: bike.eBike,
    frontSharePct: bike.frontShareReadyPct,
    posture: 'ready',
  }
  const massKg = { front: sprungMassKg('front', load), rear: sprungMassKg('rear', load) }
  const made = (end: End) => {
    const unit = units.find((u) => u.id === (end === 'front' ? bike.frontUnitId : bike.rearUnitId))
    return unit ? suspendedEnd(end, unit, bike, positions, massKg[end], ridingMassKg) : null
  }
  const front = made('front')
  const rear = made('rear')
  const sprungKg = massKg.front + massKg.rear
  const behindM = (usualFrame.wheelbaseM * massKg.front) / sprungKg
  return {
    car: {
      sprungKg,
      pitchKgM2: sprungKg * usualFrame.gyrationM ** 2,
      aheadM: usualFrame.wheelbaseM - behindM,
      behindM,
      centreM: usualFrame.centreM,
      front: front?.end ?? rigidEnd('front'),
      rear: rear?.end ?? rigidEnd('rear'),
      holdNmPerRad: usualFrame.holdNmPerRad,
      holdNmsPerRad: usualFrame.holdNmsPerRad,
    },
    front: front?.setting ?? null,
    rear: rear?.setting ?? null,
  }
}

/** No unit: the frame gives by a few millimetres, stiffly. */
function rigidEnd(end: End): SimEnd {
  const stiff: DampSlope = { lowNsPerM: 900, highNsPerM: 900, kneeMS: 1 }
  return {
    ...usualWheel[end],
    travelM: 0.02,
    springN: tabulate((u) => 250_000 * 0.02 * u),
    shaftPerAxle: tabulate(() => 1),
    compression: stiff,
    rebound: stiff,
    frictionN: 0,
  }
}

function suspendedEnd(
  end: End,
  unit: SuspensionUnit,
  bike: Bike,
  positions: readonly AdvisedPosition[],
  massKg: number,
  ridingMassKg: number,
): { end: SimEnd; setting: EndSetting } {
  const value = (role: AdjusterRole) => {
    const a = unit.adjusters.find((x) => x.role === role)
    if (!a) return null
    return { a, at: positions.find((p) => p.adjusterId === a.id)?.value ?? middleOf(a) }
  }
  const stroke = unit.strokeMm
  const leverage = end === 'rear' ? rearLeverage(bike, stroke) : null
  const sin = Math.sin((usualFrame.headAngleDeg * Math.PI) / 180)
  const travelM = leverage ? wheelTravelMm(stroke, leverage) / 1000 : (stroke * sin) / 1000
  const strokeShare = leverage
    ? (u: number) => shaftMmAt(u * travelM * 1000, leverage) / stroke
    : (u: number) => u
  const shaftPerAxle = leverage
    ? (u: number) => 1 / ratioAt(leverage, strokeShare(u) * stroke).ratio
    : () => 1 / sin
  const pressurePsi = value('main-pressure')?.at ?? null
  const spacers = value('spacers')?.at ?? 0
  let unitForceN: (share: number) => number
  let restShare = 0
  const loadN = massKg * standardGravity
  const restIn = (force: (share: number) => number) => {
    let [low, high] = [0, 1]
    for (let i = 0; i < 60; i++) {
      const u = (low + high) / 2
      if (force(strokeShare(u)) * shaftPerAxle(u) < loadN) low = u
      else high = u
    }
    return strokeShare((low + high) / 2)
  }
  if (unit.spring === 'air') {
    if (pressurePsi === null) throw new InputError('sim.no-pressure', { end })
    const { shape, pistonAreaCm2 } = unitAir(unit)
    const newtonPerPsi = (pistonAreaCm2 / 1e4) * paPerPsi
    restShare = restIn((u) => newtonPerPsi * netPressurePsi(u, pressurePsi, shape, { spacers }))
    const settled = { restShare, warmth: 1 }
    unitForceN = (u) => newtonPerPsi * ridingPressurePsi(u, pressurePsi, shape, settled, { spacers }).netPsi
  } else {
    const rate = value('spring-rate')?.at
    if (rate === undefined) throw new InputError('sim.no-spring', { end })
    const preloadMm = (value('preload')?.at ?? 0) * unit.preloadPitchMm
    unitForceN = (u) => coilForceN({ rateNPerMm: rate, ratePoints: null }, u * stroke, preloadMm)
    restShare = restIn(unitForceN)
  }
  const springN = tabulate((u) => unitForceN(strokeShare(u)) * shaftPerAxle(u))
  // What a dial does is stated for 80 kg on the target sag: then √(k·m) grows with the mass alone.
  const usualKg = (massKg * usualDamper.ridingMassKg) / ridingMassKg
  const usualNPerM = (usualKg * standardGravity * 1.1) / ((unit.sagTargetPct / 100) * travelM)
  const axleNsPerM = 2 * Math.sqrt(usualNPerM * usualKg)
  const per = shaftPerAxle(0.3)
  const slope = (direction: 'rebound' | 'compression'): DampSlope => {
    const d = usualDamper[direction]
    const low = value(`low-speed-${direction}`) ?? value(direction)
    const high = value(`high-speed-${direction}`)
    const lowNsPerM = (d.ratio * axleNsPerM * clickFactor(low, 'low')) / per ** 2
    // With one dial for both, the whole curve moves with it.
    const highBase = high ? (d.ratio * axleNsPerM) / per ** 2 : lowNsPerM
    return {
      lowNsPerM: lowNsPerM * (direction === 'compression' ? leverFactor(value('lever')) : 1),
      highNsPerM: highBase * d.highShare * clickFactor(high, 'high'),
      kneeMS: d.kneeMS * per,
    }
  }
  return {
    end: {
      ...usualWheel[end],
      travelM,
      springN,
      shaftPerAxle: tabulate(shaftPerAxle),
      compression: slope('compression'),
      rebound: slope('rebound'),
    },
    setting: { unit, leverage, pressurePsi, spacers, restShare },
  }
}

function rearLeverage(bike: Bike, strokeMm: number): Leverage {
  const known = leverageOf(bike, strokeMm)
  if (known) return known
  const mean = (bike.rearWheelTravelMm ?? 2.6 * strokeMm) / strokeMm
  return linearLeverage(mean, mean, strokeMm)
}

/** Clicks from closed, or what a turn stands for, against the middle of the dial. */
function clickFactor(dial: { a: Adjuster; at: number } | null, speed: 'low' | 'high'): number {
  if (!dial) return 1
  const { a, at } = dial
  const per = a.kind === 'turn' ? usualDamper.clicksPerTurn : 1
  return usualRatioPerClick[speed] ** ((middleOf(a) - at) * per)
}

/** A lever firms up low-speed compression up to fourfold. */
function leverFactor(lever: { a: Adjuster; at: number } | null): number {
  if (lever?.a.kind !== 'lever') return 1
  return 4 ** (lever.at / (lever.a.positions.length - 1))
}

function middleOf(a: Adjuster): number {
  switch (a.kind) {
    case 'click':
      return a.clicks / 2
    case 'turn':
      return a.turns / 2
    case 'pressure':
      return (a.minPsi + a.maxPsi) / 2
    case 'spring-rate':
      return a.ratesNPerMm[Math.floor(a.ratesNPerMm.length / 2)]
    case 'spacer':
    case 'lever':
      return 0
    case 'custom':
      return (a.min + a.max) / 2
  }
}
