import { adjusterRange, canStandAt, clampToRange } from '../adjusters/range.ts'
import { familyOf } from '../adjusters/words.ts'
import type { Dial } from './dials.ts'
import { fallOff, type ResponseSurface } from './surface/model.ts'

/** One adjuster's step in a candidate. */
export interface Step {
  dial: number
  from: number
  to: number
}

/** A change that counts as one: one adjuster, or a pair that belongs together. */
export interface Candidate {
  steps: Step[]
  /** Expected gain against standing still, rating points, its spread, and the chance that it is a gain. */
  gain: number
  gainSd: number
  better: number
  /** Chance that it is better by more than a rider would notice. */
  clearlyBetter: number
}

/** No step goes further than this while hunting, click-equivalents; near a stop only two. */
const furthest = 4.6
const nearStop = 2.6
const stopZone = 3
const leastPsi = 2

/** Positions one change may bring an adjuster to: 1 … 4 clicks, 2 … 8 % of pressure, the next spacer or spring. */
export function stepsOf(d: Dial, from: number): number[] {
  const a = d.adjuster
  const r = adjusterRange(a)
  const here = Math.min(d.high, Math.max(d.low, d.toClicks(from)))
  const out = new Set<number>()
  for (const direction of [-1, 1]) {
    if (r.allowed) {
      const next = r.allowed.filter((x) => Math.sign(x - from) === direction)
      const to = direction > 0 ? next[0] : next[next.length - 1]
      if (to !== undefined) out.add(to)
      continue
    }
    for (let n = 1; n <= 4; n++) {
      const wanted =
        a.kind === 'pressure'
          ? from + direction * Math.max(leastPsi * n, Math.round((from * 0.02 * n) / a.stepPsi) * a.stepPsi)
          : a.kind === 'turn'
            ? from + (direction * n * a.turns) / 16
            : from + direction * n * (a.kind === 'click' ? Math.max(1, r.step) : r.step)
      const to = clampToRange(a, wanted)
      if (Math.abs(to - from) < 1e-6 || !canStandAt(a, to)) continue
      if (a.kind === 'pressure' && Math.abs(to - from) < leastPsi) continue
      const there = d.toClicks(to)
      const far = Math.abs(there - here)
      const toStop = direction > 0 ? d.high - there : there - d.low
      // One notch is always allowed, however coarse the part is.
      if (n > 1 && (far > furthest || (toStop < stopZone && far > nearStop))) continue
      out.add(Math.round(to * 1e6) / 1e6)
    }
  }
  return [...out].sort((x, y) => x - y)
}

/**
 * Every change that a mechanic would call one change, weighed on the surface.
 * @param positions canonical value per adjuster id, as on the bike
 * @param ridden where each adjuster stood in the rides of the day
 * @param noticeable rating points below which a rider feels no difference
 */
export function candidatesFrom(
  surface: ResponseSurface,
  dials: readonly Dial[],
  positions: ReadonlyMap<string, number>,
  ridden: ReadonlyMap<string, readonly number[]>,
  noticeable: number,
): Candidate[] {
  const gains = dials.map((d, dial) => {
    const from = positions.get(d.adjuster.id)
    if (from === undefined) return []
    const here = bowlOf(surface, dial, d.toClicks(from))
    return stepsOf(d, from).map((to) => ({
      step: { dial, from, to },
      gain: gainOf(here, bowlOf(surface, dial, d.toClicks(to))),
    }))
  })
  const singles = gains
    .flat()
    .map((x) => withItsAir(x, surface, dials, positions, noticeable) ?? weigh([x.step], x.gain, noticeable))
    .filter(
      (c) => isSmall(c.steps[0], dials) || (c.better >= boldFrom && isKnownGround(c.steps[0], dials, ridden)),
    )
  const pairs: Candidate[] = []
  for (let i = 0; i < dials.length; i++)
    for (let j = i + 1; j < dials.length; j++) {
      if (dials[i].sameSagPsi || dials[j].sameSagPsi) continue
      if (!belongTogether(dials[i], dials[j]) || gains[i].length === 0 || gains[j].length === 0) continue
      const [x, y] = [gains[i], gains[j]].map((g) =>
        g
          .filter((z) => isSmall(z.step, dials))
          .reduce<(typeof g)[number] | null>((p, q) => (p && mean(p.gain) >= mean(q.gain) ? p : q), null),
      )
      if (!x || !y) continue
      // Two at once only where each would be worth a run of its own.
      if (![x, y].every((z) => worthOfItsOwn(weigh([z.step], z.gain, noticeable)))) continue
      pairs.push(
        weigh(
          [x.step, y.step],
          x.gain.map((g, s) => g + y.gain[s]),
          noticeable,
        ),
      )
    }
  return [...singles, ...pairs]
}

