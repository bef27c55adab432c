import type { Bench, Posture } from '#contract/bench'
import type { End } from '#contract/common'
import type { SuspensionUnit } from '#contract/unit'
import { netPressurePsi, strokeShareAt } from '../spring/air.ts'
import { frontShare, type FrontShares } from '../spring/load.ts'
import { unitAir } from '../spring/unitSpring.ts'
import { sagNow } from './sagNow.ts'

export interface BalanceJudgement {
  /** Front minus rear, each as % points deeper than its own target in that posture; + = front the deeper. */
  leanPoints: number
  /** The targets as they stand in the posture of the reading, %. */
  targets: Record<End, number>
  verdict: 'balanced' | 'nose-low' | 'tail-low'
  words: string
}

/** Less than this between the ends cannot be felt or read. */
const noticeable = 3

/**
 * The sag that an end has in another posture when it is right in its own: the load moves with the rider, so a rear that is
 * right at 30 % seated stands higher in the ready position. Air: the spring's own curve at that pressure; coil: in
 * proportion. Source: shares of load as in core/spring/load.ts.
 *
 * @param targetPct   right in posture `from`, %
 * @param pressurePsi gauge pressure; null on a coil or when unread, then in proportion
 */
export function targetInPosture(
  unit: SuspensionUnit,
  targetPct: number,
  from: Posture,
  to: Posture,
  shares: FrontShares,
  pressurePsi: number | null,
  spacers: number,
): number {
  const share = (p: Posture) => (unit.end === 'front' ? frontShare(shares, p) : 1 - frontShare(shares, p))
  const ratio = share(to) / share(from)
  if (Math.abs(ratio - 1) < 1e-9) return targetPct
  if (unit.spring === 'air' && pressurePsi !== null) {
    const { shape } = unitAir(unit)
    const load = netPressurePsi(targetPct / 100, pressurePsi, shape, { spacers })
    return 100 * strokeShareAt(load * ratio, pressurePsi, shape, { spacers })
  }
  return targetPct * ratio
}

/**
 * How front and rear stand to each other when both carry the rider together.
 * Each end against its own target: the two targets differ on purpose.
 */
export function judgeBalance(
  front: { sagPct: number; targetPct: number },
  rear: { sagPct: number; targetPct: number },
): BalanceJudgement {
  const leanPoints = front.sagPct - front.targetPct - (rear.sagPct - rear.targetPct)
  const is = (verdict: BalanceJudgement['verdict'], words: string) => ({
    leanPoints,
    targets: { front: front.targetPct, rear: rear.targetPct },
    verdict,
    words,
  })
  if (Math.abs(leanPoints) <= noticeable)
    return is(
      'balanced',
      'Front and rear stand alike against their targets. Push at the middle of the bike: both should move together.',
    )
  return leanPoints > 0
    ? is(
        'nose-low',
        'The front stands lower than the rear wants: steep, it tucks. Firmer front or softer rear spring.',
      )
    : is(
        'tail-low',
        'The rear stands lower than the front wants: light at the front, it pushes wide. Firmer rear or softer front spring.',
      )
}

/** Balance from the readings of both ends together as the bench stands now; null before both are read. */
export function balanceNow(
  bench: Bench,
  units: readonly SuspensionUnit[],
  shares: FrontShares,
): BalanceJudgement | null {
  const of = (end: End) => {
    const unit = units.find((u) => u.end === end)
    const now = unit && sagNow(bench, unit, true)
    if (!unit || !now || now.pct === null) return null
    const { pressurePsi, spacers } = now.counted[0]
    const own = bench.posture[end]
    return {
      sagPct: now.pct,
      targetPct: targetInPosture(unit, unit.sagTargetPct, own, 'ready', shares, pressurePsi, spacers ?? 0),
    }
  }
  const [front, rear] = [of('front'), of('rear')]
  return front && rear ? judgeBalance(front, rear) : null
}
