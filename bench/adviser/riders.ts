import type { Adjuster } from '#contract/adjuster'
import type { End } from '#contract/common'
import type { AskedQuestion } from '#contract/question'
import type { Mark } from '#contract/run'
import type { Analysis } from '#contract/recording'
import { dialsOf, type Dial } from '#core/adviser/dials'
import type { SetupSpace } from '#core/adviser/dayHistory'
import { normalFrom, seededRandom } from '#core/numeric/random'
import { analysisWith, fork, shock } from '#core/test/dayBuilder'
import { cannotSay } from '#core/causes/questions'
import { answerOf, type Against } from '#core/practice/answering'
import {
  causeOfDial,
  leastLoss,
  lossAtOffsets,
  lossOfDial,
  offsetsOf,
  type Likes,
  type Positions,
} from '#core/practice/landscape'
import { air, click, spacers } from '#core/practice/parts'
import { saying } from '#core/practice/speech'
import { ownShape, stillSagPct } from '#core/practice/stillSag'
import type { Family } from './families.ts'

/** A rider whose best setting is known to the bench, and to nobody else. */
export interface TestRider {
  family: Family
  space: SetupSpace
  dials: Dial[]
  start: Record<string, number>
  /** Best place per dial, click-equivalents. */
  best: number[]
  ratingSd: number
  /** Points lost against the best the parts can be set to, on the rider's own scale. */
  lossAt: (positions: Record<string, number>) => number
  ride: (positions: Record<string, number>, run: number) => RiddenFeel
  /** What is answered to a question about the last ride. */
  answer: (q: Pick<AskedQuestion, 'id' | 'end'>, positions: Record<string, number>) => string
  /** Sag as it would be read, %. */
  sagPct: (end: End, positions: Record<string, number>) => number
}

export interface RiddenFeel {
  rating: number
  marks: Pick<Mark, 'word' | 'end' | 'strength'>[]
  /** Against the run before, when the rider has an opinion. */
  against: -2 | -1 | 0 | 1 | 2 | null
  analysis: Analysis | null
}

/** What a bike of so many adjusters has; ids start with the end, as the day builder wants. */
const order: Adjuster[] = [
  click('fr', 'rebound', 14),
  click('rr', 'rebound', 14),
  click('fc', 'low-speed-compression', 16),
  air('rp', 100, 300),
  click('rc', 'low-speed-compression', 16),
  air('fp', 40, 140),
  click('fh', 'high-speed-compression', 10),
  spacers('rs', 5),
]
const middle: Record<string, number> = { fr: 7, rr: 7, fc: 8, rp: 180, rc: 8, fp: 80, fh: 5, rs: 2 }

const learningRuns = 10
/** Scatter of a reading of the ring, percentage points. */
const ringScatterPct = 0.8
/*
 * What a click-equivalent moves of the figures, as the half-car of the practice trail has it, four clicks either way. From
 * run to run it scatters by 0.13 points of ride height, 0.1 of valleys, 0.4 of slope and 0.3 of support; a rider's line and
 * pace scatter by more.
 */
const rideHeightPctPerClick = { front: 0.5, rear: 0.72 } as const
const rideHeightScatterPct = 0.5
/** Drift of the valleys of a hit train, % of travel per hit. */
const valleys = {
  front: { right: 0.12, perClickSlower: 0.03, perClickFaster: 0.01 },
  rear: { right: -0.07, perClickSlower: 0.1, perClickFaster: 0.02 },
} as const

/** From one day to another the best places of the same rider wander by about this, click-equivalents. */
const anotherDaySd = 0.7

/**
 * A rider of a family, drawn from a seed.
 *
 * @param day 0 the first day; later days of the same rider have their own luck, and best places a little elsewhere
 */
