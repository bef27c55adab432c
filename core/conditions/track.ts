import type { HourLine, TrackChange } from '#contract/hour'
import type { RunConditions } from './log.ts'

const opposite: Partial<Record<TrackChange, TrackChange>> = {
  rougher: 'smoother',
  smoother: 'rougher',
  drier: 'wetter',
  wetter: 'drier',
}

/**
 * How the track has changed from one run to another by the log: what was noted between them, where a later line does not
 * take it back ("rougher", then "smoother").
 */
export function trackBetween(hours: readonly HourLine[], a: RunConditions, b: RunConditions): TrackChange[] {
  const [from, to] = [a, b].map((r) => Date.parse(r.startedAt)).sort((x, y) => x - y)
  let changed: TrackChange[] = []
  for (const h of hours) {
    const at = Date.parse(h.at)
    if (at <= from || at > to) continue
    for (const t of h.track) {
      const back = opposite[t]
      if (back && changed.includes(back)) changed = changed.filter((c) => c !== back)
      else if (!changed.includes(t)) changed = [...changed, t]
    }
  }
  return changed
}
