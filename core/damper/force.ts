/** One direction of a damper as it stands, at the shaft: piecewise linear in shaft speed with one knee. */
export interface DampSlope {
  lowNsPerM: number
  highNsPerM: number
  kneeMS: number
}

/**
 * Damping force magnitude at a shaft speed: F = c·v up to the knee, then c·v_k + c_high·(v − v_k).
 * Ignores: gas force, cavitation, temperature.
 *
 * @param speedMS ≥ 0
 * @returns N
 */
export function dampForceN(d: DampSlope, speedMS: number): number {
  return speedMS <= d.kneeMS
    ? d.lowNsPerM * speedMS
    : d.lowNsPerM * d.kneeMS + d.highNsPerM * (speedMS - d.kneeMS)
}
