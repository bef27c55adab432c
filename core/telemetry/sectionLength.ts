import type { SectionKind, TrailSection } from '#contract/trail'

type Sized = Pick<TrailSection, 'kind' | 'lengthM'>

const shortM: Partial<Record<SectionKind, number>> = { drop: 40, jump: 60, 'g-out': 40, 'flat-turn': 40 }

/** About how long a section of this kind is, m: only to lay it out among others, never shown as its length. */
export const usualLengthM = (kind: SectionKind): number => shortM[kind] ?? 100

/** Metres to lay a section out by: as somebody said, else as usual for its kind. */
export const layoutLengthM = (s: Sized): number => s.lengthM ?? usualLengthM(s.kind)

export const isLengthSaid = (s: Sized): boolean => s.lengthM !== null

/**
 * Metres to lay the sections of a ride out by: those that nobody has measured share what the others leave of the way.
 *
 * @param riddenM way from where the trail begins to where it ends
 */
export function layoutLengthsM(sections: readonly Sized[], riddenM: number): number[] {
  const saidM = sections.reduce((t, s) => t + (s.lengthM ?? 0), 0)
  const usualM = sections.reduce((t, s) => t + (isLengthSaid(s) ? 0 : usualLengthM(s.kind)), 0)
  const leftM = riddenM - saidM
  const scale = usualM > 0 && leftM > 0 ? leftM / usualM : 1
  return sections.map((s) => s.lengthM ?? scale * usualLengthM(s.kind))
}
