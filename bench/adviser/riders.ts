import type { Adjuster, DamperRole } from '#contract/adjuster'
import type { End } from '#contract/common'
import type { CauseKind } from '#contract/proposal'
import { FeelWord, type Mark } from '#contract/run'
import type { Analysis } from '#contract/recording'
import { dialsOf, type Dial } from '#core/adviser/dials'
import { answersOf } from '#core/adviser/remedies'
import type { SetupSpace } from '#core/adviser/dayHistory'
import { markCauses, wordShares } from '#core/causes/marks'
import { isComplaint, wordRules } from '#core/causes/words'
import { normalFrom, seededRandom } from '#core/numeric/random'
import { analysisWith, fork, shock } from '#core/test/dayBuilder'

/** How ratings fall off around the best place. Tuning and reporting use different families. */
export type Family = 'bowl' | 'sharp' | 'indifferent' | 'cone' | 'lopsided'

/** A rider whose best setting is known to the bench, and to nobody else. */
export interface TestRider {
  family: Family
  space: SetupSpace
  dials: Dial[]
  start: Record<string, number>
  /** Best place and points lost three clicks off, per dial. */
  best: number[]
  lossAtThree: number[]
  ratingSd: number
  lossAt: (positions: Record<string, number>) => number
  ride: (positions: Record<string, number>, run: number) => RiddenFeel
}

export interface RiddenFeel {
  rating: number
  marks: Pick<Mark, 'word' | 'end' | 'strength'>[]
  /** Against the run before, when the rider has an opinion. */
  against: -2 | -1 | 0 | 1 | 2 | null
  analysis: Analysis | null
}

const click = (id: string, role: DamperRole, clicks: number): Adjuster => ({
  id,
  alias: null,
  tool: 'hand',
  kind: 'click',
  role,
  clicks,
  step: 1,
  countBase: 'closed-0',
})
const air = (id: string, minPsi: number, maxPsi: number): Adjuster => ({
  id,
  alias: null,
  tool: 'shock-pump',
  kind: 'pressure',
  role: 'main-pressure',
  minPsi,
  maxPsi,
  stepPsi: 1,
})

/** Bikes by number of active adjusters; ids start with the end, as the day builder wants. */
const bikes: Record<number, { front: Adjuster[]; rear: Adjuster[] }> = {
  3: {
    front: [click('fr', 'rebound', 14), click('fc', 'low-speed-compression', 16)],
    rear: [click('rr', 'rebound', 14)],
  },
  4: {
    front: [click('fr', 'rebound', 14), click('fc', 'low-speed-compression', 16)],
    rear: [air('rp', 100, 300), click('rr', 'rebound', 14)],
  },
  5: {
    front: [air('fp', 40, 140), click('fr', 'rebound', 14), click('fc', 'low-speed-compression', 16)],
    rear: [click('rr', 'rebound', 14), click('rc', 'low-speed-compression', 16)],
  },
}
const middle: Record<string, number> = { fr: 7, fc: 8, rr: 7, rc: 8, fp: 80, rp: 180 }

/** Which cause it is when a dial stands too high or too low, canonical. */
function causeOf(space: SetupSpace, d: Dial, tooHigh: boolean): { kind: CauseKind; end: End } {
  const kinds: CauseKind[] = [
    'spring-soft',
    'spring-firm',
    'lsc-open',
    'lsc-closed',
    'rebound-fast',
    'rebound-slow',
  ]
  const kind = kinds.find((k) =>
    answersOf(k, d.end, space).some(
      (a) => a.adjuster.id === d.adjuster.id && !a.standIn && a.direction === (tooHigh ? -1 : 1),
    ),
  )
  if (!kind) throw new Error(`no cause for ${d.adjuster.id}`)
  return { kind, end: d.end }
}

const complaints = FeelWord.options.filter(isComplaint)

