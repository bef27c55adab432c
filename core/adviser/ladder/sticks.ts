import { answerTo } from '../answers.ts'
import { plain, reason } from '../cards.ts'
import type { Climb, Rung } from './climb.ts'

/** Pushed slowly by hand it sticks and jumps: that is service, before any click. Said once; who rides on has heard it. */
export const sticks: Rung = (c) => atEnd(c, 'front') ?? atEnd(c, 'rear')

function atEnd(c: Climb, end: 'front' | 'rear'): ReturnType<Rung> {
  const last = c.onNow[c.onNow.length - 1]
  const told = answerTo(c.onNow, 'sticks', end)
  if (!last || told?.answer !== 'sticks' || told.run !== last) return null
  return {
    ...plain(
      'check-first',
      `The ${end} sticks: service before any click`,
      'Clean and wipe what slides, and cycle it ten times. If it still sticks it wants its seals and bushings looked at, by the manual or in a workshop: no dial makes up for that.',
      'Pushed down slowly, it moves without a jump.',
    ),
    speaksFor: [reason('Pushed down by hand it sticks and jumps', last.run.id)],
    causes: c.causes(),
  }
}
