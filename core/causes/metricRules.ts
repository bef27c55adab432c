import type { End } from '#contract/common'
import type { CauseKind } from '#contract/proposal'
import type { Analysis, EndMetrics, SpanMetrics } from '#contract/recording'

export interface MetricFinding {
  kind: CauseKind
  end: End | null
  weight: number
  text: string
  /** Which figure it is, for joining the same finding of several runs. */
  topic: string
}

/** What a figure says once it lies beyond `from`: weight + slope × excess, at most `most` (in size). */
export interface MetricLine {
  when: 'above' | 'below'
  from: number
  says: { kind: CauseKind; weight: number; slope?: number; most?: number }[]
}

/** What is known of an end besides its own figures. */
interface Reading {
  m: EndMetrics
  end: End
  /** Ride height against the target, % points; depth that sinking explains is taken off. */
  offPct: number
  rawOffPct: number
  targetPct: number
  sections: readonly SpanMetrics[]
}

export interface MetricRule {
  topic: string
  /** As the handbook names it, with its unit. */
  label: string
  value: (r: Reading) => number | null
  /** 0 … 1: few events weigh less. */
  trust?: (r: Reading) => number
  /** Standard error of the value: what it says is the mean over what it may truly be. */
  error?: (r: Reading) => number | null
  /** Rests on where the sensor has its zero. */
  fromZero?: true
  text: (value: number, r: Reading) => string
  lines: MetricLine[]
}

const one = (x: number) => (Math.round(x * 10) / 10).toFixed(1)
const signed = (x: number) => (x >= 0 ? '+' : '−') + one(Math.abs(x))

/** Ride height may stray this far from the sag target before the spring is blamed, % points. */
export const springBandPct = 5

/** Depth that a train of hits adds, in valley drifts: a stated guess, trains are four to eight hits. */
const hitsInTrain = 4

const fewestHits = 5

/**
 * What the figures of one end speak for. Considered guesses, held against the simulator's rides; the handbook prints
 * this very table. A figure with too few events to it gives null and says nothing.
 */
