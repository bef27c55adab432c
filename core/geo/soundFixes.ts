import { distanceM, type Fix } from './fix.ts'

export const soundRules = {
  /** Nobody is carried faster between two fixes, on a bike or in a car; and so far a sound receiver may wander. */
  fastestMS: 40,
  wanderM: 15,
  /** What lies further apart is of another year: a receiver's clock before it was set. */
  longestPauseS: 30 * 86_400,
} as const

/** Fixes of one ride that fit together. */
export interface SoundFixes {
  fixes: Fix[]
  /** So many were left out. */
  left: number
}

/**
 * Leaves out fixes that are none of the ride: 0°, 0° of a receiver that has not found its place, the place where it was
 * switched off last, jumps under trees and roofs, a clock that was not set yet. A track is cut where nobody could have come so far; its longest piece is
 * the ride, and of the others stays what can be reached from it.
 *
 * @param fixes times rising
 * Cost O(N).
 */
export function soundFixes(fixes: readonly Fix[]): SoundFixes {
  const pieces: Fix[][] = []
  for (const f of fixes) {
    if (f.latitudeDeg === 0 && f.longitudeDeg === 0) continue
    const piece = pieces.at(-1)
    if (piece && canCome(piece.at(-1)!, f)) piece.push(f)
    else pieces.push([f])
  }
  const ride = pieces.reduce((most, p, i) => (p.length > pieces[most].length ? i : most), 0)
  const before: Fix[][] = []
  const after: Fix[][] = pieces.length > 0 ? [pieces[ride]] : []
  for (let i = ride + 1; i < pieces.length; i++)
    if (canCome(after.at(-1)!.at(-1)!, pieces[i][0])) after.push(pieces[i])
  for (let i = ride - 1; i >= 0; i--)
    if (canCome(pieces[i].at(-1)!, (before.at(-1) ?? after[0])[0])) before.push(pieces[i])
  const sound = [...before.reverse(), ...after].flat()
  return { fixes: sound, left: fixes.length - sound.length }
}

const canCome = (from: Fix, to: Fix) =>
  to.timeS - from.timeS <= soundRules.longestPauseS &&
  distanceM(from, to) <= soundRules.fastestMS * (to.timeS - from.timeS) + soundRules.wanderM
