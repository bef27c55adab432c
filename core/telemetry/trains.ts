import type { Hit } from './hits.ts'

/** Four or more hits, each at most 0.6 s after the last. */
export interface HitTrain {
  hits: Hit[]
  /** Least-squares slope of the valleys between the hits, % of travel per hit; + = sinks (packing). */
  driftPctPerHit: number
}

export const trainRules = { leastHits: 4, longestPauseS: 0.6 } as const

export function findTrains(hits: readonly Hit[], sampleRateHz: number): HitTrain[] {
  const trains: HitTrain[] = []
  let run: Hit[] = []
  const close = () => {
    if (run.length >= trainRules.leastHits) trains.push({ hits: run, driftPctPerHit: valleySlope(run) })
    run = []
  }
  for (const h of hits) {
    const last = run[run.length - 1]
    if (last && (h.peakIndex - last.peakIndex) / sampleRateHz > trainRules.longestPauseS) close()
    run.push(h)
  }
  close()
  return trains
}

/** Slope of valley depth over hit number; the valley after the last hit belongs to no train. */
function valleySlope(hits: readonly Hit[]): number {
  const n = hits.length - 1
  const meanI = (n - 1) / 2
  let meanV = 0
  for (let i = 0; i < n; i++) meanV += hits[i].valleyPct / n
  let sxy = 0
  let sxx = 0
  for (let i = 0; i < n; i++) {
    sxy += (i - meanI) * (hits[i].valleyPct - meanV)
    sxx += (i - meanI) ** 2
  }
  return sxy / sxx
}