export const metricRules: MetricRule[] = [
  {
    topic: 'drift',
    label: 'Valley drift through hit trains, % of travel per hit',
    value: ({ m }) => m.valleyDriftPctPerHit,
    trust: ({ m }) => (m.trains >= 2 ? 1 : 0.6),
    error: ({ m }) => m.valleyDriftSe,
    text: (x, { m, end }) =>
      `${end} valleys move ${signed(x)} % of travel per hit, ${m.trains} ${m.trains === 1 ? 'train' : 'trains'}`,
    lines: [
      {
        when: 'above',
        from: 0.6,
        says: [
          { kind: 'rebound-slow', weight: 0.66, slope: 1.1, most: 2.2 },
          { kind: 'rebound-fast', weight: -0.48, slope: -0.8, most: 1.5 },
        ],
      },
      { when: 'below', from: 0.25, says: [{ kind: 'rebound-slow', weight: -0.4 }] },
    ],
  },
  {
    topic: 'return',
    label: 'Damping ratio of quiet returns, three or more',
    value: ({ m }) => (m.reboundDampingHits >= 3 ? m.reboundDampingRatio : null),
    text: (z, { m, end }) =>
      `${end} returns with a damping ratio of ${z >= 0.8 ? '0.8 or above' : z.toFixed(2)}, ${m.reboundDampingHits} quiet returns`,
    lines: [
      {
        when: 'below',
        from: 0.3,
        says: [
          { kind: 'rebound-fast', weight: 0, slope: 10, most: 1.8 },
          { kind: 'rebound-slow', weight: -0.8 },
        ],
      },
      { when: 'above', from: 0.75, says: [{ kind: 'rebound-fast', weight: -0.6 }] },
    ],
  },
  {
    topic: 'return speed by depth',
    label: 'Return speed over depth, 1/s',
    value: ({ m }) => (m.hits >= fewestHits ? m.returnSlopePerS : null),
    text: (x, { end }) => `${end} comes back at ${one(x)} mm/s per mm of depth`,
    lines: [
      { when: 'above', from: 22, says: [{ kind: 'rebound-fast', weight: 0.3, slope: 0.06, most: 1 }] },
      { when: 'below', from: 8.5, says: [{ kind: 'rebound-slow', weight: 0.3, slope: 0.15, most: 0.9 }] },
    ],
  },
  {
    topic: 'recovery',
    label: 'Time back after a hit, ms',
    value: ({ m }) => (m.hits >= fewestHits ? m.recoveryMs : null),
    text: (x, { end }) => `${end} takes ${Math.round(x)} ms to come back after a hit`,
    lines: [
      { when: 'above', from: 250, says: [{ kind: 'rebound-slow', weight: 0.3, slope: 0.003, most: 0.8 }] },
    ],
  },
  {
    topic: 'top-outs',
    label: 'Top-outs in a run',
    value: ({ m }) => m.topOuts,
    text: (x, { end }) => `${end} tops out ${x} times`,
    lines: [{ when: 'above', from: 4, says: [{ kind: 'rebound-fast', weight: 0.4 }] }],
  },
  {
    topic: 'ride height',
    fromZero: true,
    label:
      'Ride height off the sag target, % points of wheel travel (depth that sinking explains is taken off)',
    value: ({ offPct }) => offPct,
    text: (off, { m, end, rawOffPct, targetPct }) =>
      `${end} rides at ${one(m.rideHeightPct)} % of travel, ${one(Math.abs(rawOffPct))} points ${off > 0 ? 'deeper' : 'higher'} than the sag target of ${one(targetPct)} %`,
    lines: [
      {
        when: 'above',
        from: springBandPct,
        says: [{ kind: 'spring-soft', weight: 1.225, slope: 0.125, most: 2 }],
      },
      {
        when: 'below',
        from: -springBandPct,
        says: [{ kind: 'spring-firm', weight: 1.225, slope: 0.125, most: 2 }],
      },
    ],
  },
  {
    topic: 'bottom-outs',
    fromZero: true,
    label: 'Hard bottom-outs in a run',
    value: ({ m }) => m.hardBottomOuts,
    text: (x, { end }) => `${x} hard bottom-outs at the ${end}`,
    lines: [
      {
        when: 'above',
        from: 1.5,
        says: [
          { kind: 'ramp-low', weight: 0.8 },
          { kind: 'spring-soft', weight: 0.2 },
          { kind: 'hsc-open', weight: 0.4 },
        ],
      },
    ],
  },
  {
    topic: 'bottom-outs while deep',
    fromZero: true,
    label: 'Hard bottom-outs while riding more than 2 points deep',
    value: ({ m, offPct }) => (offPct > 2 ? m.hardBottomOuts : null),
    text: (x, { end }) => `${x} hard bottom-outs at the ${end}, which rides deep`,
    lines: [{ when: 'above', from: 1.5, says: [{ kind: 'spring-soft', weight: 0.5 }] }],
  },
  {
    topic: 'travel use',
    fromZero: true,
    label: 'Deepest point over three or more big hits, % of travel',
    value: ({ m }) => (m.bigHits >= 3 ? m.depthMaxPct : null),
    text: (x, { m, end }) => `${end} used ${Math.round(x)} % of its travel over ${m.bigHits} big hits`,
    lines: [
      {
        when: 'below',
        from: 82,
        says: [
          { kind: 'ramp-high', weight: 0.6 },
          { kind: 'spring-firm', weight: 0.2 },
          { kind: 'hsc-closed', weight: 0.2 },
        ],
      },
    ],
  },
  {
    topic: 'travel use while high',
    fromZero: true,
    label: 'The same while riding more than 2 points high',
    value: ({ m, offPct }) => (m.bigHits >= 3 && offPct < -2 ? m.depthMaxPct : null),
    text: (x, { end }) => `${end} used ${Math.round(x)} % of its travel and rides high`,
    lines: [{ when: 'below', from: 82, says: [{ kind: 'spring-firm', weight: 0.5 }] }],
  },
  {
    topic: 'dive',
    label: 'Deepest front in braking sections above its ride height, % points',
    value: ({ end, sections }) => {
      const rises = sections.flatMap((s) => (end === 'front' ? (s.front?.diveRisePct ?? []) : []))
      return rises.length > 0 ? Math.max(...rises) : null
    },
    text: (x) => `the front stands ${one(x)} points deeper while braking`,
    lines: [
      {
        when: 'above',
        from: 12,
        says: [
          { kind: 'lsc-open', weight: 0.5, slope: 0.12, most: 1.4 },
          { kind: 'spring-soft', weight: 0.3 },
        ],
      },
      { when: 'below', from: 6.5, says: [{ kind: 'lsc-closed', weight: 0.4, slope: 0.12, most: 1 }] },
    ],
  },
  {
    topic: 'support',
    label: 'Slow movement of the depth, 0.3–3 Hz, % of travel',
    value: ({ m }) => m.supportPct,
    text: (x, { end }) => `${end} sways by ${one(x)} % of travel below 3 Hz`,
    lines: [
      { when: 'above', from: 7.5, says: [{ kind: 'lsc-open', weight: 0.4, slope: 0.2, most: 1.2 }] },
      { when: 'below', from: 2.2, says: [{ kind: 'lsc-closed', weight: 0.3, slope: 0.3, most: 0.8 }] },
    ],
  },
  {
    topic: 'small bumps',
    label: 'Movement over small bumps, 8–25 Hz, % of travel per g at the axle',
    value: ({ m }) => m.chatterPctPerG,
    text: (x, { end }) => `${end} moves ${x.toFixed(2)} % of travel per g over small bumps`,
    lines: [
      {
        when: 'below',
        from: 0.4,
        says: [
          { kind: 'lsc-closed', weight: 0.4 },
          { kind: 'stiction', weight: 0.4 },
          { kind: 'spring-firm', weight: 0.3 },
        ],
      },
    ],
  },
]

