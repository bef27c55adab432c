import { plain } from '../cards.ts'
import { evidenceReturned, isOnSettled } from '../returning.ts'
import type { Rung } from './climb.ts'

/** A settled day stays settled until it is clearly worse, or something is turned. */
export const settledDay: Rung = ({ h }) =>
  h.settledSetupId === null || !isOnSettled(h)
    ? null
    : (evidenceReturned(h) ??
      plain(
        'leave-it',
        'Settled. Leave it alone.',
        'Ride. New evidence opens the day again.',
        'Two runs that are clearly worse, or one with a strong complaint.',
      ))
