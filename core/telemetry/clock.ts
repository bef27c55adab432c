import { InputError } from '../errors.ts'
import { median } from '../signal/quantile.ts'

export interface RepairedClock {
  /** Strictly increasing, from 0, s; one entry per kept row. */
  timeS: Float64Array
  /** Index of the file row behind each kept one. */
  rows: Uint32Array
  sampleRateHz: number
  unit: TimeUnit
  /** Nobody gave the unit, and the steps alone do not leave only one. */
  guessed: boolean
  /** Rows that shared one stamp and were spread; null: each has its own. */
  perBlock: number | null
  duplicates: number
  firstDuplicateLine: number | null
  resets: number
  firstResetLine: number | null
  blanks: number
  /** Steps longer than 50 ms and five sample intervals. */
  gaps: number
  /** Leaps ahead of more than ten minutes: no pause of a ride, but a clock that was set. */
  jumps: number
  firstJumpLine: number | null
  /** Instant of time 0 in seconds since 1970, when the column tells dates. */
  startEpochS: number | null
}

const longestPauseS = 600
/** A time column that counts from 1970 is far beyond this. */
const year2000S = 946_684_800
export type TimeUnit = 'min' | 's' | 'ms' | 'us' | 'ns'
const perSecond: Record<TimeUnit, number> = { min: 1 / 60, s: 1, ms: 1e3, us: 1e6, ns: 1e9 }
/** Usual steps of a logger, ms: 100 to 2000 samples a second. */
const usualStepMs = [0.5, 10] as const

/**
 * Turns a time column into a clean clock: unit guessed where it is not given, repeated instants dropped, a clock
 * that jumps back continued from where it was.
 *
 * @param unit as the person says, or 'none' to guess from the median step (≥ 150 000 → ns, ≥ 150 → µs, ≥ 0.5 → ms, else s)
 * @throws InputError 'time.one-sample', 'time.never-moves'
 */
export function repairClock(
  stamps: Float64Array,
  lines: Uint32Array,
  unit: TimeUnit | 'none',
): RepairedClock {
  const { raw, perBlock } = spreadBlocks(stamps)
  const finite = raw.filter(Number.isFinite)
  if (finite.length < 2) throw new InputError('time.one-sample')
  const steps: number[] = []
  for (let i = 1; i < finite.length && steps.length < 20000; i++) {
    if (finite[i] > finite[i - 1]) steps.push(finite[i] - finite[i - 1])
  }
  if (steps.length < finite.length / 100 || steps.length === 0) throw new InputError('time.never-moves')
  const step = median(steps)
  const found =
    unit !== 'none' ? unit : step >= 150_000 ? 'ns' : step >= 150 ? 'us' : step >= 0.5 ? 'ms' : 's'
  const scale = perSecond[found]

  const timeS = new Float64Array(raw.length)
  const rows = new Uint32Array(raw.length)
  let kept = 0
  let offset = 0
  let duplicates = 0
  let firstDuplicateLine: number | null = null
  let resets = 0
  let firstResetLine: number | null = null
  let blanks = 0
  let gaps = 0
  let jumps = 0
  let firstJumpLine: number | null = null
  let last = NaN
  for (let i = 0; i < raw.length; i++) {
    if (!Number.isFinite(raw[i])) {
      blanks++
      continue
    }
    let t = raw[i] + offset
    if (kept > 0 && t <= last) {
      // A little back or equal is a repeated instant; far back is a clock that started again.
      if (last - t < 20 * step) {
        duplicates++
        firstDuplicateLine ??= lines[i]
        continue
      }
      resets++
      firstResetLine ??= lines[i]
      offset += last + step - t
      t = last + step
    }
    if (kept > 0 && t - last > longestPauseS * scale) {
      jumps++
      firstJumpLine ??= lines[i]
      offset -= t - last - step
      t = last + step
    }
    if (kept > 0 && t - last > Math.max(5 * step, 0.05 * scale)) gaps++
    last = t
    timeS[kept] = t / scale
    rows[kept] = i
    kept++
  }
  if (kept < 2) throw new InputError('time.one-sample')
  const t0 = timeS[0]
  for (let i = 0; i < kept; i++) timeS[i] -= t0
  return {
    timeS: timeS.slice(0, kept),
    rows: rows.slice(0, kept),
    sampleRateHz: niceRate(scale / step),
    unit: found,
    guessed:
      unit === 'none' &&
      found !== 's' &&
      !(step * (1e3 / scale) >= usualStepMs[0] && step * (1e3 / scale) < usualStepMs[1]),
    perBlock,
    duplicates,
    firstDuplicateLine,
    resets,
    firstResetLine,
    blanks,
    gaps,
    jumps,
    firstJumpLine,
    startEpochS: t0 > year2000S ? t0 : null,
  }
}

/**
 * Blocks of rows with one stamp: a logger that sends packets stamps each once. They are spread evenly up to the next stamp;
 * a row that is repeated now and then is no block.
 */
function spreadBlocks(stamps: Float64Array): { raw: Float64Array; perBlock: number | null } {
  const starts: number[] = []
  for (let i = 0; i < stamps.length; i++) if (i === 0 || stamps[i] !== stamps[i - 1]) starts.push(i)
  const perBlock = Math.round(stamps.length / Math.max(1, starts.length))
  if (perBlock < 2 || starts.length < 3) return { raw: stamps, perBlock: null }
  const raw = stamps.slice()
  for (let b = 0; b < starts.length; b++) {
    const from = starts[b]
    const to = b + 1 < starts.length ? starts[b + 1] : stamps.length
    const next = b + 1 < starts.length ? stamps[to] : 2 * stamps[from] - stamps[starts[b - 1]]
    const size = b + 1 < starts.length ? to - from : Math.max(to - from, starts[b] - starts[b - 1])
    // A pause between two packets is a pause, and no slow packet.
    const usual = b > 0 ? stamps[from] - stamps[starts[b - 1]] : next - stamps[from]
    const span = next - stamps[from] > 3 * usual && usual > 0 ? usual : next - stamps[from]
    if (!(span > 0)) continue
    for (let i = from; i < to; i++) raw[i] = stamps[from] + (span * (i - from)) / size
  }
  return { raw, perBlock }
}

/** Rounds to a rate a logger would have; a median step in whole ms or µs is coarse. */
function niceRate(hz: number): number {
  const digits = hz >= 100 ? 0 : 1
  const r = Number(hz.toFixed(digits))
  return Math.abs(r - hz) / hz < 0.002 ? r : hz
}
