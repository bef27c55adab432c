/** Leverage that runs straight from `start` to `end` over the stroke; wheel travel is its integral. */
export interface LinearLeverage {
  start: number
  end: number
  strokeMm: number
}

/** Share of wheel travel at a share of the stroke, both %; on a progressive linkage the two differ. */
export function axlePct(shaftPct: number, start: number, end: number): number {
  const l = { start, end, strokeMm: 100 }
  return (100 * wheelTravelMm(shaftPct, l)) / wheelTravelMm(100, l)
}

/** z(s) = ∫ LR ds = LR₀·s + (LR₁ − LR₀)·s²/(2·stroke), mm at the axle. */
export function wheelTravelMm(shaftMm: number, l: LinearLeverage): number {
  return l.start * shaftMm + ((l.end - l.start) * shaftMm * shaftMm) / (2 * l.strokeMm)
}