export function testRider(seed: number, family: Family, day = 0): TestRider {
  let random = seededRandom(seed)
  // Of its own, so that a question more or less does not change the rides.
  const talking = seededRandom(seed ^ 0x7a1c)
  const between = ([low, high]: readonly [number, number]) => low + (high - low) * random()
  const K = Math.round(between(family.dials))
  const adjusters = order.slice(0, K)
  const space: SetupSpace = {
    front: { ...fork, adjusters: adjusters.filter((a) => a.id.startsWith('f')) },
    rear: { ...shock, adjusters: adjusters.filter((a) => a.id.startsWith('r')) },
  }
  const dials = dialsOf(space)
  const start = Object.fromEntries(dials.map((d) => [d.adjuster.id, middle[d.adjuster.id]]))
  if (family.atStop)
    for (const d of dials)
      if (d.adjuster.role === 'low-speed-compression') start[d.adjuster.id] = d.fromClicks(d.high)
  const off = new Set<number>()
  const wantedOff = Math.min(K, Math.round(between(family.offDials)))
  while (off.size < wantedOff) off.add(Math.floor(random() * K))
  const best = dials.map((d, k) => {
    const here = d.toClicks(start[d.adjuster.id])
    if (!off.has(k)) return here
    const by = Math.round(between(family.offClicks)) * (random() < 0.5 ? -1 : 1)
    const to = Math.min(d.high, Math.max(d.low, here + by))
    // At a stop there is one way only.
    return to === here ? Math.min(d.high, Math.max(d.low, here - by)) : to
  })
  const width = dials.map(() => between(family.widthClicks))
  const lean = dials.map(() => (family.shape === 'lopsided' ? 0.4 + 1.2 * random() : 1))
  const top = 7.6 + 1.6 * random()
  const ratingSd = between(family.noise)
  const drift = between(family.drift)
  const stretch = between(family.stretch)
  // Of their own, too: no two units are quite of one kind.
  const making = seededRandom(seed ^ 0x51a6)
  const shapes = { front: ownShape(space.front!, making), rear: ownShape(space.rear!, making) }
  const measuredBest = best.map((b) => b + 0.7 * normalFrom(random))
  const couplings = dials.flatMap((d, i) =>
    dials.slice(i + 1).flatMap((e, j) => {
      const rho = family.interacting && d.end === e.end ? 1.2 * random() - 0.6 : 0
      return rho === 0 ? [] : [{ i, j: i + 1 + j, rho }]
    }),
  )
  if (day > 0) {
    random = seededRandom(seed ^ (0x2b7d * day))
    best.forEach((b, k) => {
      const to = Math.round(b + anotherDaySd * normalFrom(random))
      best[k] = Math.min(dials[k].high, Math.max(dials[k].low, to))
      measuredBest[k] += best[k] - b
    })
  }
  const likes: Likes = { dials, best, width, shape: family.shape, lean, couplings }
  const least = leastLoss(likes)
  const offsets = (positions: Positions) => offsetsOf(likes, positions)
  const lossAt = (positions: Positions) =>
    stretch * Math.max(0, lossAtOffsets(likes, offsets(positions)) - least)
  const talk = (felt: { k: number; x: number; loss: number }[]): RiddenFeel['marks'] => {
    const { words } = family
    if (words === 'none') return []
    const mark = (k: number, tooHigh: boolean, loss: number): RiddenFeel['marks'][number] => {
      const { kind, end } = causeOfDial(space, dials[k], tooHigh)
      const strength = loss > 1.6 ? 3 : loss > 0.7 ? 2 : 1
      return { ...saying(kind, end, family.manner, random), strength }
    }
    const wrong = (loss: number) => mark(Math.floor(random() * K), random() < 0.5, loss)
    const one = (f: (typeof felt)[number]): RiddenFeel['marks'] => {
      const luck = random()
      if (luck < family.misled) return [wrong(Math.max(0.5, f.loss))]
      if (f.loss < 0.25) return luck > 0.7 ? [{ word: 'good', end: 'both', strength: 2 }] : []
      return luck < family.misled + family.right ? [mark(f.k, f.x > 0, f.loss)] : []
    }
    return words === 'worst' ? one(felt[0]) : felt.flatMap((f) => (f.loss >= 0.25 ? one(f) : [])).slice(0, 3)
  }
  let before: { loss: number } | null = null
  /** What the last ride lost, and the one before it. */
  let lastTwo: Against | null = null
  return {
    family,
    space,
    dials,
    start,
    best,
    ratingSd: ratingSd * stretch,
    lossAt,
    answer: (q, positions) => {
      // Who gives a number and no word points at nothing either.
      if (q.id === 'which-end' && family.words === 'none') return cannotSay
      const u = offsets(positions)
      const standing = dials.map((d, k) => ({
        role: d.adjuster.role,
        end: d.end,
        off: u[k],
        loss: lossOfDial(likes, k, u[k]),
      }))
      return answerOf(q, standing, { cannotSay: 0.15, wrong: family.misled }, talking, lastTwo)
    },
    sagPct: (end, positions) => {
      const unit = space[end]!
      const k = dials.findIndex((d) => d.end === end && d.adjuster.role === 'main-pressure')
      const scatter = ringScatterPct * normalFrom(talking)
      if (k < 0) return unit.sagTargetPct + scatter
      const { adjuster, fromClicks } = dials[k]
      const spacer = unit.adjusters.find((a) => a.role === 'spacers')
      const right = { sagPct: unit.sagTargetPct, psi: fromClicks(measuredBest[k]) }
      const spacers = (spacer && positions[spacer.id]) ?? 0
      return stillSagPct(shapes[end], right, positions[adjuster.id], spacers) + scatter
    },
    ride: (positions, run) => {
      const u = offsets(positions)
      const loss = lossAtOffsets(likes, u)
      // Who learns a track learns less and less.
      const learnt = drift * learningRuns * (1 - Math.exp(-(run - 1) / learningRuns))
      const raw = top - loss + learnt + ratingSd * normalFrom(random)
      const felt = u.map((x, k) => ({ x, k, loss: lossOfDial(likes, k, x) })).sort((a, b) => b.loss - a.loss)
      let against: RiddenFeel['against'] = null
      if (before && random() < family.compares) {
        const d = (before.loss - loss + 0.6 * normalFrom(random)) / 0.9
        against = Math.max(-2, Math.min(2, Math.round(d))) as -2 | -1 | 0 | 1 | 2
      }
      lastTwo = before && { before: before.loss, now: loss }
      before = { loss }
      const said = 7 + stretch * (raw - 7)
      return {
        rating: Math.min(10, Math.max(1, Math.round(said * 2) / 2)),
        marks: talk(felt),
        against,
        analysis: family.sensors ? measured(space, dials, positions, measuredBest, random) : null,
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
      // Slower packs down more, faster hardly less; no hit on such ground swings on, so there is no damping ratio.
      const v = valleys[d.end]
      m.trains = 4
      m.valleyDriftPctPerHit = v.right - (u < 0 ? v.perClickSlower : v.perClickFaster) * u + 0.1 * noise
      m.returnSlopePerS = Math.max(2, 17 + (u < 0 ? 1.3 : 2.3) * u + 0.8 * normalFrom(random))
    } else if (d.adjuster.role === 'main-pressure') {
      const target = d.end === 'front' ? (space.front?.sagTargetPct ?? 20) : (space.rear?.sagTargetPct ?? 30)
      m.rideHeightPct = target - rideHeightPctPerClick[d.end] * u + rideHeightScatterPct * noise
    } else if (d.adjuster.role === 'low-speed-compression') {
      // Low-speed compression hardly shows in the figures.
      m.supportPct = Math.max(1, 5 + 0.07 * u + 0.4 * noise)
    }
  })
  return analysisWith(figures.front, figures.rear)
}
