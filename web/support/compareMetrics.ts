import type { DayBundle } from '#contract/endpoints'
import type { Analysis, EndMetrics, SpanMetrics } from '#contract/recording'
import { settingsKey, spaceOfDay } from '#core/adviser/history'
import { zeroMoved, type ZeroMoved } from '#core/adviser/zeroMoved'
import { clearDifference, repeatSd } from '#core/stats/metricNoise'
import { normal80 } from '#core/stats/normal'
import { explainedByPace, paceScaling, simulatedScaling, type PacedValue } from '#core/stats/paceScaling'
import { plainWords, signedWords } from './words.ts'

interface Figure {
  key: string
  name: string
  unit: string
  digits: number
  /** Smaller differences are of no use to anyone, however well measured. */
  least: number
  metric: NumberMetric
  /** A depth counted from the sensor's zero: it says nothing once that has moved. */
  fromZero?: true
}
/** Metrics of an end that are one number. */
type NumberMetric = {
  [K in keyof EndMetrics]: EndMetrics[K] extends number | null ? K : never
}[keyof EndMetrics]
/** A figure of the bike as a whole. */
type BikeFigure = Omit<Figure, 'metric'> & { pick: (s: SpanMetrics) => number | null }

export const endFigures: Figure[] = [
  {
    key: 'ride',
    name: 'ride height',
    unit: '% of travel',
    digits: 1,
    least: 0.7,
    metric: 'rideHeightPct',
    fromZero: true,
  },
  {
    key: 'deep',
    name: 'depth, 95 % of the time below',
    unit: '% of travel',
    digits: 0,
    least: 2,
    metric: 'depthP95Pct',
    fromZero: true,
  },
  {
    key: 'support',
    name: 'slow movement',
    unit: '% of travel',
    digits: 1,
    least: 0.4,
    metric: 'supportPct',
  },
  {
    key: 'chatter',
    name: 'small-bump movement',
    unit: '% of travel',
    digits: 2,
    least: 0.15,
    metric: 'smallBumpPct',
  },
  {
    key: 'drift',
    name: 'sinking per hit',
    unit: '% per hit',
    digits: 2,
    least: 0.2,
    metric: 'valleyDriftPctPerHit',
  },
  {
    key: 'return',
    name: 'return speed, 95 % below',
    unit: 'mm/s',
    digits: 0,
    least: 25,
    metric: 'reboundP95MmS',
  },
  {
    key: 'dive',
    name: 'deeper in braking',
    unit: '% points',
    digits: 1,
    least: 0.7,
    metric: 'diveRisePct',
  },
  {
    key: 'passed',
    name: 'small-bump movement for each g at the axle',
    unit: '% per g',
    digits: 2,
    least: 0.1,
    metric: 'chatterPctPerG',
  },
]
const bikeFigures: BikeFigure[] = [
  {
    key: 'buzz',
    name: 'buzz in the hands',
    unit: 'm/s²',
    digits: 1,
    least: 0.5,
    pick: (s) => s.buzzMS2,
  },
  {
    key: 'balance',
    name: 'front deeper than rear',
    unit: '% points',
    digits: 1,
    least: 0.7,
    pick: (s) => s.balancePct,
    fromZero: true,
  },
]

export interface SectionDifference {
  key: string
  section: string
  /** null: of the bike as a whole. */
  end: 'front' | 'rear' | null
  name: string
  unit: string
  a: string
  b: string
  difference: string
  /** Pace of B against A there, in words; null where it is not known. */
  pace: string | null
  /** What the scatter of repeats makes of it, ±; null without a repeat. */
  scatter: string | null
  /** How much of the difference pace makes, with its sign; null where that is not known, or nothing. */
  ofPace: string | null
  /** Against the scatter of repeats: clear, within it, larger but too small to be of use, or not known without a repeat. */
  size: 'clear' | 'within' | 'small' | 'unknown'
}

/** Ends of a run whose sensor shows deeper than its ring: the zero has moved. */
export function movedZerosOf(bundle: DayBundle, runId: string): ZeroMoved[] {
  const run = bundle.runs.find((r) => r.id === runId)
  const analysis = bundle.recordings.find((r) => r.runId === runId)?.analysis
  return run && analysis ? zeroMoved({ run, analysis }, spaceOfDay(bundle)) : []
}

/** Less is the same pace. */
const samePace = 0.01

/**
 * Paired differences B − A, section by section, against the noise of repeated settings on this day. What pace makes of a
 * figure (this bike's own repeats, else the simulator) is taken out of the difference and of the repeats before they are
 * weighed, and how unsure that is is added to what a difference must beat. Depths of a sensor whose zero has moved are left
 * out, of the two runs and of the repeats.
 */
