import type { DayBundle } from '#contract/endpoints'
import type { EndMetrics, SpanMetrics } from '#contract/recording'
import { settingsKey } from '#core/adviser/history'
import { clearDifference, repeatSd } from '#core/stats/metricNoise'
import { signedWords } from './words.ts'

interface Figure {
  key: string
  name: string
  unit: string
  digits: number
  /** Smaller differences are of no use to anyone, however well measured. */
  least: number
  metric: NumberMetric
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
  },
  {
    key: 'deep',
    name: 'depth, 95 % of the time below',
    unit: '% of travel',
    digits: 0,
    least: 2,
    metric: 'depthP95Pct',
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
  /** Against the scatter of repeats: clear, within it, or not known without a repeat. */
  size: 'clear' | 'within' | 'unknown'
}

/** Paired differences B − A, section by section, against the noise of repeated settings on this day. */
export function sectionDifferences(bundle: DayBundle, runA: string, runB: string): SectionDifference[] {
  const analysisOf = (runId: string) => bundle.recordings.find((r) => r.runId === runId)?.analysis
  const a = analysisOf(runA)
  const b = analysisOf(runB)
  if (!a || !b) return []
  const out: SectionDifference[] = []
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
    ]
    for (const { end, f, of: pick } of rows) {
      const [sa, sb] = [of(a), of(b)]
      const va = sa ? pick(sa) : null
      const vb = sb ? pick(sb) : null
      if (va !== null && vb !== null) {
        const noise = noiseOf(bundle, span.id, pick)
        const size =
          noise === null
            ? 'unknown'
            : Math.abs(vb - va) > Math.max(f.least, clearDifference(noise))
              ? 'clear'
              : 'within'
        out.push({
          key: `${span.id}-${end}-${f.key}`,
          section: span.name,
          end,
          name: f.name,
          unit: f.unit,
          a: va.toFixed(f.digits),
          b: vb.toFixed(f.digits),
          difference: signedWords(vb - va, f.digits),
          size,
        })
      }
    }
  }
  return out
}

function noiseOf(
  bundle: DayBundle,
  sectionId: string | null,
  pick: (s: SpanMetrics) => number | null,
): ReturnType<typeof repeatSd> {
  const groups = new Map<string, number[]>()
  for (const run of bundle.runs.filter((r) => r.kind === 'counted')) {
    const setup = bundle.setups.find((s) => s.id === run.setupId)
    const analysis = bundle.recordings.find((r) => r.runId === run.id)?.analysis
    const span =
      sectionId === null ? analysis?.whole : analysis?.sections.find((s) => s.sectionId === sectionId)
    const v = span ? pick(span) : null
    if (!setup || v === null) continue
    const key = settingsKey(setup)
    groups.set(key, [...(groups.get(key) ?? []), v])
  }
  return repeatSd([...groups.values()])
}
