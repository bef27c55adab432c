import type { Adjuster } from '#contract/adjuster'

export interface AdjusterRange {
  /** Lowest and highest canonical position. */
  min: number
  max: number
  /** Smallest step the part can be set to; for springs, 0: see `allowed`. */
  step: number
  /** The only positions there are, sorted, where they are not evenly spaced. */
  allowed: number[] | null
}

/** What positions an adjuster can stand in, in its canonical number. */
export function adjusterRange(a: Adjuster): AdjusterRange {
  switch (a.kind) {
    case 'click':
      return { min: 0, max: a.clicks, step: a.step, allowed: null }
    case 'turn':
      return { min: 0, max: a.turns, step: a.stepTurns, allowed: null }
    case 'pressure':
      return { min: a.minPsi, max: a.maxPsi, step: a.stepPsi, allowed: null }
    case 'spacer':
      return { min: 0, max: a.maxCount, step: 1, allowed: null }
    case 'spring-rate': {
      const rates = [...a.ratesNPerMm].sort((x, y) => x - y)
      return { min: rates[0], max: rates[rates.length - 1], step: 0, allowed: rates }
    }
    case 'lever':
      return { min: 0, max: a.positions.length - 1, step: 1, allowed: null }
    case 'custom':
      return { min: a.min, max: a.max, step: a.step, allowed: null }
  }
}

// Steps such as 1/3 turn are not exact in binary; a thousandth of a step is far below what a hand can set.
const slack = 1e-3

/** Whether the part can stand at `value`. Pressure may be any psi inside its limits: a gauge is not a dial. */
export function canStandAt(a: Adjuster, value: number): boolean {
  const r = adjusterRange(a)
  if (!Number.isFinite(value)) return false
  if (r.allowed) return r.allowed.some((x) => Math.abs(x - value) < 1e-6)
  if (value < r.min - slack * r.step || value > r.max + slack * r.step) return false
  if (a.kind === 'pressure') return true
  const steps = (value - r.min) / r.step
  return Math.abs(steps - Math.round(steps)) < slack
}

/** Nearest position the part can stand in. */
export function clampToRange(a: Adjuster, value: number): number {
  const r = adjusterRange(a)
  if (r.allowed)
    return r.allowed.reduce((best, x) => (Math.abs(x - value) < Math.abs(best - value) ? x : best))
  const inside = Math.min(r.max, Math.max(r.min, value))
  if (a.kind === 'pressure') return inside
  return Math.min(r.max, r.min + Math.round((inside - r.min) / r.step) * r.step)
}

/** The places next below and next above a value that the part can stand at; one of them twice where it stands there, or beyond an end. */
export function placesAround(a: Adjuster): (value: number) => [number, number] {
  const { min, max, step, allowed } = adjusterRange(a)
  const at = (steps: number) => Math.min(max, min + steps * step)
  return (value) => {
    const inside = Math.min(max, Math.max(min, value))
    if (allowed)
      return [
        allowed.findLast((x) => x <= inside) ?? allowed[0],
        allowed.find((x) => x >= inside) ?? allowed[allowed.length - 1],
      ]
    const steps = (inside - min) / step
    return [at(Math.floor(steps)), at(Math.ceil(steps))]
  }
}
