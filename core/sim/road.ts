import type { SectionKind } from '#contract/trail'

/** Road height under a wheel, sampled every `stepM`. */
export interface Road {
  stepM: number
  heightM: Float64Array
  /** Bike speed at each sample, m/s. */
  speedMS: Float64Array
  /** Extra load on the front from braking, share of its static load, at each sample. */
  brake: Float64Array
  /** Load on both ends in g beyond 1 from berms and compressions. */
  extraG: Float64Array
  lengthM: number
}

const stepM = 0.02

interface SectionSpeed {
  speedMS: number
  roughM: number
}

const pace: Record<SectionKind, SectionSpeed> = {
  smooth: { speedMS: 7, roughM: 0.0015 },
  roots: { speedMS: 6.5, roughM: 0.0025 },
  'braking-bumps': { speedMS: 7.5, roughM: 0.0025 },
  berms: { speedMS: 8, roughM: 0.002 },
  drop: { speedMS: 7, roughM: 0.002 },
  jump: { speedMS: 9, roughM: 0.0015 },
  'g-out': { speedMS: 8.5, roughM: 0.002 },
  'flat-turn': { speedMS: 6, roughM: 0.0025 },
  'square-edges': { speedMS: 7.5, roughM: 0.0025 },
  rollers: { speedMS: 7, roughM: 0.0015 },
  climb: { speedMS: 3, roughM: 0.002 },
  'flat-out': { speedMS: 11, roughM: 0.003 },
}

/**
 * A road of named sections: random roughness everywhere plus the section's own features.
 * @param random seeded source, advanced
 */
export function buildRoad(
  sections: readonly { kind: SectionKind; lengthM: number }[],
  random: () => number,
): Road {
  const lengthM = sections.reduce((s, x) => s + x.lengthM, 0)
  const n = Math.ceil(lengthM / stepM)
  const heightM = new Float64Array(n)
  const speedMS = new Float64Array(n)
  const brake = new Float64Array(n)
  const extraG = new Float64Array(n)
  let from = 0
  let rough = 0
  for (const s of sections) {
    const to = Math.min(n, from + Math.round(s.lengthM / stepM))
    const p = pace[s.kind]
    for (let i = from; i < to; i++) {
      // First-order filtered noise: short bumps lower than long ones, as real ground is.
      rough += 0.09 * (-rough + p.roughM * 4.5 * (random() + random() + random() - 1.5))
      heightM[i] += rough
      speedMS[i] = p.speedMS
    }
    addFeatures(s.kind, heightM, brake, extraG, from, to, random)
    from = to
  }
  for (let i = from; i < n; i++) speedMS[i] = speedMS[from - 1]
  smooth(speedMS, Math.round(3 / stepM))
  return { stepM, heightM, speedMS, brake, extraG, lengthM }
}

function addFeatures(
  kind: SectionKind,
  h: Float64Array,
  brake: Float64Array,
  g: Float64Array,
  from: number,
  to: number,
  random: () => number,
): void {
  const m = (metres: number) => Math.round(metres / stepM)
  const bump = (at: number, widthM: number, heightM: number) => {
    const w = m(widthM)
    for (let i = 0; i < w && at + i < to; i++)
      h[at + i] += heightM * 0.5 * (1 - Math.cos((2 * Math.PI * i) / w))
  }
  const wave = (out: Float64Array, a: number, b: number, size: number) => {
    for (let i = a; i < Math.min(b, to); i++) out[i] += size * Math.sin((Math.PI * (i - a)) / (b - a)) ** 2
  }
  switch (kind) {
    case 'roots':
      for (let at = from + m(3); at < to - m(10); at += m(21 + 3 * random())) {
        for (let k = 0; k < 7; k++) bump(at + m(k * 1.5), 0.6, 0.04 + 0.008 * random())
      }
      break
    case 'braking-bumps':
      for (let at = from + m(2); at < to - m(2); at += m(1.15)) bump(at, 0.8, 0.02 + 0.008 * random())
      wave(brake, from, to, 0.5)
      break
    case 'berms':
      for (let at = from + m(4); at < to - m(15); at += m(22)) wave(g, at, at + m(14), 0.9)
      break
    case 'drop':
    case 'jump': {
      for (let at = from + m(8); at < to - m(10); at += m(28))
        landing(h, g, at, to, kind === 'drop' ? 0.55 : 0.4)
      break
    }
    case 'g-out':
      wave(g, from + m(4), to - m(4), 1.6)
      break
    case 'square-edges':
      for (let at = from + m(4); at < to - m(4); at += m(6 + 3 * random())) bump(at, 0.35, 0.045)
      break
    case 'rollers':
      for (let at = from + m(2); at < to - m(6); at += m(5)) bump(at, 4.5, 0.22)
      break
    case 'flat-turn':
      wave(brake, from, Math.floor((from + to) / 2), 0.35)
      break
    case 'flat-out':
      for (let at = from + m(5); at < to - m(5); at += m(9 + 5 * random()))
        bump(at, 0.6, 0.03 + 0.02 * random())
      break
    default:
      break
  }
}

/** Light over the lip, then hard on the ground: load falls to nothing and comes back as a landing. */
function landing(h: Float64Array, g: Float64Array, at: number, to: number, dropM: number): void {
  const fly = Math.round(2.6 / stepM)
  const land = Math.round(1.5 / stepM)
  for (let i = 0; i < fly && at + i < to; i++) g[at + i] -= 0.98 * Math.sin((Math.PI * i) / fly) ** 0.5
  for (let i = 0; i < land && at + fly + i < to; i++)
    g[at + fly + i] += 4.6 * dropM * Math.sin((Math.PI * i) / land) ** 2
  for (let i = 0; i < fly / 2 && at + i < to; i++) h[at + i] += 0.05 * Math.sin((Math.PI * i) / (fly / 2))
}

function smooth(x: Float64Array, width: number): void {
  let mean = x[0]
  for (let i = 0; i < x.length; i++) {
    mean += (x[i] - mean) / width
    x[i] = mean
  }
}
