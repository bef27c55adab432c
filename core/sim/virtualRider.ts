import type { End } from '#contract/common'
import type { Analysis, EndMetrics, SpanMetrics } from '#contract/recording'
import type { FeelWord, Mark } from '#contract/run'
import type { SectionKind, TrailSection } from '#contract/trail'
import { normalFrom } from '../numeric/random.ts'

/** Who rides: what they notice, what they like, and how reliably they say it. */
export interface VirtualRider {
  /** Over 1 notices later, under 1 earlier. */
  threshold: number
  /** −1 wants it calm and planted, +1 lively. */
  taste: number
  /** Scatter of one rating, points. */
  ratingSd: number
  /** Chance that a word stays unsaid, and that a look-alike is said instead. */
  silent: number
  misled: number
}

/** A rider drawn by chance around the usual ones: noise 0.7, a quarter unsaid, one in seven misled. */
export function someRider(random: () => number): VirtualRider {
  return {
    threshold: 0.8 + 0.4 * random(),
    taste: 2 * random() - 1,
    ratingSd: 0.5 + 0.4 * random(),
    silent: 0.15 + 0.2 * random(),
    misled: 0.08 + 0.14 * random(),
  }
}

interface Feeling {
  word: FeelWord
  /** What is easily said in its stead. */
  lookAlike: FeelWord
  ends: readonly End[]
  /** Where it is felt; every kind when left out. */
  kinds?: readonly SectionKind[]
  /** What is felt, against its threshold: 1 is just noticed. */
  felt: (m: EndMetrics, span: SpanMetrics, rider: VirtualRider) => number
  /** Rating points lost for each unit beyond the threshold. */
  costs: number
}

const rough: SectionKind[] = ['roots', 'braking-bumps', 'square-edges', 'flat-out']
const both: End[] = ['front', 'rear']

/** Thresholds are stated guesses for a trail bike; a rider's own factor stretches them all. */
const feelings: Feeling[] = [
  {
    word: 'harsh-gets-worse',
    lookAlike: 'harsh-everywhere',
    ends: both,
    kinds: ['roots', 'braking-bumps', 'square-edges'],
    felt: (m) => (m.valleyDriftPctPerHit ?? 0) / 0.8,
    costs: 1.2,
  },
  {
    word: 'stays-down',
    lookAlike: 'dead',
    ends: both,
    kinds: rough,
    felt: (m, _, r) => (m.recoveryMs ?? 0) / (330 - 60 * r.taste),
    costs: 1,
  },
  {
    word: 'pogo',
    lookAlike: 'kicks',
    ends: both,
    kinds: ['rollers', 'jump', 'drop', 'flat-out'],
    felt: (m, _, r) => (m.reboundDampingRatio === null ? 0 : (0.34 - 0.08 * r.taste) / m.reboundDampingRatio),
    costs: 1.2,
  },
  {
    word: 'dives',
    lookAlike: 'nose-heavy',
    ends: ['front'],
    felt: (m) => (m.diveRisePct ?? 0) / 10,
    costs: 1,
  },
  {
    word: 'wallows',
    lookAlike: 'blows-through',
    ends: both,
    kinds: ['berms', 'g-out', 'flat-turn'],
    felt: (m) => m.supportPct / 11,
    costs: 0.8,
  },
  {
    word: 'bottoms',
    lookAlike: 'harsh-and-bottoms',
    ends: both,
    felt: (m) => m.hardBottomOuts / 1.5,
    costs: 0.8,
  },
  {
    word: 'harsh-everywhere',
    lookAlike: 'harsh-square-edge',
    ends: ['front'],
    kinds: rough,
    felt: (_, span) => (span.buzzMS2 ?? 0) / 13,
    costs: 1,
  },
]

export interface VirtualFeel {
  rating: number
  marks: Omit<Mark, 'id'>[]
}

/**
 * What a rider says after a ride: words where what the ride did is beyond their thresholds, some unsaid, some a
 * look-alike, and a rating that falls with all of it and scatters. Nothing felt: "good".
 *
 * @param random seeded source, advanced
 */
export function feelOf(
  analysis: Analysis,
  sections: readonly TrailSection[],
  rider: VirtualRider,
  random: () => number,
): VirtualFeel {
  const marks: VirtualFeel['marks'] = []
  let lost = 0
  for (const span of analysis.sections) {
    const kind = sections.find((s) => s.id === span.sectionId)?.kind
    for (const f of feelings) {
      if (!kind || (f.kinds && !f.kinds.includes(kind))) continue
      for (const end of f.ends) {
        const m = span[end]
        const over = m ? f.felt(m, span, rider) / rider.threshold - 1 : 0
        if (over <= 0) continue
        lost += f.costs * Math.min(1.5, over + 0.3)
        if (random() < rider.silent) continue
        const word = random() < rider.misled ? f.lookAlike : f.word
        const strength = over > 0.8 ? 3 : over > 0.3 ? 2 : 1
        marks.push({ word, sectionId: span.sectionId, end, strength })
      }
    }
  }
  if (marks.length === 0) marks.push({ word: 'good', sectionId: null, end: 'both', strength: 2 })
  const raw = 8.5 - lost + rider.ratingSd * normalFrom(random)
  return { rating: Math.min(10, Math.max(1, Math.round(raw * 2) / 2)), marks }
}
