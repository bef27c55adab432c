import { normal80 } from './normal.ts'

/** Student's t, two-sided 80 %, by degrees of freedom 1 … 10. Source: standard tables (NIST handbook 1.3.6.7.2). */
const t80 = [3.078, 1.886, 1.638, 1.533, 1.476, 1.44, 1.415, 1.397, 1.383, 1.372]

/**
 * How far the means of so many runs must differ before repeats cannot explain it (80 %): t · sd · √(1/a + 1/b).
 * With one repeat the factor is three: a scatter known from one pair is hardly known.
 */
export function clearDifference(noise: { sd: number; degrees: number }, runsA = 1, runsB = 1): number {
  return (t80[noise.degrees - 1] ?? normal80) * noise.sd * Math.sqrt(1 / runsA + 1 / runsB)
}

/**
 * Pooled standard deviation of a figure between runs of the same setup, Σ(x − group mean)² / Σ(n − 1).
 * @returns null without a repeated setup
 */
export function repeatSd(groups: readonly (readonly number[])[]): { sd: number; degrees: number } | null {
  let ss = 0
  let degrees = 0
  for (const g of groups) {
    if (g.length < 2) continue
    const m = g.reduce((s, v) => s + v, 0) / g.length
    ss += g.reduce((s, v) => s + (v - m) ** 2, 0)
    degrees += g.length - 1
  }
  return degrees > 0 ? { sd: Math.sqrt(ss / degrees), degrees } : null
}