/**
 * A word for a cause, ∝ exp(3 · weight). A clear speaker takes words whose likeliest answer is this very dial where
 * there are any; a mumbler takes look-alikes as they come.
 */
function wordFor(
  space: SetupSpace,
  kind: CauseKind,
  end: End,
  mumbles: boolean,
  random: () => number,
): FeelWord {
  const [wanted] = answersOf(kind, end, space)
  const fit = complaints.flatMap((word) => {
    const w = wordRules[word].causes.find((c) => c.kind === kind && (c.at === 'same' || c.at === end))?.weight
    if (w === undefined) return []
    const shares = wordShares(word, end, null, 2.6)
    const likeliest = markCauses(word, end, null)[shares.indexOf(Math.max(...shares))]
    const [answer] = answersOf(likeliest.kind, likeliest.end, space)
    const clear = answer?.adjuster.id === wanted.adjuster.id && answer.direction === wanted.direction
    return [{ word, weight: Math.exp(3 * w), clear }]
  })
  const chosen = mumbles || !fit.some((f) => f.clear) ? fit : fit.filter((f) => f.clear)
  let left = random() * chosen.reduce((s, f) => s + f.weight, 0)
  return (chosen.find((f) => (left -= f.weight) < 0) ?? chosen[0]).word
}

export interface RiderOptions {
  family: Family
  sensors: boolean
  /** Says look-alike words, and at most three in a run. */
  mumbles: boolean
}

/**
 * A rider drawn from a seed: 3–5 adjusters that stand 2.4 clicks (sd) from the best place, taste apart from what the
 * sensors call right, noise about 0.7, drift up to ±0.1 a run, words right 60 %, misled 15 %, unsaid 25 %.
 */
