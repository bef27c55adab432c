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

/** Endings of field names, and the units they mean. */
const units = {
  Kg: 'kg',
  Psi: 'psi',
  NPerMm: 'N/mm',
  Mm: 'mm',
  Pct: '%',
  Cc: 'cm³',
  C: '°C',
  M: 'm',
} as const
const unitAtEnd = /(?<=[a-z])(Kg|Psi|NPerMm|Mm|Pct|Cc|C|M)$/

/** One difference in words, numbers with their unit: "bodyMassKg" is "body mass", in kg. */
export function differenceWords({ field, mine, theirs }: FieldDifference): string {
  const [ending] = unitAtEnd.exec(field) ?? []
  const unit = ending ? ` ${units[ending as keyof typeof units]}` : ''
  const name = field
    .replace(unitAtEnd, '')
    .replace(/([A-Z])/g, ' $1')
    .toLowerCase()
  const withUnit = (x: string) => (x !== '' && Number.isFinite(Number(x)) ? x + unit : x)
  return `${name}: yours ${withUnit(mine)}, theirs ${withUnit(theirs)}`
}
