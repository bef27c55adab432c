import type { SpanMetrics } from '#contract/recording'

export interface EvidenceCount {
  what: string
  count: number
  needed: number
  /** What it takes this for; shown as "too few yet to judge …" below the minimum. */
  judges: string
  /** What to ride for more of it. */
  ride: string
}

/** Which kinds of event a recording holds enough of, against the minimum that each adjuster needs. */
export function evidenceCounts(whole: SpanMetrics): EvidenceCount[] {
  const { front, rear } = whole
  const most = (pick: (m: NonNullable<SpanMetrics['front']>) => number) =>
    Math.max(front ? pick(front) : 0, rear ? pick(rear) : 0)
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
      count: most((m) => m.hits),
      needed: 20,
      judges: 'return speed by depth',
      ride: 'a minute of any rough ground',
    },
    {
      what: 'mid hits, 20 to 60 %',
      count: most((m) => m.midHits),
      needed: 12,
      judges: 'low-speed compression',
      ride: 'roots, rollers or braking bumps at your pace',
    },
    {
      what: 'big hits, above 60 %',
      count: most((m) => m.bigHits),
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
      count: whole.landings,
      needed: 2,
      judges: 'end of the stroke, and rebound after it',
      ride: 'a small jump or drop',
    })
  return rows
}