export function testRider(seed: number, { family, sensors, mumbles }: RiderOptions): TestRider {
  const random = seededRandom(seed)
  const K = 3 + Math.floor(random() * 3)
  const bike = bikes[K]
  const space: SetupSpace = {
    front: { ...fork, adjusters: bike.front },
    rear: { ...shock, adjusters: bike.rear },
  }
  const dials = dialsOf(space)
  const start = Object.fromEntries(dials.map((d) => [d.adjuster.id, middle[d.adjuster.id]]))
  const inside = (d: Dial, z: number) => Math.min(d.high - 1, Math.max(d.low + 1, z))
  const best = dials.map((d) => inside(d, d.toClicks(start[d.adjuster.id]) + 2.4 * normalFrom(random)))
  const lossAtThree = dials.map(() => Math.exp(0.4 * normalFrom(random)))
  const lean = dials.map(() => 0.6 + 0.8 * random())
  const measuredBest = best.map((b) => b + 0.7 * normalFrom(random))
  const top = 7.4 + 1.6 * random()
  const ratingSd = 0.5 + 0.4 * random()
  const drift = 0.2 * random() - 0.1
  const couplings = dials.flatMap((d, i) =>
    dials
      .slice(i + 1)
      .flatMap((e, j) => (d.end === e.end ? [{ i, j: i + 1 + j, rho: 0.7 * random() - 0.35 }] : [])),
  )
  const lossOne = (k: number, u: number) => {
    const l = lossAtThree[k]
    if (family === 'bowl') return (l * u * u) / 9
    if (family === 'sharp') return l * (Math.abs(u) / 3) ** 1.5
    // Feels nothing within half a click.
    if (family === 'indifferent') return l * (Math.max(0, Math.abs(u) - 0.5) / 2.5) ** 2
    if (family === 'cone') return (l * (Math.sqrt(1 + u * u) - 1)) / (Math.sqrt(10) - 1)
    return ((l * u * u) / 9) * (u > 0 ? lean[k] : 2 - lean[k])
  }
  const offsets = (positions: Record<string, number>) =>
    dials.map((d, k) => d.toClicks(positions[d.adjuster.id]) - best[k])
  const lossAt = (positions: Record<string, number>) => {
    const u = offsets(positions)
    const alone = u.map((x, k) => lossOne(k, x))
    let loss = alone.reduce((s, x) => s + x, 0)
    for (const { i, j, rho } of couplings)
      loss += 2 * rho * Math.sign(u[i] * u[j]) * Math.sqrt(alone[i] * alone[j])
    return Math.max(0, loss)
  }
  let before: { loss: number } | null = null
  return {
    family,
    space,
    dials,
    start,
    best,
    lossAtThree,
    ratingSd,
    lossAt,
    ride: (positions, run) => {
      const u = offsets(positions)
      const loss = lossAt(positions)
      const raw = top - loss + drift * run + ratingSd * normalFrom(random)
      const felt = u.map((x, k) => ({ x, k, loss: lossOne(k, x) })).sort((a, b) => b.loss - a.loss)
      const marks: RiddenFeel['marks'] = []
      for (const f of felt) {
        // A click off is where a rider begins to notice; closer, words become rare.
        const speaks = 0.75 * Math.min(1, Math.abs(f.x))
        const luck = random()
        if (luck >= speaks + 0.04) continue
        const slip = luck >= speaks || random() < 0.2
        const other = felt[Math.floor(random() * felt.length)]
        const at = slip && random() < 0.5 ? other : f
        const tooHigh = at.x > 0 !== slip
        const { kind, end } = causeOf(space, dials[at.k], tooHigh)
        marks.push({
          word: wordFor(space, kind, end, mumbles, random),
          end,
          strength: f.loss > 1.4 ? 3 : f.loss > 0.5 ? 2 : 1,
        })
        if (mumbles && marks.length === 3) break
      }
      if (marks.length === 0) marks.push({ word: 'good', end: 'both', strength: 2 })
      let against: RiddenFeel['against'] = null
      if (before && random() < 0.6) {
        const d = (before.loss - loss + 0.6 * normalFrom(random)) / 0.9
        against = Math.max(-2, Math.min(2, Math.round(d))) as -2 | -1 | 0 | 1 | 2
      }
      before = { loss }
      return {
        rating: Math.min(10, Math.max(1, Math.round(raw * 2) / 2)),
        marks,
        against,
        analysis: sensors ? measured(space, dials, positions, measuredBest, random) : null,
      }
    },
  }
}

/** Figures as sensors would give them: how far each dial stands from what the sensors call right, with their scatter. */
function measured(
  space: SetupSpace,
  dials: readonly Dial[],
  positions: Record<string, number>,
  right: readonly number[],
  random: () => number,
): Analysis {
  const figures: Record<End, Parameters<typeof analysisWith>[0]> = { front: {}, rear: {} }
  dials.forEach((d, k) => {
    const u = d.toClicks(positions[d.adjuster.id]) - right[k]
    const noise = normalFrom(random)
    const m = figures[d.end]
    if (d.adjuster.role === 'rebound') {
      m.trains = 4
      m.valleyDriftPctPerHit = 0.35 + 0.28 * Math.max(-2, -u) + 0.2 * noise
      m.reboundDampingHits = 8
      m.reboundDampingRatio = Math.max(0.05, 0.5 - 0.05 * u + 0.06 * normalFrom(random))
      m.returnSlopePerS = Math.max(2, 15 + 2.2 * u + 1.5 * normalFrom(random))
    } else if (d.adjuster.role === 'main-pressure') {
      const target = d.end === 'front' ? (space.front?.sagTargetPct ?? 20) : (space.rear?.sagTargetPct ?? 30)
      m.rideHeightPct = target - 2.2 * u + 1.5 * noise
    } else if (d.adjuster.role === 'low-speed-compression') {
      // As the half-car has it: low-speed compression hardly shows in the figures.
      m.supportPct = Math.max(1, 4.8 + 0.3 * u + 0.6 * noise)
    }
  })
  return analysisWith(figures.front, figures.rear)
}
