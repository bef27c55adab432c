import type { EndMotion } from './motion.ts'

/** Both ends against their ride heights, smoothed over half a second: what the rider and the turn do, not the ground. */
export const loadRules = {
  stepS: 0.1,
  smoothSteps: 5,
  /** Braking: front at least so much deeper, rear at least so much higher, for so long. */
  brakeFrontPct: 4,
  brakeRearPct: -2,
  brakeS: 0.5,
  /** A loaded turn or dip: both ends at least so much deeper, for so long. */
  turnPct: 5,
  turnS: 0.6,
} as const

export interface Stretch {
  startS: number
  endS: number
}

/** Stretches of braking and of loaded turns; null with one end only, which cannot tell pitch from load. */
export function loadedStretches(
  motions: readonly EndMotion[],
  rideHeightPct: { front: number; rear: number },
): { brakings: Stretch[]; turns: Stretch[] } | null {
  const front = motions.find((m) => m.end === 'front')
  const rear = motions.find((m) => m.end === 'rear')
  if (!front || !rear) return null
  const r = loadRules
  const f = calm(front)
  const b = calm(rear)
  const where = (leastS: number, is: (front: number, rear: number) => boolean): Stretch[] => {
    const found: Stretch[] = []
    let start = -1
    for (let i = 0; i <= f.length; i++) {
      const on = i < f.length && is(f[i] - rideHeightPct.front, b[i] - rideHeightPct.rear)
      if (on && start < 0) start = i
      if (on || start < 0) continue
      if ((i - start) * r.stepS >= leastS) found.push({ startS: start * r.stepS, endS: i * r.stepS })
      start = -1
    }
    return found
  }
  return {
    brakings: where(r.brakeS, (x, y) => x >= r.brakeFrontPct && y <= r.brakeRearPct),
    turns: where(r.turnS, (x, y) => x >= r.turnPct && y >= r.turnPct),
  }
}

/** Depth per tenth of a second, averaged over half a second. */
function calm(m: EndMotion): Float64Array {
  const { stepS, smoothSteps } = loadRules
  const width = stepS * m.sampleRateHz
  const blocks = Float64Array.from({ length: Math.floor(m.depthPct.length / width) }, (_, k) =>
    meanOf(m.depthPct, Math.round(k * width), Math.round((k + 1) * width)),
  )
  const half = smoothSteps >> 1
  return blocks.map((_, k) => {
    let sum = 0
    for (let i = k - half; i <= k + half; i++) sum += blocks[Math.min(blocks.length - 1, Math.max(0, i))]
    return sum / smoothSteps
  })
}

/** Mean of what is known between two samples; NaN when nothing is. */
function meanOf(x: Float64Array, from: number, to: number): number {
  let sum = 0
  let n = 0
  for (let i = from; i < to; i++) {
    const v = x[i]
    if (v !== v) continue
    sum += v
    n++
  }
  return n ? sum / n : NaN
}
