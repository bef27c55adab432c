import { InputError } from '../errors.ts'
import { rootOfRising } from '../numeric/root.ts'
import { netPressurePsi, netSlopePsi, type AirSpringShape } from '../spring/air.ts'
import { standardGravity } from '../units/convert.ts'

/**
 * Share of the depth still left a time after release: m·ẍ + c·ẋ + k·x = 0 from x = 1 at rest, in closed form for a
 * damping ratio below, at and above 1. Below 1 it swings through 0 to the other side.
 *
 * @param omegaRadS undamped natural frequency √(k/m), > 0
 * @param ratio     damping ratio ζ ≥ 0
 */
export function shareLeft(timeS: number, omegaRadS: number, ratio: number): number {
  const a = omegaRadS * timeS
  if (Math.abs(ratio - 1) < 1e-6) return (1 + a) * Math.exp(-a)
  if (ratio < 1) {
    const root = Math.sqrt(1 - ratio * ratio)
    return Math.exp(-ratio * a) * (Math.cos(root * a) + (ratio / root) * Math.sin(root * a))
  }
  const root = Math.sqrt(ratio * ratio - 1)
  const slow = ratio - root
  const fast = ratio + root
  return (fast * Math.exp(-slow * a) - slow * Math.exp(-fast * a)) / (2 * root)
}

/** First time at which a share of the depth is left, s. @param share 0 < share < 1 @throws InputError 'damper.positive' */
export function timeToShareS(share: number, omegaRadS: number, ratio: number): number {
  if (!(omegaRadS > 0))
    throw new InputError('damper.positive', { what: 'The natural frequency', got: omegaRadS })
  // It falls from 1 without turning until the first swing through; above ζ = 1 it never turns.
  let late = 4 / omegaRadS
  if (ratio < 1) late = Math.PI / (omegaRadS * Math.sqrt(1 - ratio * ratio))
  else while (shareLeft(late, omegaRadS, ratio) > share) late *= 2
  return rootOfRising((t) => share - shareLeft(t, omegaRadS, ratio), 0, late)
}

/** t₉₀: back by nine tenths, s. */
export const recoveryTimeS = (omegaRadS: number, ratio: number) => timeToShareS(0.1, omegaRadS, ratio)

/**
 * Depth that a long train of hits packs down to: D∞ = δ·(1 − ρ)/ρ, ρ = share recovered between hits.
 * 0 when it is out again before the next hit.
 *
 * @param addedPct depth each hit adds, % of travel
 * @returns % of travel, Infinity when nothing is recovered
 */
export function packedDepthPct(
  addedPct: number,
  spacingM: number,
  speedMS: number,
  omegaRadS: number,
  ratio: number,
): number {
  const recovered = 1 - Math.max(0, shareLeft(spacingM / speedMS, omegaRadS, ratio))
  return recovered > 0 ? (addedPct * (1 - recovered)) / recovered : Infinity
}

/**
 * Speed up to which hits this far apart do not pack: where D∞ reaches a limit.
 * D∞ = L means that L/(δ + L) of the depth is left at the next hit; the time to there is in `timeToShareS`.
 *
 * @param limitPct usually 10 % of travel
 * @returns m/s
 */
export function cleanSpeedMS(
  addedPct: number,
  spacingM: number,
  omegaRadS: number,
  ratio: number,
  limitPct = 10,
): number {
  return spacingM / timeToShareS(limitPct / (addedPct + limitPct), omegaRadS, ratio)
}

/**
 * Natural frequency of an end at sag, rad/s. The load at sag is the weight itself, so mass and piston area cancel:
 * ω² = g·G'(u)/(G(u)·travel), G' with m = 1.3 since it moves. Along the fork's or the wheel's own path.
 *
 * @param travelM fork travel, or wheel travel of the rear
 */
export function airFrequencyRadS(
  sagPct: number,
  pressurePsi: number,
  spacers: number,
  shape: AirSpringShape,
  travelM: number,
): number {
  const u = sagPct / 100
  const slope = netSlopePsi(u, pressurePsi, shape, { spacers, exponent: 1.3 })
  return Math.sqrt((standardGravity * slope) / (netPressurePsi(u, pressurePsi, shape, { spacers }) * travelM))
}

/** The same for a coil: without preload its force is proportional, so ω² = g/sag; preload counts as further sag. */
export function coilFrequencyRadS(sagM: number, preloadM: number): number {
  return Math.sqrt(standardGravity / (sagM + preloadM))
}
