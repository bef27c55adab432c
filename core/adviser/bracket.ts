import type { Adjuster } from '#contract/adjuster'
import { adjusterRange } from '../adjusters/range.ts'
import type { Session } from '../stats/session.ts'
import type { Outlook } from './decide.ts'
import type { DayHistory } from './dayHistory.ts'
import { countedRuns, setupOf, settingsKey } from './history.ts'

export interface TriedPosition {
  value: number
  outcome: 'start' | 'better' | 'worse' | 'unclear'
  runs: number
}

/** What is known of one adjuster: where it was tried and where its best place still can be. */
export interface Bracket {
  tried: TriedPosition[]
  /** The best place lies between these with 80 %; an open side reaches past all that was tried. */
  low: number
  high: number
  lowOpen: boolean
  highOpen: boolean
}

/** A side is open while the best place lies beyond everything tried there with more than this chance. */
const openFrom = 0.2
const likely = 0.75

/** null while the adjuster stood in one place all day. */
export function bracketOf(
  h: DayHistory,
  adjuster: Adjuster,
  session: Session,
  outlook: Outlook,
): Bracket | null {
  const byValue = new Map<number, Set<string>>()
  const runsAt = new Map<number, number>()
  let first: number | null = null
  for (const r of countedRuns(h)) {
    const setup = setupOf(h, r.run.setupId)
    const value = setup?.positions.find((p) => p.adjusterId === adjuster.id)?.value
    if (!setup || value === undefined) continue
    first ??= value
    if (!byValue.has(value)) byValue.set(value, new Set())
    byValue.get(value)!.add(settingsKey(setup))
    runsAt.set(value, (runsAt.get(value) ?? 0) + 1)
  }
  if (first === null || byValue.size < 2) return null

  // At each place, the best-liked settings stand for it.
  const champion = new Map<number, { key: string; mean: number; rated: boolean }>()
  for (const [value, keys] of byValue) {
    const ranked = [...keys]
      .map((key) => ({ key, level: session.level(key) }))
      .sort((a, b) => b.level.mean - a.level.mean)
    const rated = ranked.find((x) => x.level.runs > 0) ?? ranked[0]
    champion.set(value, { key: rated.key, mean: rated.level.mean, rated: rated.level.runs > 0 })
  }
  const better = (b: number, a: number) => {
    const x = champion.get(a)!
    const y = champion.get(b)!
    return x.rated && y.rated ? session.chanceOfBetter(x.key, y.key) : 0.5
  }
  const values = [...byValue.keys()].sort((a, b) => a - b)
  const tried = values.map((value): TriedPosition => {
    const p = value === first ? 0.5 : better(value, first!)
    const outcome = value === first ? 'start' : p >= likely ? 'better' : p <= 1 - likely ? 'worse' : 'unclear'
    return { value, outcome, runs: runsAt.get(value)! }
  })
  return { tried, ...spanOf(adjuster, values, outlook) }
}

/** Where the best place lies by the surface: 10 % and 90 % quantiles, widened to positions the part can stand in. */
function spanOf(
  adjuster: Adjuster,
  tried: readonly number[],
  { dials, surface }: Outlook,
): Pick<Bracket, 'low' | 'high' | 'lowOpen' | 'highOpen'> {
  const k = dials.findIndex((d) => d.adjuster.id === adjuster.id)
  const range = adjusterRange(adjuster)
  if (k < 0) return { low: range.min, high: range.max, lowOpen: true, highOpen: true }
  const places = surface.best.filter((_, i) => i % surface.dials === k).sort()
  const at = (p: number) => dials[k].fromClicks(places[Math.floor(p * (places.length - 1))])
  const share = (test: (z: number) => boolean) => places.filter(test).length / places.length
  const lowest = dials[k].toClicks(tried[0])
  const highest = dials[k].toClicks(tried[tried.length - 1])
  const step = range.allowed || adjuster.kind === 'pressure' ? 1 : range.step
  const inside = (x: number) => Math.min(range.max, Math.max(range.min, x))
  return {
    low: inside(Math.floor(at(0.1) / step + 1e-6) * step),
    high: inside(Math.ceil(at(0.9) / step - 1e-6) * step),
    lowOpen: share((z) => z < lowest - 0.5) > openFrom,
    highOpen: share((z) => z > highest + 0.5) > openFrom,
  }
}
