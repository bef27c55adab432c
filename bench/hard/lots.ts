/** Chance that can be drawn again: mulberry32. */
export function lots(seed: number) {
  let a = seed >>> 0
  const next = () => {
    a = (a + 0x6d2b79f5) | 0
    let t = Math.imul(a ^ (a >>> 15), 1 | a)
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296
  }
  const below = (n: number) => Math.floor(next() * n)
  const one = <T>(list: readonly T[]): T => list[below(list.length)]
  return { next, below, one }
}
export type Lots = ReturnType<typeof lots>

/** `--count 200 --seed 7` */
export function option(name: string, usual: number): number {
  const at = process.argv.indexOf(`--${name}`)
  return at < 0 ? usual : Number(process.argv[at + 1])
}

/** `--at tent`; the first of them unless said otherwise. */
export function choice(name: string, of: readonly string[]): string {
  const at = process.argv.indexOf(`--${name}`)
  const said = at < 0 ? of[0] : process.argv[at + 1]
  if (!of.includes(said)) throw new Error(`--${name} takes ${of.join(' or ')}`)
  return said
}
