import type { Drill } from './drill.ts'

/** One thing that is made different for the same rider: the faults stay. */
export const variations = {
  noisier: 'the same rider, ratings scatter twice as much',
  vaguer: 'the same rider, in words that fit several causes',
  silent: 'the same rider, who only gives ratings',
} as const
export type Variation = keyof typeof variations

export const variationOf = (text: unknown): Variation | null =>
  Object.keys(variations).includes(String(text)) ? (text as Variation) : null

/** The drill with one thing varied. */
export function varied(drill: Drill, by: Variation | null): Drill {
  const { temper } = drill
  switch (by) {
    case null:
      return drill
    case 'noisier':
      return { ...drill, temper: { ...temper, noise: 2 * temper.noise } }
    case 'vaguer':
      return { ...drill, temper: { ...temper, manner: 'ambiguous', says: {} } }
    case 'silent':
      return { ...drill, temper: { ...temper, right: 0, misled: 0 } }
  }
}
