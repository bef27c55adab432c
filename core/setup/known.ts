import type { Adjuster } from '#contract/adjuster'
import type { Known, Position, Setup } from '#contract/setup'
import { adjusterRange } from '../adjusters/range.ts'

/** Who made a number known, when, and with which gauge. */
export interface Hand {
  at: string
  by?: string
  gaugeId?: string | null
  airTempC?: number | null
  altitudeM?: number | null
  place?: string
}

export const assumed = (source: string, at: string | null = null): Known => ({
  how: 'assumed',
  at,
  by: '',
  source,
  gaugeId: null,
  airTempC: null,
  altitudeM: null,
  place: '',
})

export const setBy = (hand: Hand, source = ''): Known => ({
  how: 'set',
  at: hand.at,
  by: hand.by ?? '',
  source,
  gaugeId: hand.gaugeId ?? null,
  airTempC: hand.airTempC ?? null,
  altitudeM: hand.altitudeM ?? null,
  place: hand.place ?? '',
})

export const readBy = (hand: Hand, source = ''): Known => ({ ...setBy(hand, source), how: 'read' })

const samePlace = 1e-6

/**
 * How a place is known after a part was turned there. A dial that is turned by steps is known as well as it was before:
 * from an assumed 7, one click further is an assumed 8. A stop is felt, and gauge, lever, spring and spacers are seen, so
 * those are set whatever was known.
 *
 * @param before how the old place was known; undefined = unread
 */
export function knownAfterTurn(before: Known | undefined, part: Adjuster, to: number, hand: Hand): Known {
  const byCount = part.kind === 'click' || part.kind === 'turn' || part.kind === 'custom'
  const { min, max } = adjusterRange(part)
  const atStop = Math.abs(to - min) < samePlace || Math.abs(to - max) < samePlace
  if (byCount && !atStop && before?.how === 'assumed')
    return { ...before, at: hand.at, source: `turned by steps from an assumed place` }
  return setBy(hand)
}

/**
 * Positions after parts were turned; what was not turned stays as it was known.
 * @param to     canonical position per adjuster id
 * @param parts  the adjusters of both ends, by id, with their end
 */
export function withTurns(
  positions: readonly Position[],
  to: ReadonlyMap<string, number>,
  parts: ReadonlyMap<string, { part: Adjuster; end: Position['end'] }>,
  hand: Hand,
): Position[] {
  const held = new Map(positions.map((p) => [p.adjusterId, p]))
  const turned = [...to].flatMap(([id, value]): Position[] => {
    const x = parts.get(id)
    const before = held.get(id)
    if (!x || (before && Math.abs(before.value - value) < samePlace)) return []
    return [{ end: x.end, adjusterId: id, value, known: knownAfterTurn(before?.known, x.part, value, hand) }]
  })
  const moved = new Set(turned.map((p) => p.adjusterId))
  return [...positions.filter((p) => !moved.has(p.adjusterId)), ...turned]
}

/**
 * A day's setups with what was read later taken back to what was ridden before: a dial that was counted, and that nobody
 * is known to have set since it was only assumed, stood off by the same number of clicks all that time; one that was
 * unread stood where it was read.
 *
 * @param setups in the order they were made
 */
export function withLaterReadings(setups: readonly Setup[]): Setup[] {
  const out = setups.map((s) => s.positions.map((p) => ({ ...p })))
  setups.forEach((s, i) => {
    if (s.reason.source !== 'reading') return
    for (const read of s.positions) {
      const before = i > 0 ? out[i - 1].find((p) => p.adjusterId === read.adjusterId) : undefined
      if (read.known.how !== 'read' || (before && before.known.how !== 'assumed')) continue
      const off = before ? read.value - before.value : 0
      for (let k = i - 1; k >= 0; k--) {
        const p = out[k].find((x) => x.adjusterId === read.adjusterId)
        if (before ? p?.known.how !== 'assumed' : p !== undefined) break
        if (p) p.value += off
        else out[k].push({ ...read, known: assumed('as it was read later', s.madeAt) })
      }
    }
  })
  return setups.map((s, i) => ({ ...s, positions: out[i] }))
}

/** How a number is known, in a word a person reads beside it. */
export const knownWords = { unread: 'not read', assumed: 'assumed', set: 'set', read: 'read' } as const
