import type { SectionKind } from '#contract/trail'
import { roughGround, roughnessClassM3, type RoughnessClass } from './roughness.ts'

/** Ground and what the rider does on it, every `stepM` along the trail. */
export interface Track {
  stepM: number
  lengthM: number
  /** Under the tyre, m; the mean slope of the trail is left out. */
  heightM: Float64Array
  speedMS: Float64Array
  /** Braking, g. */
  brakeG: Float64Array
  /** Load in the plane of the bike over its weight, 1 = straight on level ground. */
  loadG: Float64Array
  /** Pedalling: share of the weight that comes and goes with the legs. */
  bobShare: Float64Array
}

export interface TrackSection {
  kind: SectionKind
  lengthM: number
  /** 1 = usual height of the features and roughness of the ground. */
  severity: number
}

export const trackStepM = 0.02

/** What a kind of ground is like at severity 1. */
const ground: Record<SectionKind, { speedMS: number; rough: RoughnessClass; share: number }> = {
  smooth: { speedMS: 7, rough: 'B', share: 1 },
  roots: { speedMS: 6.5, rough: 'B', share: 2 },
  'braking-bumps': { speedMS: 7.5, rough: 'C', share: 1 },
  berms: { speedMS: 8, rough: 'B', share: 1.5 },
  drop: { speedMS: 7, rough: 'B', share: 1.5 },
  jump: { speedMS: 9, rough: 'B', share: 1 },
  'g-out': { speedMS: 8.5, rough: 'B', share: 1.5 },
  'flat-turn': { speedMS: 6, rough: 'C', share: 1 },
  'square-edges': { speedMS: 7.5, rough: 'C', share: 1 },
  rollers: { speedMS: 7, rough: 'B', share: 1 },
  climb: { speedMS: 2.6, rough: 'B', share: 1 },
  'flat-out': { speedMS: 11, rough: 'C', share: 1.5 },
  mixed: { speedMS: 7, rough: 'C', share: 1.5 },
}

/** A run of the same ground: another line by a few centimetres and another pace. */
export interface Line {
  random: () => number
  /** Share of the roughness that this line has for itself, 0 … 1. */
  ownShare: number
  /** Pace over the usual one. */
  pace: number
}

/**
 * A trail of named features: random ground of an ISO 8608 class, each section's own features on it, the pace, the
 * braking and the load of turns. The trail's source makes the ground; `line` what differs from run to run.
 */
export function buildTrack(
  sections: readonly TrackSection[],
  random: () => number,
  line: Line | null = null,
): Track {
  const lengthM = sections.reduce((s, x) => s + x.lengthM, 0)
  const n = Math.max(2, Math.ceil(lengthM / trackStepM))
  const heightM = roughGround(n, trackStepM, 1, random)
  if (line) {
    const own = roughGround(n, trackStepM, 1, line.random)
    const common = Math.sqrt(1 - line.ownShare ** 2)
    for (let i = 0; i < n; i++) heightM[i] = common * heightM[i] + line.ownShare * own[i]
  }
  const track: Track = {
    stepM: trackStepM,
    lengthM,
    heightM,
    speedMS: new Float64Array(n),
    brakeG: new Float64Array(n),
    loadG: new Float64Array(n).fill(1),
    bobShare: new Float64Array(n),
  }
  const amplitude = new Float64Array(n)
  const places: [number, number][] = []
  let from = 0
  for (const s of sections) {
    const to = Math.min(n, from + Math.round(s.lengthM / trackStepM))
    const g = ground[s.kind]
    amplitude.fill(s.severity * Math.sqrt(roughnessClassM3[g.rough] * g.share), from, to)
    track.speedMS.fill(g.speedMS * (line?.pace ?? 1), from, to)
    places.push([from, to])
    from = to
  }
  for (let i = from; i < n; i++) {
    amplitude[i] = amplitude[from - 1]
    track.speedMS[i] = track.speedMS[from - 1]
  }
  // Sections run into each other over three metres, forward and back so that nothing is shifted.
  for (const x of [amplitude, track.speedMS]) smoothBothWays(x, 3 / trackStepM)
  for (let i = 0; i < n; i++) heightM[i] *= amplitude[i]
  sections.forEach((s, k) => addFeatures(track, s, ...places[k], random))
  swallowShortWaves(heightM, 0.1)
  return track
}

const metres = (m: number) => Math.round(m / trackStepM)

