/** A seeded source of numbers in [0, 1): mulberry32 (public domain). Same seed, same numbers, everywhere. */
export function seededRandom(seed: number): () => number {
  let a = seed >>> 0
  return () => {
    a = (a + 0x6d2b79f5) >>> 0
    let t = a
    t = Math.imul(t ^ (t >>> 15), t | 1)
    t ^= t + Math.imul(t ^ (t >>> 7), t | 61)
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296
  }
}

/** Standard normal by Box–Muller. */
export function normalFrom(random: () => number): number {
  return Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random())
}

/**
 * Standard normal, given that it is at least `from`.
 *
 * Source: Robert, Simulation of truncated normal variables, Statistics and Computing 5, 1995 (exponential proposals in the
 * tail).
 */
export function normalBeyond(from: number, random: () => number): number {
  if (from <= 0) {
    for (;;) {
      const z = normalFrom(random)
      if (z >= from) return z
    }
  }
  const rate = (from + Math.sqrt(from * from + 4)) / 2
  for (;;) {
    const z = from - Math.log(1 - random()) / rate
    if (random() <= Math.exp(-0.5 * (z - rate) ** 2)) return z
  }
}
