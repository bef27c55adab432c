import type { CleanRecording } from '../telemetry/cleanRecording.ts'

/** A clean two-ended recording from formulas: depth in % of travel over time in s. */
export function recordingOf(
  front: (tS: number) => number,
  rear: ((tS: number) => number) | null,
  options: { durationS?: number; sampleRateHz?: number; travelMm?: number } = {},
): CleanRecording {
  const { durationS = 20, sampleRateHz = 500, travelMm = 150 } = options
  const samples = Math.round(durationS * sampleRateHz)
  const make = (f: (t: number) => number) =>
    Float64Array.from({ length: samples }, (_, i) => f(i / sampleRateHz))
  return {
    sampleRateHz,
    samples,
    ends: rear ? ['front', 'rear'] : ['front'],
    depthPct: rear ? { front: make(front), rear: make(rear) } : { front: make(front) },
    travelMm: { front: travelMm, rear: travelMm },
    rearAt: 'axle',
    speedMS: null,
    distanceM: null,
    barG: null,
    axleG: {},
    startEpochS: null,
    issues: [],
  }
}

/** Free decay from `from` to `rest` that starts at t = 0 with no speed: natural frequency in Hz, damping ratio < 1. */
export function decay(tS: number, from: number, rest: number, naturalHz: number, zeta: number): number {
  const w = 2 * Math.PI * naturalHz
  const wd = w * Math.sqrt(1 - zeta * zeta)
  return (
    rest +
    (from - rest) *
      Math.exp(-zeta * w * tS) *
      (Math.cos(wd * tS) + (zeta / Math.sqrt(1 - zeta * zeta)) * Math.sin(wd * tS))
  )
}

/** Smooth bump of unit height and `widthS` duration centred at 0. */
export function bump(tS: number, widthS: number): number {
  return Math.abs(tS) >= widthS / 2 ? 0 : 0.5 * (1 + Math.cos((2 * Math.PI * tS) / widthS))
}
