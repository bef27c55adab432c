import type { CauseSeat } from '#core/causes/words'

/** Where a cause sits, before its name. */
export const seatWords: Record<CauseSeat, string> = {
  same: 'the end you named: ',
  front: 'front: ',
  rear: 'rear: ',
  bike: '',
}
