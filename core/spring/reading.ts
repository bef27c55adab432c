import { InputError } from '../errors.ts'
import { shaftMmAt, wheelTravelMm, type Leverage } from '../linkage/leverage.ts'
import { median } from '../signal/quantile.ts'
import { ringPrecisionMm, strokePct } from './sag.ts'

/** Which edge of the ring was read; it is about 2 mm thick, so it matters. */
export type RingEdge = 'facing-wiper' | 'far-edge'
export const ringThicknessMm = 2
/** Sags that anybody rides, % of the unit's travel. */
export const usualSagRangePct = [8, 45] as const

/** How far the unit stood compressed, from what was measured. */
export type SagMeasurement =
  | { method: 'ring'; ringMm: number; edge: RingEdge }
  | { method: 'eye-to-eye'; freeMm: number; loadedMm: number }
  | { method: 'wheel'; unloadedMm: number; loadedMm: number }

/**
 * Sag at the unit, mm along its own stroke, from a ring, two lengths between the eyes, or two heights at the wheel.
 * Eye to eye: free − loaded. Wheel: unloaded − loaded, brought to the shaft through the linkage; without a linkage by
 * the average leverage, which on a progressive linkage is only near.
 *
 * @param wheelTravelMmWhole wheel travel of a rear unit without known linkage; null at the front
 * @throws InputError 'sag.…' with what is right
 */
export function sagAtUnitMm(
  m: SagMeasurement,
  strokeMm: number,
  leverage: Leverage | null,
  wheelTravelMmWhole: number | null,
): number {
  if (!(strokeMm > 0)) throw new InputError('sag.stroke', { got: strokeMm })
  const mm = unitMm(m, strokeMm, leverage, wheelTravelMmWhole)
  if (!(mm >= 0)) throw new InputError('sag.negative')
  if (mm > strokeMm + 1e-9) throw new InputError('sag.ring-beyond-stroke', { ringMm: round1(mm), strokeMm })
  return Math.min(mm, strokeMm)
}

const round1 = (x: number) => Math.round(x * 10) / 10

function unitMm(m: SagMeasurement, strokeMm: number, l: Leverage | null, wheelMm: number | null): number {
  switch (m.method) {
    case 'ring':
      // The far edge lies a ring further from the wiper than the place the wiper pushed it to.
      return m.edge === 'far-edge' ? Math.max(0, m.ringMm - ringThicknessMm) : m.ringMm
    case 'eye-to-eye':
      if (!(m.loadedMm <= m.freeMm))
        throw new InputError('sag.eyes', { freeMm: m.freeMm, loadedMm: m.loadedMm })
      return m.freeMm - m.loadedMm
    case 'wheel': {
      const moved = m.unloadedMm - m.loadedMm
      const travelMm = l ? wheelTravelMm(strokeMm, l) : wheelMm
      if (travelMm === null) throw new InputError('sag.no-linkage')
      if (moved > travelMm)
        throw new InputError('sag.wheel-beyond-travel', { got: round1(moved), travelMm: round1(travelMm) })
      return l ? shaftMmAt(moved, l) : (moved / travelMm) * strokeMm
    }
  }
}

/**
 * Whether a number was most likely typed in the other unit: read as typed it lies far from the target, read the other way
 * it lies at it. Worth a question before it counts.
 *
 * @param typed    the bare number
 * @param as       how it was said to be meant
 * @returns what it then means in mm at the unit, or null when there is nothing to ask
 */
export function unitSlipMm(
  typed: number,
  as: 'mm' | 'per-cent',
  strokeMm: number,
  targetPct: number,
): number | null {
  const asMm = strokePct(typed, strokeMm)
  const [meant, other] = as === 'mm' ? [asMm, typed] : [typed, asMm]
  const atTarget = Math.abs(other - targetPct) <= 4 && Math.abs(meant - targetPct) > 10
  // Far from any sag that is ridden, and the other reading is one: 30 of 55 mm is hardly 55 %.
  const oddAsTyped = meant < usualSagRangePct[0] || meant > usualSagRangePct[1]
  const usualOther = other >= usualSagRangePct[0] && other <= usualSagRangePct[1]
  if (!atTarget && !(oddAsTyped && usualOther)) return null
  return as === 'mm' ? (typed / 100) * strokeMm : typed
}

/** How repeats under equal conditions agree. */
export interface RepeatJudgement {
  /** Mean of the readings that agree; null while two disagree and neither is known to be the odd one. */
  meanPct: number | null
  rangePct: number
  /** Indexes of readings that stand apart from the others. */
  outlying: number[]
  /** Whether another reading is worth taking. */
  again: boolean
}

/** From three readings on, one that lies this far from the median stands apart, % points. */
const outlyingPct = 3

/** How far two readings of one truth may lie apart: each is good to the ring's precision, mm. */
export const repeatPrecisionMm = Math.SQRT2 * ringPrecisionMm

/**
 * Judges readings at one pressure and posture: mean, range, and any that stands apart. From three on by its distance from
 * the median, which the odd one cannot drag along; of two that differ by more than the ring's precision neither is known
 * to be the odd one, so they give no number.
 * @param sagPct at least one
 * @param strokeMm > 0
 */
export function judgeRepeats(sagPct: readonly number[], strokeMm: number): RepeatJudgement {
  const rangePct = Math.max(...sagPct) - Math.min(...sagPct)
  const middle = median(sagPct)
  const disagree = sagPct.length === 2 && (rangePct / 100) * strokeMm > repeatPrecisionMm
  const outlying =
    sagPct.length === 2
      ? disagree
        ? [0, 1]
        : []
      : sagPct.flatMap((x, i) => (Math.abs(x - middle) > outlyingPct ? [i] : []))
  const agreeing = sagPct.filter((_, i) => !outlying.includes(i))
  return {
    meanPct: agreeing.length ? agreeing.reduce((a, b) => a + b, 0) / agreeing.length : null,
    rangePct,
    outlying,
    again: outlying.length > 0,
  }
}
