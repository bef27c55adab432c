export interface BalanceJudgement {
  /** Front minus rear, each as % points deeper than its own target; + = front the deeper. */
  leanPoints: number
  verdict: 'balanced' | 'nose-low' | 'tail-low'
  words: string
}

/** Less than this between the ends cannot be felt or read. */
const noticeable = 3

/**
 * How front and rear stand to each other when both carry the rider together.
 * Each end against its own target: the two targets differ on purpose.
 */
export function judgeBalance(
  front: { sagPct: number; targetPct: number },
  rear: { sagPct: number; targetPct: number },
): BalanceJudgement {
  const leanPoints = front.sagPct - front.targetPct - (rear.sagPct - rear.targetPct)
  if (Math.abs(leanPoints) <= noticeable)
    return {
      leanPoints,
      verdict: 'balanced',
      words:
        'Front and rear stand alike against their targets. Push at the middle of the bike: both should move together.',
    }
  return leanPoints > 0
    ? {
        leanPoints,
        verdict: 'nose-low',
        words:
          'The front stands lower than the rear wants: steep, it tucks. Firmer front or softer rear spring.',
      }
    : {
        leanPoints,
        verdict: 'tail-low',
        words:
          'The rear stands lower than the front wants: light at the front, it pushes wide. Firmer rear or softer front spring.',
      }
}
