/** Leverage that runs straight from `start` to `end` over the stroke; wheel travel is its integral. */
export interface LinearLeverage {
  start: number
  end: number
  strokeMm: number
}

/** z(s) = ∫ LR ds = LR₀·s + (LR₁ − LR₀)·s²/(2·stroke), mm at the axle. */
export function wheelTravelMm(shaftMm: number, l: LinearLeverage): number {
  return l.start * shaftMm + ((l.end - l.start) * shaftMm * shaftMm) / (2 * l.strokeMm)
}
