import type { TentHour } from '#contract/tent'
import { familyOf, effectWord } from '../adjusters/words.ts'
import type { Move } from '../setup/diff.ts'

/** A change of one rider, for the trend of all. */
export interface TrendMove {
  /** Of the rider’s day. */
  dayId: string
  atMs: number
  moves: readonly Move[]
}

/** What several riders turned the same way. */
export interface Trend {
  family: 'rebound' | 'compression' | 'spring'
  /** slower, faster, firmer, softer. */
  way: string
  /** Days of the riders who turned it so, and left it so. */
  dayIds: string[]
  sinceMs: number
  /** heat, cold: the air went that way since the first of them by as much as oil takes a click for; null: not explained. */
  by: 'heat' | 'cold' | null
}

/** Fewer than this is one rider’s affair. */
const leastRiders = 2
/** Oil asks for a click after about this much. Source: docs/models.md, "Oil". */
const clickDegC = 6

/** What oil that got warm, or cold, asks for. */
const oilAsks = {
  heat: { rebound: 'slower', compression: 'firmer' },
  cold: { rebound: 'faster', compression: 'softer' },
}

/**
 * What turns in the tent: ways that two riders or more went and stand by, most riders first. It tells of the track or of
 * the air, and says nothing of anybody's numbers.
 */
export function trends(changes: readonly TrendMove[], hours: readonly TentHour[]): Trend[] {
  // Where each rider's families stand against the start: what was turned and turned back is no trend.
  const net = new Map<string, { dayId: string; family: Trend['family']; way: string; firstMs: number }>()
  const totals = new Map<string, { move: Move; to: number; firstMs: number; dayId: string }>()
  for (const c of [...changes].sort((a, b) => a.atMs - b.atMs))
    for (const move of c.moves) {
      const key = `${c.dayId} ${move.adjuster.id}`
      const held = totals.get(key)
      totals.set(
        key,
        held ? { ...held, to: move.to } : { move, to: move.to, firstMs: c.atMs, dayId: c.dayId },
      )
    }
  for (const { move, to, firstMs, dayId } of totals.values()) {
    const family = familyOf(move.adjuster)
    if (family !== 'rebound' && family !== 'compression' && family !== 'spring') continue
    if (Math.abs(to - move.from) < 1e-6) continue
    const way = effectWord(move.adjuster, move.from, to)
    const key = `${dayId} ${family} ${way}`
    const held = net.get(key)
    net.set(key, { dayId, family, way, firstMs: Math.min(held?.firstMs ?? firstMs, firstMs) })
  }
  const ways = new Map<string, Trend>()
  for (const { dayId, family, way, firstMs } of net.values()) {
    const key = `${family} ${way}`
    const t = ways.get(key) ?? { family, way, dayIds: [], sinceMs: firstMs, by: null }
    ways.set(key, { ...t, dayIds: [...t.dayIds, dayId], sinceMs: Math.min(t.sinceMs, firstMs) })
  }
  return [...ways.values()]
    .filter((t) => t.dayIds.length >= leastRiders)
    .map((t) => ({ ...t, by: explainedBy(t, hours) }))
    .sort((a, b) => b.dayIds.length - a.dayIds.length || a.sinceMs - b.sinceMs)
}

/** The air over the day, where it went the way that oil would answer with this turn. */
function explainedBy(t: Trend, hours: readonly TentHour[]): Trend['by'] {
  const read = hours.filter((h) => h.airTempC !== null)
  const first = read.at(0)?.airTempC
  const last = read.at(-1)?.airTempC
  if (t.family === 'spring' || first === undefined || last === undefined || first === null || last === null)
    return null
  if (last - first >= clickDegC && oilAsks.heat[t.family] === t.way) return 'heat'
  if (first - last >= clickDegC && oilAsks.cold[t.family] === t.way) return 'cold'
  return null
}
