import type { End } from '#contract/common'
import type { SpanMetrics } from '#contract/recording'

export interface EvidenceCount {
  what: string
  /** null: told by depths, and no end has any that count. */
  count: number | null
  needed: number
  /** What it takes this for; shown as "too few yet to judge …" below the minimum. */
  judges: string
  /** What to ride for more of it. */
  ride: string
}

type OfEnd = NonNullable<SpanMetrics['front']>

/**
 * Which kinds of event a recording holds enough of, against the minimum that each adjuster needs.
 * @param wrongDepths ends whose sensor's zero has moved: what is told by their depths is not counted
 */
export function evidenceCounts(whole: SpanMetrics, wrongDepths: readonly End[] = []): EvidenceCount[] {
  const { front, rear } = whole
  const most = (pick: (m: OfEnd) => number) => Math.max(front ? pick(front) : 0, rear ? pick(rear) : 0)
  const rightOf = (end: End, m: OfEnd | null) => (m && !wrongDepths.includes(end) ? [m] : [])
  const believed = [...rightOf('front', front), ...rightOf('rear', rear)]
  const deepest = (pick: (m: OfEnd) => number) =>
    believed.length === 0 && wrongDepths.length > 0 ? null : Math.max(0, ...believed.map(pick))
  const rows: EvidenceCount[] = [
    {
      what: 'seconds of small chatter',
      count: most((m) => m.chatterS),
      needed: 5,
      judges: 'harshness over small bumps: pressure, low-speed compression, friction',
      ride: 'half a minute of gravel or small stones',
    },
    {
      what: 'hits',
      count: deepest((m) => m.hits),
      needed: 20,
      judges: 'return speed by depth',
      ride: 'a minute of any rough ground',
    },
    {
      what: 'mid hits, 20 to 60 %',
      count: deepest((m) => m.midHits),
      needed: 12,
      judges: 'low-speed compression',
      ride: 'roots, rollers or braking bumps at your pace',
    },
    {
      what: 'big hits, above 60 %',
      count: deepest((m) => m.bigHits),
      needed: 4,
      judges: 'ramp and high-speed compression',
      ride: 'square edges at speed, a drop or a jump',
    },
    {
      what: 'hit trains',
      count: most((m) => m.trains),
      needed: 2,
      judges: 'rebound, packing',
      ride: 'a root web or braking bumps',
    },
    {
      what: 'quiet returns',
      count: most((m) => m.reboundDampingHits),
      needed: 3,
      judges: 'rebound, overshoot',
      ride: 'single edges with smooth ground behind',
    },
  ]
  // One end alone cannot tell braking, turns and flight from each other.
  if (whole.brakings !== null)
    rows.push({
      what: 'braking',
      count: whole.brakings,
      needed: 3,
      judges: 'dive: front low-speed compression',
      ride: 'a section with firm braking',
    })
  if (whole.loadedTurns !== null)
    rows.push({
      what: 'loaded turns and dips',
      count: whole.loadedTurns,
      needed: 2,
      judges: 'support',
      ride: 'berms or a dip at speed',
    })
  if (whole.landings !== null)
    rows.push({
      what: 'landings',
      count: wrongDepths.length > 0 ? null : whole.landings,
      needed: 2,
      judges: 'end of the stroke, and rebound after it',
      ride: 'a small jump or drop',
    })
  return rows
}
