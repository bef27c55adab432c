/** A field of a record that was changed here and elsewhere, both as words. */
export interface FieldDifference {
  field: string
  mine: string
  theirs: string
}

const said = (value: unknown) =>
  value === null || value === undefined || value === ''
    ? 'empty'
    : typeof value === 'object'
      ? 'other details'
      : String(value)

/** Kept by the server, and nothing that a person chooses about. */
const own = new Set(['id', 'version'])

/** Where two versions of a record differ, field by field. */
export function differencesOf(mine: object, theirs: object): FieldDifference[] {
  const [a, b] = [mine, theirs] as Record<string, unknown>[]
  return Object.keys(a)
    .filter((k) => !own.has(k) && JSON.stringify(a[k]) !== JSON.stringify(b[k]))
    .map((k) => ({ field: k, mine: said(a[k]), theirs: said(b[k]) }))
}

/** "bodyMassKg" as a person reads it. */
const fieldWords = (field: string) =>
  field
    .replace(/([A-Z])/g, ' $1')
    .replace(/ (Kg|Psi|Mm|Pct|C|M)$/i, '')
    .toLowerCase()

/** One difference in words. */
export const differenceWords = (d: FieldDifference) =>
  `${fieldWords(d.field)}: yours ${d.mine}, theirs ${d.theirs}`
