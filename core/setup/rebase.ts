import type { Position, Setup } from '#contract/setup'

const samePlace = 1e-6

/**
 * What somebody turned on settings that were not the present ones any more, laid on the present: only the parts that were
 * turned or read move, everything else stays as it is on the bike.
 *
 * @param from    the settings that were seen
 * @param turned  what was made of them
 * @param present what is on the bike now
 */
export function rebased(
  from: Pick<Setup, 'positions'>,
  turned: Pick<Setup, 'positions'>,
  present: Pick<Setup, 'positions'>,
): Position[] {
  const before = new Map(from.positions.map((p) => [p.adjusterId, p]))
  const moved = turned.positions.filter((p) => {
    const was = before.get(p.adjusterId)
    return !was || Math.abs(was.value - p.value) > samePlace || was.known.how !== p.known.how
  })
  const ids = new Set(moved.map((p) => p.adjusterId))
  return [...present.positions.filter((p) => !ids.has(p.adjusterId)), ...moved]
}