export function sectionDifferences(bundle: DayBundle, runA: string, runB: string): SectionDifference[] {
  const analysisOf = (runId: string) => bundle.recordings.find((r) => r.runId === runId)?.analysis
  const a = analysisOf(runA)
  const b = analysisOf(runB)
  if (!a || !b) return []
  const out: SectionDifference[] = []
  const wrong = new Map(bundle.runs.map((r) => [r.id, movedZerosOf(bundle, r.id).map((z) => z.end)]))
  const spans = [
    { id: null as string | null, name: 'Whole run' },
    ...bundle.trail.sections.map((s) => ({ id: s.id as string | null, name: s.name })),
  ]
  for (const span of spans) {
    const of = (x: typeof a): SpanMetrics | undefined =>
      span.id === null ? x.whole : x.sections.find((s) => s.sectionId === span.id)
    const rows = [
      ...(['front', 'rear'] as const).flatMap((end) =>
        endFigures.map((f) => ({ end, f, of: (s: SpanMetrics) => s[end]?.[f.metric] ?? null })),
      ),
      ...bikeFigures.map((f) => ({ end: null, f, of: f.pick })),
    ].map(({ end, f, of: pick }) => {
      const isWrong = (runId: string) =>
        f.fromZero && (wrong.get(runId) ?? []).some((e) => end === null || e === end)
      return { end, f, of: (s: SpanMetrics, runId: string) => (isWrong(runId) ? null : pick(s)) }
    })
    const [fromS, toS] = [durationOf(a, span.id), durationOf(b, span.id)]
    const faster = fromS && toS ? fromS / toS - 1 : null
    for (const { end, f, of: pick } of rows) {
      const [sa, sb] = [of(a), of(b)]
      const va = sa ? pick(sa, runA) : null
      const vb = sb ? pick(sb, runB) : null
      if (va !== null && vb !== null) {
        const repeats = repeatsOf(bundle, span.id, pick)
        const table = 'metric' in f ? simulatedScaling[f.metric] : undefined
        const scaling = paceScaling(
          repeats,
          (table && (span.id === null ? table.whole : table.section)) ?? null,
        )
        const { explained, sd } =
          scaling && fromS && toS ? explainedByPace(va, scaling, fromS, toS) : { explained: 0, sd: 0 }
        const noise = repeatSd(
          repeats.map((group) => {
            const known = group.flatMap((v) => v.durationS ?? [])
            const meanS = known.reduce((s, v) => s + v, 0) / known.length
            return group.map((v) =>
              scaling && v.durationS && known.length > 1
                ? v.value - explainedByPace(v.value, scaling, meanS, v.durationS).explained
                : v.value,
            )
          }),
        )
        const beats = noise === null ? null : clearDifference(noise) + normal80 * sd
        const left = Math.abs(vb - va - explained)
        const size =
          beats === null
            ? 'unknown'
            : left <= beats
              ? 'within'
              : // Taking pace out must not make much of what was hardly there.
                Math.abs(vb - va) > f.least && left > f.least
                ? 'clear'
                : 'small'
        out.push({
          key: `${span.id}-${end}-${f.key}`,
          section: span.name,
          end,
          name: f.name,
          unit: f.unit,
          a: plainWords(va, f.digits),
          b: plainWords(vb, f.digits),
          difference: signedWords(vb - va, f.digits),
          pace:
            faster === null
              ? null
              : Math.abs(faster) < samePace
                ? 'same pace'
                : `B ${Math.round(100 * Math.abs(faster))} % ${faster > 0 ? 'faster' : 'slower'}`,
          ofPace: Math.abs(explained) >= 10 ** -f.digits / 2 ? signedWords(explained, f.digits) : null,
          scatter: beats === null ? null : scatterWords(beats, f.digits),
          size,
        })
      }
    }
  }
  return out
}

/** A spread in the decimals of its figure; never as if there were none. */
function scatterWords(spread: number, digits: number): string {
  const least = 10 ** -digits
  return spread < least / 2 ? `± < ${least.toFixed(digits)}` : `± ${spread.toFixed(digits)}`
}

/**
 * How long the trail, or a section of it, took. null where sections were only guessed: shares of time tell no pace.
 * The whole is the sum of its sections, so that standing before and after them is no slow ride.
 */
function durationOf(analysis: Analysis, sectionId: string | null): number | null {
  if (analysis.sectionsBy === 'share-of-length' || analysis.sections.length === 0) return null
  const spans = analysis.sections.filter((s) => sectionId === null || s.sectionId === sectionId)
  return spans.reduce((sum, s) => sum + s.endS - s.startS, 0) || null
}

/** A figure of every counted run, by its settings. */
function repeatsOf(
  bundle: DayBundle,
  sectionId: string | null,
  pick: (s: SpanMetrics, runId: string) => number | null,
): PacedValue[][] {
  const groups = new Map<string, PacedValue[]>()
  for (const run of bundle.runs.filter((r) => r.kind === 'counted')) {
    const setup = bundle.setups.find((s) => s.id === run.setupId)
    const analysis = bundle.recordings.find((r) => r.runId === run.id)?.analysis
    const span =
      sectionId === null ? analysis?.whole : analysis?.sections.find((s) => s.sectionId === sectionId)
    const v = span ? pick(span, run.id) : null
    if (!setup || v === null) continue
    const key = settingsKey(setup)
    groups.set(key, [
      ...(groups.get(key) ?? []),
      { value: v, durationS: analysis ? durationOf(analysis, sectionId) : null },
    ])
  }
  return [...groups.values()]
}