/** What the figures of both ends together speak for. */
export const wholeRules: { topic: string; label: string; says: string }[] = [
  {
    topic: 'balance',
    label: 'Ride height front − rear against the sag targets, % points',
    says: 'beyond 6 points: front low or front high, 0.3 + a tenth of the points, at most 1.4',
  },
  {
    topic: 'return of both ends',
    label: 'Fast return speed, front over rear',
    says: 'above 1.6: front rebound too fast 0.3, rear too slow 0.3; below 0.6 the other way round',
  },
  {
    topic: 'buzz',
    label: 'Weighted vibration at the bar, m/s²',
    says: 'above 13: front low-speed compression too firm 0.3, front spring too firm 0.3, tyres 0.2',
  },
]

/**
 * Weight of a line at a value; 0 inside its threshold.
 * @param error standard error of the value: the mean over what it may truly be, nine values of equal chance
 */
export function lineWeight(
  line: MetricLine,
  s: MetricLine['says'][number],
  value: number,
  error: number | null = null,
): number {
  if (error !== null && error > 0)
    return (
      equallyLikely.reduce((sum, z) => sum + lineWeight(line, s, value + z * error), 0) / equallyLikely.length
    )
  const excess = line.when === 'above' ? value - line.from : line.from - value
  if (excess <= 0) return 0
  const w = s.weight + (s.slope ?? 0) * excess
  const most = s.most ?? Infinity
  return Math.max(-most, Math.min(most, w))
}

/** Quantiles of the standard normal distribution in the middle of nine equal shares. */
const equallyLikely = [-1.5932, -0.9674, -0.5895, -0.2822, 0, 0.2822, 0.5895, 0.9674, 1.5932]

