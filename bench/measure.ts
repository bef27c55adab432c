/** Median wall time of a few runs after one warm-up, ms. */
export function medianMs(work: () => unknown, runs = 5): number {
  work()
  const times: number[] = []
  for (let i = 0; i < runs; i++) {
    const start = performance.now()
    work()
    times.push(performance.now() - start)
  }
  return times.sort((a, b) => a - b)[times.length >> 1]
}

/** Bytes in array buffers that a piece of work leaves allocated at its end, before anything is collected. */
export function extraBytes(work: () => unknown): number {
  globalThis.gc?.()
  const before = process.memoryUsage()
  const kept = work()
  const after = process.memoryUsage()
  void kept
  return after.arrayBuffers - before.arrayBuffers
}

export interface Row {
  work: string
  figure: number
  unit: string
  /** What it is held against, and the bar. */
  against: string
}

/** How many times as long one takes as the other: in turns, so that a machine that slows down slows both. Median of nine. */
export function timesAsLong(one: () => unknown, other: () => unknown): number {
  const once = (act: () => unknown) => {
    const start = performance.now()
    act()
    return performance.now() - start
  }
  once(one)
  once(other)
  const ratios = Array.from({ length: 9 }, () => once(one) / once(other))
  return ratios.sort((a, b) => a - b)[4]
}
