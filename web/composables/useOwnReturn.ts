import { countBaseWords, toCount } from '#core/adjusters/count'
import { usualRatioPerClick } from '#core/damper/clicks'
import { ownReturn } from '#core/setup/ownNumbers'
import { useOwnNumbers } from './useOwnNumbers.ts'

/** Damping ratio that the middle of a dial is taken to give. */
export const middleRatio = 0.6
/** Natural frequency with usual sag, rad/s. */
const usualOmega = 14
const inventedClicks = 14

/**
 * Rebound for the figures: the dial of the bike that was chosen and the spring it works against, or an invented one.
 * @param inventedAt where the invented dial stands, clicks from closed
 */
export function useOwnReturn(inventedAt: number) {
  const numbers = useOwnNumbers(({ bike, now, unitAt }) => ownReturn(bike, unitAt, now))
  const { own } = numbers
  const most = own?.adjuster.clicks ?? inventedClicks
  const spring = !own?.omegaRadS
    ? 'Its spring is not known well enough: a usual one is taken.'
    : own.sagRead
      ? 'Its spring as it stands, at the sag that was read.'
      : 'Its spring as it stands; nobody has read sag at this pressure: its target is taken for it.'
  return {
    numbers,
    own,
    at: own?.value ?? inventedAt,
    most,
    step: own?.adjuster.step ?? 1,
    omegaRadS: own?.omegaRadS ?? usualOmega,
    /** No chart tells what a click damps; the middle of the dial is taken as right. */
    ratioAt: (click: number) => middleRatio * usualRatioPerClick.low ** (most / 2 - click),
    count: (click: number) => (own ? toCount(own.adjuster, click) : click),
    dialWords: (click: number) =>
      own
        ? `Rebound ${toCount(own.adjuster, click)} clicks ${countBaseWords(own.adjuster)}`
        : `Rebound ${click} clicks from closed`,
    /** Whose it is, and what of it is taken rather than known; empty for the invented one. */
    taken: own ? `The ${own.end} rebound of this bike, where it was counted to stand. ${spring}` : '',
  }
}
