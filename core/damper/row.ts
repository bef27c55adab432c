import { shareLeft } from './recovery.ts'

/**
 * Depth along a row of equal hits: each pushes the unit in by so much at once, and between two it comes back as a free
 * return does. Extended it rests on its top-out; at the end of its travel it stops.
 *
 * @param addedPct depth each hit adds, % of travel
 * @param gapS     from one hit to the next, s
 * @returns [time s, depth % of travel], `perGap` points for each hit, with the jump of the hit as two points at one time
 */
export function rowOfHits(
  hits: number,
  addedPct: number,
  gapS: number,
  omegaRadS: number,
  ratio: number,
  perGap = 24,
): [number, number][] {
  const out: [number, number][] = [[0, 0]]
  let depth = 0
  for (let n = 0; n < hits; n++) {
    depth = Math.min(100, depth + addedPct)
    for (let i = 0; i <= perGap; i++) {
      const t = (i / perGap) * gapS
      out.push([n * gapS + t, Math.max(0, depth * shareLeft(t, omegaRadS, ratio))])
    }
    depth = out[out.length - 1][1]
  }
  return out
}

/** Share of the depth that a release swings past its rest: e^(−πζ/√(1−ζ²)); 0 from ζ = 1 on. */
export const overshoot = (ratio: number): number =>
  ratio >= 1 ? 0 : Math.exp((-Math.PI * ratio) / Math.sqrt(1 - ratio * ratio))
