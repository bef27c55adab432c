import type { Adjuster } from '#contract/adjuster'
import { adjusterRange } from '../adjusters/range.ts'
import type { Session } from '../stats/session.ts'
import { countedRuns, setupOf, settingsKey, type DayHistory } from './history.ts'

export interface TriedPosition {
  value: number
  outcome: 'start' | 'better' | 'worse' | 'unclear'
  runs: number
}

/** What is known of one adjuster: where it was tried and where its best place still can be. */
export interface Bracket {
  tried: TriedPosition[]
  /** The best place lies between these, as far as is known; an open side is bounded by the part's own range. */
  low: number
  high: number
  lowOpen: boolean
  highOpen: boolean
}

const surely = 0.8
const likely = 0.75

/** null while the adjuster stood in one place all day. */
export function bracketOf(h: DayHistory, adjuster: Adjuster, session: Session): Bracket | null {
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
    return x.rated && y.rated ? session.compare(x.key, y.key).probability : 0.5
  }
  const values = [...byValue.keys()].sort((a, b) => a - b)
  const tried = values.map((value): TriedPosition => {
    const p = value === first ? 0.5 : better(value, first!)
    const outcome = value === first ? 'start' : p >= likely ? 'better' : p <= 1 - likely ? 'worse' : 'unclear'
    return { value, outcome, runs: runsAt.get(value)! }
  })
  const best = values.reduce((b, v) => (champion.get(v)!.mean > champion.get(b)!.mean ? v : b))
  const range = adjusterRange(adjuster)
  const below = values.filter((v) => v < best && better(best, v) >= surely)
  const above = values.filter((v) => v > best && better(best, v) >= surely)
  return {
    tried,
    low: below.length ? below[below.length - 1] : range.min,
    high: above.length ? above[0] : range.max,
    lowOpen: below.length === 0,
    highOpen: above.length === 0,
  }
}
