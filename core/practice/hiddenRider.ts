import type { End } from '#contract/common'
import type { CauseKind } from '#contract/proposal'
import type { AskedQuestion } from '#contract/question'
import type { FeelWord, Mark, MindTag } from '#contract/run'
import type { SectionKind } from '#contract/trail'
import { clampToRange } from '../adjusters/range.ts'
import { dialsOf, type Dial } from '../adviser/dials.ts'
import type { SetupSpace } from '../adviser/dayHistory.ts'
import { normalFrom, seededRandom } from '../numeric/random.ts'
import { answerOf } from './answering.ts'
import type { Drill } from './drill.ts'
import { practiceTrail, unitsOf } from './kit.ts'
import {
  causeOfDial,
  leastLoss,
  lossAtOffsets,
  lossOfDial,
  offsetsOf,
  type Likes,
  type Positions,
} from './landscape.ts'
import { saying } from './speech.ts'
import { ownShape, stillSagPct } from './stillSag.ts'

/** How a run was for a rider of practice. */
export interface Told {
  rating: number
  marks: Omit<Mark, 'id'>[]
  mind: MindTag
}

/** A rider whose best settings are known to the drill, and shown to nobody before the end. */
export interface HiddenRider {
  drill: Drill
  seed: number
  space: SetupSpace
  dials: readonly Dial[]
  /** What the bike stands at before the first run. */
  start: Positions
  /** What is written of it then: the same, but for a count that is wrong. */
  written: Positions
  /** What leaks, click-equivalents a run, by dial. */
  leaks: ReadonlyMap<string, number>
  /** Likes at a run; heat moves them. @param run from 1 */
  likesAt: (run: number) => Likes
  /** Rating points lost against the best a hand can set, at a run. */
  lossAt: (positions: Positions, run: number) => number
  /**
   * Rating and words of a run: the same for the same settings and number, whoever asks.
   * @param deepestPct where the ring stood after it, % of stroke: nobody says that an end bottomed which stopped short
   */
  tell: (positions: Positions, run: number, deepestPct?: Record<End, number>) => Told
  /** The answer to a question about a run. @param before what the run before it was ridden on; null: it was the first */
  answer: (
    q: Pick<AskedQuestion, 'id' | 'end'>,
    positions: Positions,
    run: number,
    before: Positions | null,
  ) => string
  /** Sag as the ring shows it before a run, % of the unit's stroke. @param reading how many were taken before */
  sagPct: (end: End, positions: Positions, run: number, reading: number) => number
  /** Points below which this rider feels no difference. */
  noticeable: number
  airTempC: (run: number) => number
}

/** Points below which nobody feels a difference, whatever the scatter. */
const leastNoticeable = 0.5
/** Clicks off at which one point is lost, from … to. */
const widths = [1.7, 2.6] as const
/** A keen rider feels a fault sooner by this factor. */
const keenWidth = 0.85
/** A dial that cannot be felt loses a point this far off, which no dial reaches. */
const deadWidth = 200
/** Middle of the day, °C; what heat is counted from when a drill has none. */
const mildC = 18
/** From cold to hot, clicks that the best place of rebound goes slower and of a pressure lower, per 10 °C. */
const perTenDegrees = { rebound: -0.8, pressure: -0.8 } as const
/** Runs after which the day is as hot as it gets. */
const heatedAfter = 6
/** So much warmer than the morning is hot, °C. */
const hotFrom = 6
const learningRuns = 10
const smallestNamed = 0.25
/** Words that come to mind before a rider says nothing. */
const mostWords = 6
/** Said where the end of the stroke was felt: a bumper takes the hit in the last of it, % of stroke. */
const endWords: readonly FeelWord[] = ['bottoms', 'harsh-and-bottoms']
const endFeltFromPct = 85
/** With so much of the stroke used nobody misses any, %. */
const fullPct = 95
/** Scatter of one reading of the ring, percentage points. */
const ringScatterPct = 0.5

/** Where on a trail a word is felt; everywhere for those left out. */
const feltOn: Partial<Record<FeelWord, readonly SectionKind[]>> = {
  kicks: ['jump', 'roots'],
  pogo: ['jump', 'flat-out'],
  'harsh-gets-worse': ['roots', 'braking-bumps'],
  'harsh-square-edge': ['square-edges'],
  bottoms: ['jump', 'flat-out'],
  dives: ['braking-bumps', 'berms'],
  wallows: ['berms'],
  'blows-through': ['berms', 'jump'],
  'washes-out': ['berms'],
  stretched: ['berms'],
  'stays-down': ['roots', 'braking-bumps'],
}
/** Where a kick is felt tells its cause: a soft spring at the lip, packing in a row, quick rebound on single hits. */
const kicksOf: Partial<Record<CauseKind, SectionKind>> = {
  'spring-soft': 'jump',
  'rebound-slow': 'roots',
  'rebound-fast': 'flat-out',
}

