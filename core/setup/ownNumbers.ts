import type { Adjuster } from '#contract/adjuster'
import type { Bike } from '#contract/bike'
import type { Position, Setup } from '#contract/setup'
import type { SuspensionUnit } from '#contract/unit'
import type { End } from '#contract/common'
import { airFrequencyRadS } from '../damper/recovery.ts'
import { leverageOf, type Leverage } from '../linkage/leverage.ts'
import type { AirSpringShape } from '../spring/air.ts'
import { unitAir } from '../spring/unitSpring.ts'
import { knownSagPct } from './sagOf.ts'

// What a figure one plays with may open with: numbers that somebody set, read or noted, and no others.

/** What is not known of a bike that a figure needs. */
export type Lacking =
  | 'unit'
  | 'air'
  | 'chambers'
  | 'pressure'
  | 'spacers'
  | 'sag'
  | 'stroke'
  | 'leverage'
  | 'dial'
  | 'place'
  | 'two-dials'
  | 'two-places'
  | 'repeats'

/** An air spring as it stands on the bike. */
export interface OwnAir {
  strokeMm: number
  sagTargetPct: number
  /** Gauge pressure, psi, and what the unit takes. */
  pressurePsi: number
  leastPsi: number
  mostPsi: number
  /** A unit without a place for spacers has none. */
  spacers: number
  mostSpacers: number
  shape: AirSpringShape
  /** Whether the chambers are the unit's own; else the usual ones of a fork or a shock. */
  ownShape: boolean
  /** % of stroke, read at this pressure; null: nobody has. */
  sagPct: number | null
  /** Air and height the pressure was set or read in; null: not noted. */
  at: { tempC: number; altitudeM: number } | null
}

/** Somebody turned, pumped, counted or measured it. */
const knownAt = (now: Setup, a: Adjuster | undefined): Position | undefined =>
  a && now.positions.find((p) => p.adjusterId === a.id && p.known.how !== 'assumed')

/** The air spring of an end with what stands on the bike now, or the first thing that is not known of it. */
export function ownAir(unit: SuspensionUnit | null, now: Setup): OwnAir | Lacking {
  if (!unit) return 'unit'
  const air = unit.adjusters.find((a) => a.role === 'main-pressure')
  if (unit.spring !== 'air' || air?.kind !== 'pressure') return 'air'
  if (unit.assumed.includes('strokeMm')) return 'stroke'
  const psi = knownAt(now, air)
  if (!psi) return 'pressure'
  const place = unit.adjusters.find((a) => a.kind === 'spacer')
  const spacers = place ? knownAt(now, place)?.value : 0
  if (spacers === undefined) return 'spacers'
  const { shape, own } = unitAir(unit)
  const { airTempC: tempC, altitudeM } = psi.known
  return {
    strokeMm: unit.strokeMm,
    sagTargetPct: unit.sagTargetPct,
    pressurePsi: psi.value,
    leastPsi: air.minPsi,
    mostPsi: air.maxPsi,
    spacers,
    mostSpacers: place?.kind === 'spacer' ? place.maxCount : 0,
    shape,
    ownShape: own,
    sagPct: knownSagPct([now], now, unit),
    at: tempC !== null && altitudeM !== null ? { tempC, altitudeM } : null,
  }
}

/** Stroke and leverage of the rear, or the first thing that nobody has noted of them. */
export function ownLeverage(
  bike: Pick<Bike, 'leverageCurve' | 'leverageStart' | 'leverageEnd'>,
  shock: SuspensionUnit | null,
): { strokeMm: number; leverage: Leverage } | Lacking {
  if (!shock) return 'unit'
  if (shock.assumed.includes('strokeMm')) return 'stroke'
  const leverage = leverageOf(bike, shock.strokeMm)
  return leverage ? { strokeMm: shock.strokeMm, leverage } : 'leverage'
}

type Clicks = Extract<Adjuster, { kind: 'click' }>

/** A dial whose clicks were counted, and where it was counted or turned to, from closed. */
export interface OwnDial {
  adjuster: Clicks
  value: number
}

/** The rebound dial of a unit and where it was counted or turned to, or what is not known of it. */
export function ownRebound(unit: SuspensionUnit | null, now: Setup): OwnDial | Lacking {
  if (!unit) return 'unit'
  const dial = unit.adjusters.find((a): a is Clicks => a.kind === 'click' && a.role.endsWith('rebound'))
  if (!dial || unit.assumed.includes(dial.id)) return 'dial'
  const at = knownAt(now, dial)
  return at ? { adjuster: dial, value: at.value } : 'place'
}

/** How an end comes back: its rebound dial, and how quickly its spring swings. */
export interface OwnReturn extends OwnDial {
  end: End
  /** Natural frequency at sag, rad/s; null: of a coil, or of an air spring of which something is not known. */
  omegaRadS: number | null
  /** Whether sag was read at this pressure; else its target is taken for it. */
  sagRead: boolean
}

/** The way back of the rear, or of a fork where nothing springs at the rear; or what is not known of it. */
export function ownReturn(
  bike: Pick<Bike, 'rearWheelTravelMm' | 'assumed'>,
  unitAt: (end: End) => SuspensionUnit | null,
  now: Setup,
): OwnReturn | Lacking {
  const end: End = unitAt('rear') ? 'rear' : 'front'
  const unit = unitAt(end)
  const dial = ownRebound(unit, now)
  if (typeof dial === 'string') return dial
  const air = ownAir(unit, now)
  const wheel = bike.assumed.includes('rearWheelTravelMm') ? null : bike.rearWheelTravelMm
  const travelMm = end === 'front' ? unit!.strokeMm : wheel
  const known = typeof air !== 'string' && travelMm !== null
  return {
    ...dial,
    end,
    omegaRadS: known
      ? airFrequencyRadS(
          air.sagPct ?? air.sagTargetPct,
          air.pressurePsi,
          air.spacers,
          air.shape,
          travelMm / 1000,
        )
      : null,
    sagRead: known && air.sagPct !== null,
  }
}

/** Low- and high-speed compression of one end with where they were counted to stand, or what is not known of them. */
export function ownCompression(
  unit: SuspensionUnit | null,
  now: Setup,
): { low: OwnDial; high: OwnDial } | Lacking {
  if (!unit) return 'unit'
  const found = (role: Adjuster['role']): OwnDial | Lacking => {
    const dial = unit.adjusters.find((a): a is Clicks => a.kind === 'click' && a.role === role)
    if (!dial || unit.assumed.includes(dial.id)) return 'two-dials'
    const at = knownAt(now, dial)
    return at ? { adjuster: dial, value: at.value } : 'two-places'
  }
  const low = found('low-speed-compression')
  if (typeof low === 'string') return low
  const high = found('high-speed-compression')
  return typeof high === 'string' ? high : { low, high }
}
