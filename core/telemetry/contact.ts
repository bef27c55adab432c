import type { EndMotion } from './motion.ts'

const airDepthPct = 3
const airLeastS = 0.15
const stillRangePct = 1
const stillWindowS = 2
const stillStepS = 0.5

export interface Contact {
  /** 1 where the bike is moving with a wheel on the ground. */
  riding: Uint8Array
  /** Times in the air as [first sample, first sample after it). */
  flights: [number, number][]
}

/**
 * Splits time into riding, air (every end at ≤ 3 % for ≥ 0.15 s) and standing still (bike speed below 1 m/s; where the
 * speed is not known, 2 s windows in which no end moves by 1 % of travel).
 */
export function contact(motions: readonly EndMotion[], speedMS: Float64Array | null): Contact {
  const n = motions[0].depthPct.length
  const rate = motions[0].sampleRateHz
  const riding = new Uint8Array(n).fill(1)
  const flights: Contact['flights'] = []
  let start = -1
  const first = motions[0].depthPct
  const second = motions.length > 1 ? motions[1].depthPct : first
  for (let i = 0; i <= n; i++) {
    const light = i < n && first[i] <= airDepthPct && second[i] <= airDepthPct
    if (light && start < 0) start = i
    if (light || start < 0) continue
    if (i - start >= airLeastS * rate) {
      riding.fill(0, start, i)
      flights.push([start, i])
    }
    start = -1
  }
  const block = Math.round(stillWindowS * rate)
  const step = Math.max(1, Math.round(stillStepS * rate))
  for (let a = 0; a + block <= n; a += step)
    if (!knownWithin(speedMS, a, a + block) && motions.every((m) => isStill(m.depthPct, a, a + block)))
      riding.fill(0, a, a + block)
  if (speedMS) for (let i = 0; i < n; i++) if (speedMS[i] < 1) riding[i] = 0
  return { riding, flights }
}

function knownWithin(speedMS: Float64Array | null, from: number, to: number): boolean {
  if (!speedMS) return false
  for (let i = from; i < to; i++) if (!Number.isNaN(speedMS[i])) return true
  return false
}

function isStill(x: Float64Array, from: number, to: number): boolean {
  let lo = Infinity
  let hi = -Infinity
  for (let i = from; i < to; i++) {
    if (x[i] < lo) lo = x[i]
    if (x[i] > hi) hi = x[i]
    if (hi - lo >= stillRangePct) return false
  }
  return true
}