/** A source of its own for each purpose of a seed, so that one question more changes no ride. */
const sourceOf = (seed: number, ...of: number[]) =>
  seededRandom(of.reduce((h, x) => Math.imul(h ^ (x + 0x9e3779b9), 0x85ebca6b) >>> 0, seed >>> 0))
const purpose = { made: 1, run: 2, answer: 3, sag: 4, unit: 5 } as const

/** The rider of a drill and a seed. Same drill and seed, same rider, everywhere. */
export function hiddenRider(drill: Drill, seed: number): HiddenRider {
  // The same number of another drill is another rider.
  const own = [...drill.key].reduce((h, c) => Math.imul(h, 31) + c.charCodeAt(0), seed)
  const random = sourceOf(own, purpose.made)
  const space: SetupSpace = unitsOf(drill.kit)
  const dials = dialsOf(space)
  const faults = drill.faults(random)
  const isDead = (d: Dial) => drill.dead?.some((x) => x.end === d.end && x.role === d.adjuster.role) ?? false
  const width = dials.map((d) => {
    const w = (widths[0] + (widths[1] - widths[0]) * random()) * (drill.keen ? keenWidth : 1)
    return isDead(d) ? deadWidth : w
  })
  const start: Positions = {}
  const written: Positions = {}
  const isMiscounted = (d: Dial) =>
    drill.miscounted?.some((x) => x.end === d.end && x.role === d.adjuster.role) ?? false
  const best = dials.map((d) => {
    const off = faults.find((f) => f.end === d.end && f.role === d.adjuster.role)?.clicks ?? 0
    const place = someStart(d, off, random)
    start[d.adjuster.id] = place
    const right = d.toClicks(place) - off
    written[d.adjuster.id] = isMiscounted(d) ? clampToRange(d.adjuster, d.fromClicks(right)) : place
    return right
  })
  const lean = dials.map(() => 1)
  const top = 8.6 + 0.7 * random()
  const heat = drill.heatC
  const airTempC = (run: number) =>
    heat ? heat[0] + (heat[1] - heat[0]) * Math.min(1, (run - 1) / (heatedAfter - 1)) : mildC
  const likesAt = (run: number): Likes => {
    const warmer = heat ? (airTempC(run) - heat[0]) / 10 : 0
    const moved = best.map((b, k) => {
      const { role } = dials[k].adjuster
      const by =
        role === 'rebound' ? perTenDegrees.rebound : role === 'main-pressure' ? perTenDegrees.pressure : 0
      return Math.min(dials[k].high, Math.max(dials[k].low, b + by * warmer))
    })
    return { dials, best: moved, width, shape: 'round', lean, couplings: [] }
  }
  const lossAt = (positions: Positions, run: number) => {
    const likes = likesAt(run)
    return Math.max(0, lossAtOffsets(likes, offsetsOf(likes, positions)) - leastLoss(likes))
  }
  const { temper } = drill
  const feltAt = (positions: Positions, run: number) => {
    const likes = likesAt(run)
    return offsetsOf(likes, positions)
      .map((off, k) => ({ k, off, loss: lossOfDial(likes, k, off) }))
      .sort((a, b) => b.loss - a.loss)
  }
  const told = (
    k: number,
    tooHigh: boolean,
    loss: number,
    of: () => number,
    deepestPct?: Record<End, number>,
  ): Told['marks'][number] | null => {
    const { kind, end } = causeOfDial(space, dials[k], tooHigh)
    const said = saidOf(() => saying(kind, end, temper.manner, of, temper.says), deepestPct)
    if (!said) return null
    const kinds = said.word === 'kicks' && kicksOf[kind] ? [kicksOf[kind]] : feltOn[said.word]
    const places = practiceTrail.sections.filter((s) => kinds?.includes(s.kind))
    const sectionId = places.length > 0 ? places[Math.floor(of() * places.length)].id : null
    return { ...said, sectionId, strength: loss > 1.6 ? 3 : loss > 0.7 ? 2 : 1 }
  }
  return {
    drill,
    seed,
    space,
    dials,
    start,
    written,
    leaks: new Map(
      dials
        .filter((d) => d.end === drill.leaks?.end && d.adjuster.role === 'main-pressure')
        .map((d) => [d.adjuster.id, drill.leaks!.clicks]),
    ),
    likesAt,
    lossAt,
    airTempC,
    noticeable: Math.max(leastNoticeable, temper.noise),
    tell: (positions, run, deepestPct) => {
      const of = sourceOf(own, purpose.run, run)
      const scatter = temper.noise * normalFrom(of)
      const learnt = (temper.drift ?? 0) * learningRuns * (1 - Math.exp(-(run - 1) / learningRuns))
      const raw = top - lossAt(positions, run) + learnt + scatter
      const marks: Told['marks'] = []
      const say = (m: Told['marks'][number] | null) => void (m && marks.push(m))
      // The worst first; what is hardly felt is not named.
      for (const f of feltAt(positions, run).slice(0, 2)) {
        const luck = of()
        if (luck < temper.misled) {
          const k = Math.floor(of() * dials.length)
          say(told(k, of() < 0.5, Math.max(0.5, f.loss), of, deepestPct))
        } else if (f.loss >= smallestNamed && luck < temper.misled + temper.right)
          say(told(f.k, f.off > 0, f.loss, of, deepestPct))
      }
      if (marks.length === 0 && raw >= 7.5)
        marks.push({ word: 'good', sectionId: null, end: 'both', strength: 2 })
      return {
        rating: Math.min(10, Math.max(1, Math.round(raw * 2) / 2)),
        marks: onceEach(marks),
        mind: temper.minds?.[run - 1] ?? 'normal',
      }
    },
    answer: (q, positions, run, before) => {
      if (q.id === 'since-hot' && heat) return airTempC(run) - heat[0] > hotFrom ? 'since-hot' : 'all-along'
      const standing = feltAt(positions, run).map((f) => ({
        role: dials[f.k].adjuster.role,
        end: dials[f.k].end,
        off: f.off,
        loss: f.loss,
      }))
      const of = sourceOf(own, purpose.answer, run, q.id.length, q.end === 'rear' ? 1 : 0)
      const against = before && { before: lossAt(before, run - 1), now: lossAt(positions, run) }
      return answerOf(q, standing, { cannotSay: 0.1, wrong: temper.misled }, of, against)
    },
    sagPct: (end, positions, run, reading) => {
      const unit = space[end]!
      // Warm air stands higher: what is read at noon is not what was read in the cool.
      const likes = likesAt(run)
      const k = dials.findIndex((d) => d.end === end && d.adjuster.role === 'main-pressure')
      const scatter = ringScatterPct * normalFrom(sourceOf(own, purpose.sag, reading, end === 'rear' ? 1 : 0))
      if (k < 0) return unit.sagTargetPct + scatter
      const { adjuster, fromClicks } = dials[k]
      const spacer = unit.adjusters.find((a) => a.role === 'spacers')
      const right = { sagPct: unit.sagTargetPct, psi: fromClicks(likes.best[k]) }
      const shape = ownShape(unit, sourceOf(own, purpose.unit, end === 'rear' ? 1 : 0))
      const spacers = spacer ? positions[spacer.id] : 0
      return stillSagPct(shape, right, positions[adjuster.id], spacers) + scatter
    },
  }
}

