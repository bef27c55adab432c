import type { TrackWindow } from '#contract/tent'

/** The stretch of a day that is drawn, ms since the epoch. */
export interface ClockSpan {
  fromMs: number
  toMs: number
}

const quarterMs = 15 * 60_000
const leastMs = 2 * 60 * 60_000
/** Room behind the present, so that what comes in next has a place. */
const aheadMs = 30 * 60_000

/**
 * The stretch that holds everything that happened and the present, on whole quarters of an hour, two hours at least.
 *
 * @param happened instants of runs, changes and log lines; none: the two hours around now
 * @param nowMs    the present; on a day that is over, its last instant
 */
export function clockSpan(happened: readonly number[], nowMs: number): ClockSpan {
  const first = Math.min(nowMs, ...happened)
  const last = Math.max(nowMs, ...happened)
  const fromMs = Math.floor((first - quarterMs / 2) / quarterMs) * quarterMs
  const toMs = Math.ceil((last + aheadMs) / quarterMs) * quarterMs
  return { fromMs: Math.min(fromMs, toMs - leastMs), toMs }
}

/** Where an instant stands on the stretch, 0 to 1. */
export const shareOf = (span: ClockSpan, ms: number): number => (ms - span.fromMs) / (span.toMs - span.fromMs)

/** Full and half hours on the stretch; wider apart the longer it is. */
export function hourMarks(span: ClockSpan): { atMs: number; full: boolean }[] {
  const half = 30 * 60_000
  const step = span.toMs - span.fromMs > 8 * 60 * 60_000 ? 2 * half : half
  const marks = []
  for (let atMs = Math.ceil(span.fromMs / step) * step; atMs <= span.toMs; atMs += step)
    marks.push({ atMs, full: atMs % (2 * half) === 0 })
  return marks
}

/** The stretch of the schedule that holds now, else the next one; null: the day’s schedule is over, or there is none. */
export function windowAt(
  schedule: readonly TrackWindow[],
  nowMs: number,
): { window: TrackWindow; begun: boolean; minutes: number } | null {
  const list = [...schedule].sort((a, b) => a.from.localeCompare(b.from))
  const window = list.find((w) => Date.parse(w.to) > nowMs)
  if (!window) return null
  const begun = Date.parse(window.from) <= nowMs
  const until = Date.parse(begun ? window.to : window.from)
  return { window, begun, minutes: Math.ceil((until - nowMs) / 60_000) }
}