function addFeatures(t: Track, s: TrackSection, from: number, to: number, random: () => number): void {
  const { heightM: h, brakeG, loadG, bobShare } = t
  const size = s.severity
  /** Rounded bump of a height and width. */
  const bump = (at: number, widthM: number, high: number) => {
    const w = metres(widthM)
    for (let i = 0; i < w && at + i < to; i++) h[at + i] += high * 0.5 * (1 - Math.cos((2 * Math.PI * i) / w))
  }
  const swell = (out: Float64Array, a: number, b: number, high: number) => {
    for (let i = Math.max(a, from); i < Math.min(b, to); i++)
      out[i] += high * Math.sin((Math.PI * (i - a)) / (b - a)) ** 2
  }
  switch (s.kind) {
    case 'roots':
      // A web, then a pause in which the wheel can come back.
      for (let at = from + metres(3); at < to - metres(8); at += metres(15 + 3 * random()))
        for (let k = 0; k < 5; k++) bump(at + metres(k * 1.25), 0.6, size * (0.055 + 0.01 * random()))
      break
    case 'braking-bumps':
      for (let at = from + metres(2); at < to - metres(2); at += metres(1.15))
        bump(at, 0.85, size * (0.03 + 0.01 * random()))
      swell(brakeG, from, to, 0.45)
      break
    case 'berms':
      for (let at = from + metres(4); at < to - metres(15); at += metres(22)) {
        swell(loadG, at, at + metres(14), 0.9 * size)
        swell(brakeG, at - metres(6), at, 0.25)
      }
      break
    case 'drop':
      for (let at = from + metres(8); at < to - metres(9); at += metres(28)) drop(h, at, to, 0.45 * size)
      break
    case 'jump':
      for (let at = from + metres(6); at < to - metres(16); at += metres(34)) jump(h, at, to, 0.7 * size)
      break
    case 'g-out':
      swell(loadG, from + metres(4), to - metres(4), 1.5 * size)
      break
    case 'square-edges':
      for (let at = from + metres(4); at < to - metres(4); at += metres(6 + 3 * random()))
        bump(at, 0.4, size * 0.06)
      break
    case 'rollers':
      for (let at = from + metres(2); at < to - metres(6); at += metres(5)) bump(at, 4.5, 0.22 * size)
      break
    case 'flat-turn':
      swell(brakeG, from, Math.floor((from + to) / 2), 0.35)
      swell(loadG, Math.floor((from + to) / 2), to, 0.4 * size)
      break
    case 'climb':
      for (let i = from; i < to; i++) bobShare[i] = 0.1
      break
    case 'flat-out':
      for (let at = from + metres(5); at < to - metres(5); at += metres(9 + 5 * random()))
        bump(at, 0.7, size * (0.05 + 0.04 * random()))
      break
    case 'mixed':
      for (let at = from + metres(5); at < to - metres(5); at += metres(12 + 10 * random()))
        bump(at, 0.5, size * (0.03 + 0.05 * random()))
      break
    case 'smooth':
      break
  }
}

/** An edge down, then a landing that first falls on and flattens out over six metres. */
function drop(h: Float64Array, at: number, to: number, highM: number): void {
  const landing = metres(6)
  for (let i = at; i < to; i++) {
    const p = Math.min(1, (i - at) / landing)
    h[i] -= highM * (0.7 + 0.3 * (1 - (1 - p) ** 2))
  }
  // The lost height stays lost: what follows lies lower.
  const lost = highM
  for (let i = to; i < h.length; i++) h[i] -= lost
}

/** A kicker over 4 m with a lip, a table, and a landing slope. */
function jump(h: Float64Array, at: number, to: number, highM: number): void {
  const [up, table, down] = [metres(4), metres(3.5), metres(5)]
  for (let i = 0; i < up + table + down && at + i < to; i++) {
    const x = i < up ? (i / up) ** 2 : i < up + table ? 0.85 : 0.85 * fade((i - up - table) / down)
    h[at + i] += highM * x
  }
}

const fade = (p: number) => 0.5 * (1 + Math.cos(Math.PI * p))

function smoothBothWays(x: Float64Array, width: number): void {
  let mean = x[0]
  for (let i = 0; i < x.length; i++) x[i] = mean += (x[i] - mean) / width
  mean = x[x.length - 1]
  for (let i = x.length - 1; i >= 0; i--) x[i] = mean += (x[i] - mean) / width
}

/** Mean over a tyre's contact length: a tyre rolls over what is shorter than itself. */
function swallowShortWaves(h: Float64Array, lengthM: number): void {
  const w = Math.max(1, metres(lengthM))
  const source = h.slice()
  let sum = 0
  for (let i = 0; i < h.length + (w >> 1); i++) {
    sum += source[Math.min(i, h.length - 1)]
    if (i >= w) sum -= source[i - w]
    const centre = i - (w >> 1)
    if (centre >= 0) h[centre] = sum / Math.min(w, i + 1)
  }
}
