import type { LiveSample, LoggerChannel, LoggerState } from '#contract/logger'
import type { FaultName } from './faults.ts'

export const watchRules = {
  /** A live stream silent for so long dropped out. */
  silentMs: 700,
  dropOutsToTell: 2,
  /** The device's clock may run apart from ours by so much from sample to sample. */
  clockApartMs: 60_000,
  flatPct: 10,
  /** So many samples in a row at the highest reading. */
  atLimit: 8,
} as const

/** What a live stream has shown so far; grows with each sample, for as long as the connection lasts. */
export interface LiveWatch {
  lastSeenMs: number | null
  lastClockMs: number | null
  dropOuts: number
  clockJumps: number
  /** Samples in a row at the limit, by channel. */
  atLimit: Record<string, number>
  limited: string[]
}

export const freshWatch = (): LiveWatch => ({
  lastSeenMs: null,
  lastClockMs: null,
  dropOuts: 0,
  clockJumps: 0,
  atLimit: {},
  limited: [],
})

/**
 * The watch after one more sample.
 * @param seenMs when it arrived here, ms on any steady clock
 * @param pace how many device seconds pass in one of ours: 1, or the speed of a stand-in
 */
export function watchSample(
  w: LiveWatch,
  sample: LiveSample,
  seenMs: number,
  channels: readonly LoggerChannel[],
  pace = 1,
): LiveWatch {
  const r = watchRules
  const silent = w.lastSeenMs !== null && seenMs - w.lastSeenMs > r.silentMs
  const clockStep = w.lastClockMs === null ? 0 : sample.clockMs - w.lastClockMs
  const ourStep = w.lastSeenMs === null ? 0 : (seenMs - w.lastSeenMs) * pace
  const jumped = w.lastClockMs !== null && Math.abs(clockStep - ourStep) > r.clockApartMs * Math.max(1, pace)
  const atLimit: Record<string, number> = {}
  for (const c of channels) {
    const v = sample.values[c.key]
    atLimit[c.key] =
      c.high !== null && v !== null && v !== undefined && v >= c.high ? (w.atLimit[c.key] ?? 0) + 1 : 0
  }
  const limited = channels
    .filter((c) => w.limited.includes(c.key) || atLimit[c.key] >= r.atLimit)
    .map((c) => c.key)
  return {
    lastSeenMs: seenMs,
    lastClockMs: sample.clockMs,
    dropOuts: w.dropOuts + (silent ? 1 : 0),
    clockJumps: w.clockJumps + (jumped ? 1 : 0),
    atLimit,
    limited,
  }
}

/** Faults that the stream and the state tell of. */
export function watchFaults(w: LiveWatch, state: LoggerState | null): FaultName[] {
  const found: FaultName[] = []
  if (state && state.batteryPct < watchRules.flatPct) found.push('battery')
  if (w.dropOuts >= watchRules.dropOutsToTell) found.push('drop-outs')
  if (w.clockJumps > 0) found.push('clock-jump')
  if (w.limited.length > 0) found.push('range')
  return found
}

/** Faults that an import's issues tell of. */
export function importFaults(codes: readonly string[]): FaultName[] {
  const of: Record<string, FaultName> = {
    leak: 'leak',
    gaps: 'drop-outs',
    'clock-jump': 'clock-jump',
    'clock-reset': 'clock-jump',
    clipped: 'range',
  }
  return [...new Set(codes.flatMap((c) => of[c] ?? []))]
}
