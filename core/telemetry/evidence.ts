import type { EndMetrics } from '#contract/recording'

export interface EvidenceCount {
  what: string
  count: number
  needed: number
  /** What it takes this for; shown as "too few yet to judge …" below the minimum. */
  judges: string
}

/** Which kinds of event a recording holds enough of, against the minimum that each adjuster needs. */
export function evidenceCounts(
  front: EndMetrics | null,
  rear: EndMetrics | null,
  airtimeS: number | null,
): EvidenceCount[] {
  const both = (pick: (m: EndMetrics) => number) => Math.max(front ? pick(front) : 0, rear ? pick(rear) : 0)
  return [
    { what: 'hits', count: both((m) => m.hits), needed: 20, judges: 'return law' },
    {
      what: 'mid hits, 20 to 60 %',
      count: both((m) => m.midHits),
      needed: 12,
      judges: 'low-speed compression',
    },
    {
      what: 'big hits, above 60 %',
      count: both((m) => m.bigHits),
      needed: 4,
      judges: 'ramp and high-speed compression',
    },
    { what: 'hit trains', count: both((m) => m.trains), needed: 2, judges: 'rebound, packing' },
    {
      what: 'single hits that settle',
      count: both((m) => m.reboundDampingHits),
      needed: 3,
      judges: 'rebound, overshoot',
    },
    {
      what: 'time in the air, 0.1 s',
      count: Math.round((airtimeS ?? 0) * 10),
      needed: 5,
      judges: 'landings',
    },
  ]
}
