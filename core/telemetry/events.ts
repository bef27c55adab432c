import type { RecordingEvent } from '#contract/recording'
import type { EndMotion } from './motion.ts'
import { findTrains } from './trains.ts'

export const eventRules = {
  bottomPct: 97,
  hardAtPct: 90,
  hardMmS: 500,
  topPct: 1,
  topMmS: 600,
  /** The stop itself brakes: the speed that counts is that from so long before it, s. */
  topFromS: 0.025,
  topToS: 0.008,
} as const

/** Bottom-outs (hard when 90 % is crossed faster than 500 mm/s), top-outs and hit trains, in order of time. */
export function findEvents(m: EndMotion): RecordingEvent[] {
  const { depthPct: d, speedMmS: v, sampleRateHz: rate, end } = m
  const events: RecordingEvent[] = []
  for (let i = 1; i < d.length; i++) {
    if (d[i - 1] < eventRules.hardAtPct && d[i] >= eventRules.hardAtPct) {
      const start = i
      let peak = i
      while (i < d.length && d[i] >= eventRules.hardAtPct) {
        if (d[i] > d[peak]) peak = i
        i++
      }
      if (d[peak] >= eventRules.bottomPct) {
        const hard = v[start] > eventRules.hardMmS
        events.push({
          kind: hard ? 'hard-bottom-out' : 'bottom-out',
          end,
          startS: start / rate,
          endS: i / rate,
          value: v[start],
        })
      }
    } else if (d[i - 1] > eventRules.topPct && d[i] <= eventRules.topPct) {
      const value = fastestBack(v, i - eventRules.topFromS * rate, i - eventRules.topToS * rate)
      if (value > eventRules.topMmS)
        events.push({ kind: 'top-out', end, startS: i / rate, endS: i / rate, value })
    }
  }
  for (const t of findTrains(m.hits, rate)) {
    events.push({
      kind: 'train',
      end,
      startS: t.hits[0].entryIndex / rate,
      endS: t.hits[t.hits.length - 1].peakIndex / rate,
      value: t.driftPctPerHit,
    })
  }
  return events.sort((a, b) => a.startS - b.startS)
}

/** Largest speed towards extension between two samples, mm/s. */
function fastestBack(v: Float64Array, from: number, to: number): number {
  let fastest = 0
  for (let i = Math.max(0, Math.floor(from)); i <= to; i++) if (-v[i] > fastest) fastest = -v[i]
  return fastest
}
