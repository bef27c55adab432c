import { plain } from '../cards.ts'
import { evidenceReturned } from '../returning.ts'
import type { Rung } from './climb.ts'

/** A settled day stays settled until the same complaint comes back. */
export const settledDay: Rung = ({ h }) =>
  h.settledSetupId === null
    ? null
    : (evidenceReturned(h) ??
      plain(
        'leave-it',
        'Settled. Leave it alone.',
        'Ride. New evidence opens the day again.',
        'A complaint on two runs.',
      ))