/** A step beyond the usual is for a dial that has been moved today, and needs this chance of being better. */
const boldFrom = 0.75
/** Three clicks; of rebound, which can throw a rider, two. */
const [smallStep, smallRebound] = [3.6, 2.6]
/** A usual step, or one notch of a part whose notches are coarser. */
const isSmall = (s: Step, dials: readonly Dial[]) => {
  const d = dials[s.dial]
  const r = adjusterRange(d.adjuster)
  const far = (to: number) => Math.abs(d.toClicks(to) - d.toClicks(s.from))
  return (
    r.allowed !== null ||
    far(s.to) <=
      Math.max(familyOf(d.adjuster) === 'rebound' ? smallRebound : smallStep, far(s.from + r.step) + 1e-6)
  )
}
/**
 * A dial that was tried in more than one place today. Rebound, which can throw a rider, goes no further than a usual step
 * beyond where it was ridden.
 */
function isKnownGround(
  s: Step,
  dials: readonly Dial[],
  ridden: ReadonlyMap<string, readonly number[]>,
): boolean {
  const d = dials[s.dial]
  const places = ridden.get(d.adjuster.id) ?? []
  if (places.length < 2) return false
  const clicksFrom = (place: number) => Math.abs(d.toClicks(s.to) - d.toClicks(place))
  return familyOf(d.adjuster) !== 'rebound' || [s.from, ...places].some((p) => clicksFrom(p) <= smallRebound)
}
const ownGain = 0.08
const ownChance = 0.58
const worthOfItsOwn = (c: Candidate) => c.gain > ownGain && c.better > ownChance

/** A spacer goes in or out together with the pressure that keeps the sag; null for all else. */
function withItsAir(
  { step, gain }: { step: Step; gain: Float64Array },
  surface: ResponseSurface,
  dials: readonly Dial[],
  positions: ReadonlyMap<string, number>,
  noticeable: number,
): Candidate | null {
  const spacer = dials[step.dial]
  const air = dials.findIndex((d) => d.end === spacer.end && d.adjuster.role === 'main-pressure')
  const psi = air >= 0 ? positions.get(dials[air].adjuster.id) : undefined
  const { adjuster } = dials[air] ?? {}
  if (!spacer.sameSagPsi || psi === undefined || adjuster?.kind !== 'pressure') return null
  const to = clampToRange(
    adjuster,
    Math.round(spacer.sameSagPsi(step, psi) / adjuster.stepPsi) * adjuster.stepPsi,
  )
  if (Math.abs(to - psi) < adjuster.stepPsi / 2) return null
  const [here, there] = [psi, to].map((v) => bowlOf(surface, air, dials[air].toClicks(v)))
  const more = gainOf(here, there)
  return weigh(
    [step, { dial: air, from: psi, to }],
    gain.map((g, s) => g + more[s]),
    noticeable,
  )
}

/** Spring with spacer or rebound, low with high compression, at one end: moved together they are one change. */
export function belongTogether(a: Dial, b: Dial): boolean {
  if (a.end !== b.end) return false
  const families = [familyOf(a.adjuster), familyOf(b.adjuster)].sort().join('+')
  return (
    families === 'spring+spring' || families === 'rebound+spring' || families === 'compression+compression'
  )
}

/** Rating points that one dial's bowl takes off at a place, per sample: how it falls off, and how steeply. */
interface Bowl {
  fall: Float64Array
  steepness: Float64Array
}
function bowlOf(
  { best, steepness, straightFrom, samples, dials }: ResponseSurface,
  dial: number,
  z: number,
): Bowl {
  const out = { fall: new Float64Array(samples), steepness: new Float64Array(samples) }
  for (let i = 0; i < samples; i++) {
    out.fall[i] = fallOff(z - best[i * dials + dial], straightFrom[i])
    out.steepness[i] = steepness[i * dials + dial]
  }
  return out
}
/** Rating points gained from one place of a dial to another, per sample. */
function gainOf(from: Bowl, to: Bowl): Float64Array {
  const out = new Float64Array(from.fall.length)
  for (let i = 0; i < out.length; i++) out[i] = from.steepness[i] * (from.fall[i] - to.fall[i])
  return out
}

function weigh(steps: Step[], gain: Float64Array, noticeable: number): Candidate {
  const m = mean(gain)
  let square = 0
  let better = 0
  let clearly = 0
  for (let i = 0; i < gain.length; i++) {
    const g = gain[i]
    square += (g - m) ** 2
    if (g > 0) better++
    if (g > noticeable) clearly++
  }
  return {
    steps,
    gain: m,
    gainSd: Math.sqrt(square / gain.length),
    better: better / gain.length,
    clearlyBetter: clearly / gain.length,
  }
}

function mean(x: Float64Array): number {
  let t = 0
  for (let i = 0; i < x.length; i++) t += x[i]
  return t / x.length
}