/** A place for a dial to begin at, such that its best place lies inside its range. */
function someStart(d: Dial, off: number, random: () => number): number {
  const { adjuster: a } = d
  const share = 0.4 + 0.2 * random()
  if (a.kind === 'pressure')
    return Math.round(usualPsi[d.end] * (0.94 + 0.12 * random()) * Math.exp(0.02 * off))
  if (a.kind === 'spacer') return off < 0 ? 0 : 2
  const mid = d.low + share * (d.high - d.low)
  const inside = Math.min(d.high, Math.max(d.low, mid + off / 2))
  return Math.round(d.fromClicks(inside))
}
const usualPsi = { front: 80, rear: 180 } as const

/** A word that what the end did on the run does not refute; null where none comes to mind. */
function saidOf(
  word: () => ReturnType<typeof saying>,
  deepestPct: Record<End, number> | undefined,
): ReturnType<typeof saying> | null {
  for (let tries = 0; tries < mostWords; tries++) {
    const said = word()
    const pct = deepestPct?.[said.end] ?? null
    const isSo =
      pct === null ||
      (said.word === 'unused-travel' ? pct < fullPct : !endWords.includes(said.word) || pct >= endFeltFromPct)
    if (isSo) return said
  }
  return null
}

/** The same word of the same end is said once. */
function onceEach(marks: Told['marks']): Told['marks'] {
  return marks.filter((m, i) => marks.findIndex((x) => x.word === m.word && x.end === m.end) === i)
}