function endFindings(r: Reading, zeroMoved: boolean): MetricFinding[] {
  return metricRules.flatMap((rule) => {
    const value = rule.fromZero && zeroMoved ? null : rule.value(r)
    if (value === null) return []
    const error = rule.error?.(r) ?? null
    const trust = rule.trust?.(r) ?? 1
    return rule.lines.flatMap((line) =>
      line.says.flatMap((s) => {
        const weight = trust * lineWeight(line, s, value, error)
        return weight === 0
          ? []
          : [{ kind: s.kind, end: r.end, weight, text: rule.text(value, r), topic: `${rule.topic} ${r.end}` }]
      }),
    )
  })
}

/**
 * How far from its target an end rides, % points of travel; depth that sinking through hit trains explains is taken off. A
 * rear that packs down rides deep because of its damper: that is not the spring's fault.
 */
export function rideHeightOffPct(
  m: Pick<EndMetrics, 'rideHeightPct' | 'valleyDriftPctPerHit'>,
  targetPct: number,
): number {
  const packed = hitsInTrain * Math.max(0, m.valleyDriftPctPerHit ?? 0)
  const rawPct = m.rideHeightPct - targetPct
  return rawPct > 0 ? Math.max(0, rawPct - packed) : rawPct
}

/**
 * Everything the figures of a run say, per end and about the balance.
 * @param zeroMoved ends whose sensor shows depths that cannot be: what rests on its zero says nothing
 */
export function metricFindings(
  { whole, sections }: Pick<Analysis, 'whole' | 'sections'>,
  sagTargets: Record<End, number | null>,
  zeroMoved: readonly End[] = [],
): MetricFinding[] {
  const out: MetricFinding[] = []
  for (const end of ['front', 'rear'] as const) {
    const m = whole[end]
    const targetPct = sagTargets[end]
    if (!m || targetPct === null) continue
    const rawOffPct = m.rideHeightPct - targetPct
    const offPct = rideHeightOffPct(m, targetPct)
    out.push(...endFindings({ m, end, offPct, rawOffPct, targetPct, sections }, zeroMoved.includes(end)))
  }
  const balanced = zeroMoved.length === 0 ? whole.balancePct : null
  if (balanced !== null && sagTargets.front !== null && sagTargets.rear !== null) {
    const off = balanced - (sagTargets.front - sagTargets.rear)
    if (Math.abs(off) > 6) {
      const low = off > 0
      out.push({
        kind: low ? 'nose-low' : 'nose-high',
        end: null,
        topic: 'balance',
        weight: Math.min(1.4, 0.3 + Math.abs(off) / 10),
        text: `the front rides ${one(Math.abs(off))} points ${low ? 'deeper' : 'higher'} against the rear than the sag targets ask`,
      })
    }
  }
  const ratio = whole.reboundSpeedRatio
  if (ratio !== null && (ratio > 1.6 || ratio < 0.6)) {
    const [fast, slow]: [End, End] = ratio > 1 ? ['front', 'rear'] : ['rear', 'front']
    const text = `the ${fast} comes back ${one(Math.max(ratio, 1 / ratio))} times as fast as the ${slow}`
    out.push({ kind: 'rebound-fast', end: fast, weight: 0.3, topic: 'return of both ends', text })
    out.push({ kind: 'rebound-slow', end: slow, weight: 0.3, topic: 'return of both ends', text })
  }
  if (whole.buzzMS2 !== null && whole.buzzMS2 > 13) {
    const text = `the bar buzzes with ${one(whole.buzzMS2)} m/s²`
    out.push({ kind: 'lsc-closed', end: 'front', weight: 0.3, topic: 'buzz', text })
    out.push({ kind: 'spring-firm', end: 'front', weight: 0.3, topic: 'buzz', text })
    out.push({ kind: 'tyres', end: null, weight: 0.2, topic: 'buzz', text })
  }
  return out
}
