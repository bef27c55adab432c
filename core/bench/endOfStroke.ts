import type { Effort } from '#contract/bench'
import { strokePct } from '../spring/sag.ts'

/** Ring at the deepest, % of travel, that is right for how hard it was used. */
export const wishedDepthPct: Record<Effort, readonly [number, number]> = {
  'car-park': [75, 90],
  'small-drop': [80, 90],
  trail: [80, 95],
  'hardest-trail': [90, 100],
}

export type EndVerdict = 'spring-first' | 'good' | 'too-easy' | 'too-far-off'

export interface EndOfStrokeJudgement {
  usedPct: number
  verdict: EndVerdict
  /** Spacers to add (+1) or take out (−1); 0 when none is to move. */
  spacers: -1 | 0 | 1
  words: string
}

/** Off the sag target by more than this, the ring says nothing about ramp. */
const sagFirstPoints = 4

/**
 * What a ring reading after a bounce, drop or ride says. Sag comes first; then too easily all = more ramp, far less =
 * less ramp. One spacer at a time, with its same-sag pressure.
 *
 * @param sagOffPoints sag minus target, % points; null when not read
 */
export function judgeEndOfStroke(
  ringMm: number,
  strokeMm: number,
  effort: Effort,
  sagOffPoints: number | null,
  spacers: number | null,
  allowed: number | null,
): EndOfStrokeJudgement {
  const usedPct = strokePct(ringMm, strokeMm)
  const [low, high] = wishedDepthPct[effort]
  const is = (verdict: EndVerdict, move: -1 | 0 | 1, words: string) => ({
    usedPct,
    verdict,
    spacers: move,
    words,
  })
  if (sagOffPoints !== null && Math.abs(sagOffPoints) > sagFirstPoints)
    return is(
      'spring-first',
      0,
      `Sag is ${sagOffPoints > 0 ? 'too deep' : 'too shallow'}; set the spring first, then look at the end of the stroke.`,
    )
  if (usedPct >= low && usedPct <= high)
    return is(
      'good',
      0,
      effort === 'hardest-trail' && usedPct >= 97
        ? 'All of it, once, on the biggest hit: that is fine.'
        : 'Good: the travel is used and something is left.',
    )
  if (usedPct > high) {
    if (spacers === null || allowed === null)
      return is(
        'too-easy',
        0,
        'All of it comes easily. This unit has no spacers: firmer high-speed compression, or a firmer or progressive spring.',
      )
    return spacers < allowed
      ? is('too-easy', 1, 'All of it comes easily: add one spacer, and its same-sag pressure with it.')
      : is(
          'too-easy',
          0,
          'All of it comes easily and no further spacer is allowed: firmer high-speed compression, or less sag inside the window.',
        )
  }
  if (spacers !== null && spacers > 0)
    return is('too-far-off', -1, 'Far from the end: take out one spacer, and its same-sag pressure with it.')
  return is(
    'too-far-off',
    0,
    'Far from the end with no spacer to take out: open high-speed compression, or more sag inside the window.',
  )
}
