import type { Bike } from '#contract/bike'
import { InputError } from '../errors.ts'

/** Leverage over the shaft's stroke, straight between points, with wheel travel integrated up to each point. */
export interface Leverage {
  shaftMm: readonly number[]
  /** Wheel movement per shaft movement, > 0. */
  ratio: readonly number[]
  /** Wheel travel at each point, mm. */
  wheelMm: readonly number[]
}

/**
 * Leverage from points; outside them the first or last ratio holds.
 * @param points shaft position mm, rising; ratio > 0
 * @throws InputError 'leverage.points' when fewer than two or not rising
 */
export function leverageFromPoints(points: readonly { shaftMm: number; ratio: number }[]): Leverage {
  const rising = points.every((p, i) => p.ratio > 0 && (i === 0 || p.shaftMm > points[i - 1].shaftMm))
  if (points.length < 2 || !rising) throw new InputError('leverage.points')
  // From the extended shaft on: a curve measured from 3 mm still starts at 0 mm of travel.
  const from0 = points[0].shaftMm > 0 ? [{ shaftMm: 0, ratio: points[0].ratio }, ...points] : points
  const wheelMm = [0]
  for (let i = 1; i < from0.length; i++) {
    const [a, b] = [from0[i - 1], from0[i]]
    wheelMm.push(wheelMm[i - 1] + ((a.ratio + b.ratio) / 2) * (b.shaftMm - a.shaftMm))
  }
  return { shaftMm: from0.map((p) => p.shaftMm), ratio: from0.map((p) => p.ratio), wheelMm }
}

/** Straight from `start` at full extension to `end` at full compression. */
export const linearLeverage = (start: number, end: number, strokeMm: number): Leverage =>
  leverageFromPoints([
    { shaftMm: 0, ratio: start },
    { shaftMm: strokeMm, ratio: end },
  ])

/** What a bike says of its linkage: its curve, else start and end, else null. */
export function leverageOf(
  bike: Pick<Bike, 'leverageCurve' | 'leverageStart' | 'leverageEnd'>,
  strokeMm: number,
): Leverage | null {
  if (bike.leverageCurve) return leverageFromPoints(bike.leverageCurve)
  const { leverageStart: start, leverageEnd: end } = bike
  return start !== null && end !== null ? linearLeverage(start, end, strokeMm) : null
}

function segmentAt(l: Leverage, values: readonly number[], x: number): number {
  let i = 0
  while (i < l.shaftMm.length - 2 && x > values[i + 1]) i++
  return i
}

/** Slope of the ratio in a segment, 1/mm. */
const slope = (l: Leverage, i: number) => (l.ratio[i + 1] - l.ratio[i]) / (l.shaftMm[i + 1] - l.shaftMm[i])

const last = (l: Leverage) => l.shaftMm.length - 1

/** Leverage ratio and its slope (1/mm) at a shaft position, mm. */
export function ratioAt(l: Leverage, shaftMm: number): { ratio: number; slopePerMm: number } {
  const n = last(l)
  if (shaftMm >= l.shaftMm[n]) return { ratio: l.ratio[n], slopePerMm: slope(l, n - 1) }
  if (shaftMm <= 0) return { ratio: l.ratio[0], slopePerMm: slope(l, 0) }
  const i = segmentAt(l, l.shaftMm, shaftMm)
  return { ratio: l.ratio[i] + slope(l, i) * (shaftMm - l.shaftMm[i]), slopePerMm: slope(l, i) }
}

/** Wheel travel at a shaft position: z(s) = ∫ LR ds, mm at the axle. */
export function wheelTravelMm(shaftMm: number, l: Leverage): number {
  const n = last(l)
  if (shaftMm <= 0) return l.ratio[0] * shaftMm
  if (shaftMm >= l.shaftMm[n]) return l.wheelMm[n] + l.ratio[n] * (shaftMm - l.shaftMm[n])
  const i = segmentAt(l, l.shaftMm, shaftMm)
  const d = shaftMm - l.shaftMm[i]
  return l.wheelMm[i] + d * (l.ratio[i] + (slope(l, i) * d) / 2)
}

/** Shaft position at a wheel travel, mm: the inverse of `wheelTravelMm`, closed form per segment. */
export function shaftMmAt(wheelMm: number, l: Leverage): number {
  const n = last(l)
  if (wheelMm <= 0) return wheelMm / l.ratio[0]
  if (wheelMm >= l.wheelMm[n]) return l.shaftMm[n] + (wheelMm - l.wheelMm[n]) / l.ratio[n]
  const i = segmentAt(l, l.wheelMm, wheelMm)
  const z = wheelMm - l.wheelMm[i]
  const r = l.ratio[i]
  // Root of slope/2·d² + r·d − z in the form that stays exact when the slope vanishes.
  return l.shaftMm[i] + (2 * z) / (r + Math.sqrt(r * r + 2 * slope(l, i) * z))
}

/** Share of wheel travel at a share of the stroke, both %; on a progressive linkage the two differ. */
export function axlePct(shaftPct: number, strokeMm: number, l: Leverage): number {
  return (100 * wheelTravelMm((shaftPct / 100) * strokeMm, l)) / wheelTravelMm(strokeMm, l)
}
