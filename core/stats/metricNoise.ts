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
