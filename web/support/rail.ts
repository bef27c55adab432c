import type { Adjuster } from '#contract/adjuster'
import { adjusterRange } from '#core/adjusters/range'

/** Where things stand on a click rail, 0 (left: closed, slow, firm end of a dial) … 1. */
export interface RailScale {
  min: number
  max: number
  /** Share along the rail of a canonical position. */
  at: (value: number) => number
  /** Nearest position that the part can take, for a share along the rail. */
  valueAt: (share: number) => number
  notches: { value: number; major: boolean }[]
}

const mostNotches = 42

/**
 * A rail for any adjuster. Dials show their whole range; pressure shows a window around where it is, since ±1 psi
 * on a 300 psi scale could be neither seen nor hit.
 */
export function railScale(a: Adjuster, around: readonly number[]): RailScale {
  const r = adjusterRange(a)
  let { min, max } = r
  // Where nothing is known of a pressure, the whole range is shown.
  if (a.kind === 'pressure' && around.length > 0) {
    const middle = (Math.min(...around) + Math.max(...around)) / 2
    const half = Math.max(15, middle * 0.16, (Math.max(...around) - Math.min(...around)) * 0.8)
    min = Math.max(r.min, Math.floor((middle - half) / 5) * 5)
    max = Math.min(r.max, Math.ceil((middle + half) / 5) * 5)
  }
  const step = notchStep(a, r.step, max - min)
  const positions =
    r.allowed ?? Array.from({ length: Math.round((max - min) / step) + 1 }, (_, i) => min + i * step)
  const majorEvery = a.kind === 'pressure' ? (max - min > 100 ? 50 : 10) : a.kind === 'click' ? 5 * step : 1
  const at = (value: number) => (max === min ? 0.5 : (value - min) / (max - min))
  return {
    min,
    max,
    at,
    valueAt: (share) => {
      const wish = min + share * (max - min)
      const fine =
        r.allowed ??
        (a.kind === 'pressure'
          ? null
          : Array.from({ length: Math.round((max - min) / r.step) + 1 }, (_, i) => min + i * r.step))
      if (fine) return fine.reduce((b, v) => (Math.abs(v - wish) < Math.abs(b - wish) ? v : b))
      return Math.min(max, Math.max(min, Math.round(wish)))
    },
    notches: positions.map((value) => ({
      value,
      major: Math.abs(value / majorEvery - Math.round(value / majorEvery)) < 1e-6,
    })),
  }
}

function notchStep(a: Adjuster, step: number, span: number): number {
  let s = a.kind === 'pressure' ? 5 : step || 1
  while (span / s > mostNotches) s *= 2
  return s
}

/** One step with an arrow key, or null at the end. */
export function railStep(a: Adjuster, value: number, direction: 1 | -1): number | null {
  const r = adjusterRange(a)
  if (r.allowed) return r.allowed[r.allowed.findIndex((x) => Math.abs(x - value) < 1e-6) + direction] ?? null
  const to = value + direction * (a.kind === 'pressure' ? 1 : r.step)
  return to < r.min - 1e-9 || to > r.max + 1e-9 ? null : to
}
