/** A damper direction by clicks. Piecewise linear in shaft speed with one knee. */
export interface DamperShape {
  /** Low-speed damping fully closed, N·s/m. */
  closedNsPerM: number
  /** Factor per click toward open, < 1: each click scales damping by the same ratio. */
  ratioPerClick: number
  kneeMS: number
  /** High-speed slope over low-speed slope. */
  highShare: number
}

/**
 * Damping force magnitude at a shaft speed.
 * F = c·v up to the knee, then c·v_k + c·share·(v − v_k), with c = closed · ratio^clicks.
 * Ignores: gas force, cavitation, temperature.
 *
 * @param speedMS         ≥ 0
 * @param clicksFromClosed ≥ 0
 * @returns N
 */
export function damperForceN(speedMS: number, clicksFromClosed: number, shape: DamperShape): number {
  const c = shape.closedNsPerM * Math.pow(shape.ratioPerClick, clicksFromClosed)
  if (speedMS <= shape.kneeMS) return c * speedMS
  return c * shape.kneeMS + c * shape.highShare * (speedMS - shape.kneeMS)
}
