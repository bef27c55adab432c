import { InputError } from '../errors.ts'
import { valleyOf } from '../numeric/root.ts'
import {
  netPressurePsi,
  netSlopePsi,
  pressureForLoadPsi,
  seaLevelPa,
  strokeShareAt,
  type AirSpringShape,
} from './air.ts'

/** One still reading of an air unit. */
export interface AirReading {
  sagPct: number
  pressurePsi: number
  spacers: number
}

export interface SolverOptions {
  shape: AirSpringShape
  strokeMm: number
  targetPct: number
  /** Spacers to solve for. */
  spacers: number
  minPsi: number
  maxPsi: number
  ambientPa?: number
  /** Standard errors of one reading. */
  ringMm?: number
  gaugePsi?: number
}

export interface SagSolution {
  /** What to set: inside the unit's limits. */
  pressurePsi: number
  /** One standard deviation of the pressure wished for. */
  spreadPsi: number
  /** Where it will stand at `pressurePsi`, and its one standard deviation. */
  expectedSagPct: number
  expectedSpreadPct: number
  /** What the model wishes, unclamped; null when no pressure from 1 to 500 psi does it. */
  wishedPsi: number | null
  clampedBy: 'min' | 'max' | null
  /** Negative chamber share, fitted from three readings on that span 8 psi; else the shape's own. */
  negativeShare: number
  fitted: boolean
}

/** From three readings on that reach this far apart, they say something about the negative chamber. */
const fitSpanPsi = 8
export const shareBounds = [0.08, 0.9] as const
/** How far units of one kind differ in ln ν; the prior of the fit. */
export const shareSpreadLn = 0.35
/** How far the slope of a unit differs from its assumed shape, as a share. */
const shapeError = 0.25

/**
 * Pressure for a sag target from readings of the same rider on the same unit.
 * The still load over the piston area is one unknown θ = G(u_sag; P); each reading gives one, weighted by its variance
 * from ring and gauge error and from how far it lies from the goal. From three readings on, spanning 8 psi, the negative chamber is fitted too.
 * Source: docs/models.md, "Pressure for a sag target".
 *
 * @throws InputError 'sag.no-reading', 'sag.reading-range' for a sag outside 0 < … < 100 %, air.… from the model
 */
export function solveSag(readings: readonly AirReading[], o: SolverOptions): SagSolution {
  if (readings.length === 0) throw new InputError('sag.no-reading')
  for (const r of readings)
    if (!(r.sagPct > 0 && r.sagPct < 100)) throw new InputError('sag.reading-range', { got: r.sagPct })
  const { strokeMm, ambientPa = seaLevelPa, ringMm = 1, gaugePsi = 1 } = o
  const goal = o.targetPct / 100

  const loads = (negativeShare: number) => {
    const shape = { ...o.shape, negativeShare }
    let sum = 0
    let weights = 0
    const each = readings.map((r) => {
      const u = r.sagPct / 100
      const at = { spacers: r.spacers, ambientPa }
      const theta = netPressurePsi(u, r.pressurePsi, shape, at)
      const byRing = netSlopePsi(u, r.pressurePsi, shape, at) * (ringMm / strokeMm)
      const byGauge = (netPressurePsi(u, r.pressurePsi + 1, shape, at) - theta) * gaugePsi
      // The shape is only near the unit's: a reading far from the goal tells less about it than one close by.
      const byShape = shapeError * netSlopePsi(u, r.pressurePsi, shape, at) * (u - goal)
      const weight = 1 / (byRing ** 2 + byGauge ** 2 + byShape ** 2)
      sum += weight * theta
      weights += weight
      return { theta, weight }
    })
    const mean = sum / weights
    const misfit = each.reduce((s, e) => s + e.weight * (e.theta - mean) ** 2, 0)
    return { mean, misfit, sd: Math.sqrt(1 / weights) }
  }

  const pressures = readings.map((r) => r.pressurePsi)
  const fitted = readings.length >= 3 && Math.max(...pressures) - Math.min(...pressures) >= fitSpanPsi
  const prior = o.shape.negativeShare
  const negativeShare = fitted
    ? valleyOf((nu) => loads(nu).misfit + (Math.log(nu / prior) / shareSpreadLn) ** 2, ...shareBounds, 1e-4)
    : prior
  const shape = { ...o.shape, negativeShare }
  const { mean: load, misfit, sd } = loads(negativeShare)
  // Readings that disagree by more than their errors say so in the spread.
  const loadSd = sd * Math.sqrt(Math.max(1, misfit / Math.max(1, readings.length - 1)))

  const at = { spacers: o.spacers, ambientPa }
  const wishedPsi = pressureOrNull(load, goal, shape, at)
  const clampedBy =
    wishedPsi === null
      ? netPressurePsi(goal, 1, shape, at) > load
        ? 'min'
        : 'max'
      : wishedPsi > o.maxPsi
        ? 'max'
        : wishedPsi < o.minPsi
          ? 'min'
          : null
  const pressurePsi = clampedBy === 'max' ? o.maxPsi : clampedBy === 'min' ? o.minPsi : wishedPsi!
  const u = strokeShareAt(load, pressurePsi, shape, at)
  const perPsi =
    netPressurePsi(goal, pressurePsi + 1, shape, at) - netPressurePsi(goal, pressurePsi, shape, at)
  return {
    pressurePsi,
    spreadPsi: loadSd / perPsi,
    expectedSagPct: 100 * u,
    expectedSpreadPct: (100 * loadSd) / netSlopePsi(u, pressurePsi, shape, at),
    wishedPsi,
    clampedBy,
    negativeShare,
    fitted,
  }
}

function pressureOrNull(
  load: number,
  u: number,
  shape: AirSpringShape,
  at: { spacers: number; ambientPa: number },
): number | null {
  try {
    return pressureForLoadPsi(load, u, shape, at)
  } catch (e) {
    if (e instanceof InputError && e.code === 'root.not-bracketed') return null
    throw e
  }
}
