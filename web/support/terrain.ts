import type { SectionKind } from '#contract/trail'

/** A hand-drawn line of the ground for a kind of section, as heights over 0 … 1; 0 is the middle of the strip. */
const shapes: Record<SectionKind, (u: number) => number> = {
  smooth: () => 0,
  roots: (u) => 7 * Math.abs(Math.sin(u * 31)) ** 0.6 * (0.6 + 0.4 * Math.sin(u * 67)),
  'braking-bumps': (u) => 6 * Math.sin(u * 44),
  berms: (u) => -11 * Math.sin(u * 2 * Math.PI),
  drop: (u) => (u < 0.55 ? 6 : -10),
  jump: (u) => (u < 0.45 ? 16 * (u / 0.45) ** 2 : u < 0.6 ? -2 : 10 * (1 - (u - 0.6) / 0.4)),
  'g-out': (u) => -16 * Math.sin(u * Math.PI),
  'flat-turn': (u) => 2 * Math.sin(u * 7),
  'square-edges': (u) => (Math.floor(u * 6) % 2 ? 7 : 0),
  rollers: (u) => 8 * Math.sin(u * 19),
  climb: (u) => -8 + 18 * u,
  'flat-out': (u) => 3 * Math.sin(u * 37) + 2 * Math.sin(u * 61),
  mixed: (u) => 8 * Math.sin(u * 11) + 3 * Math.sin(u * 43),
}

/** SVG path over a box of `width` × 2·`middle`, joined level at both ends. */
export function terrainPath(kind: SectionKind, width: number, middle: number): string {
  const n = Math.max(24, Math.round(width / 3))
  const points = Array.from({ length: n + 1 }, (_, i) => {
    const u = i / n
    const fade = Math.min(1, u * 10, (1 - u) * 10)
    return `${(u * width).toFixed(1)} ${(middle - fade * shapes[kind](u)).toFixed(1)}`
  })
  return `M${points.join(' L')}`
}
