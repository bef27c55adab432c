import { say, type Quantity, type UnitChoice } from '#core/units/choice'
import { dateTimeWords, dateWords } from './dates.ts'

/** A thing in a record that was changed here and elsewhere. */
export interface FieldDifference {
  /** Names from the record inwards; an entry of a list by its name, else by its number. */
  path: readonly string[]
  mine: unknown
  theirs: unknown
}
/** What differences are said in. */
export interface SaidIn {
  units: UnitChoice
  /** The name of another record that a field points at; null: there is none by that id. */
  nameOf: (id: string) => string | null
}

type Fields = Record<string, unknown>
const isFields = (x: unknown): x is Fields => typeof x === 'object' && x !== null && !Array.isArray(x)
const isOfFields = (x: unknown): x is Fields[] => Array.isArray(x) && x.length > 0 && x.every(isFields)

/** Kept by the server or by the page, and nothing that a person chooses about. */
const own = new Set(['id', 'version'])
/** An entry of a list that only one of the two has. */
const there = Symbol('there')

/** Where two versions of a record differ, down to the single thing: nobody can choose between “details” and “details”. */
export function differencesOf(mine: object, theirs: object): FieldDifference[] {
  return differing(mine, theirs, [])
}

function differing(mine: unknown, theirs: unknown, path: readonly string[]): FieldDifference[] {
  if (JSON.stringify(mine) === JSON.stringify(theirs)) return []
  if ([mine, theirs].some(isOfFields) && [mine, theirs].every((x) => isGone(x) || Array.isArray(x)))
    return entriesDiffering((mine ?? []) as Fields[], (theirs ?? []) as Fields[], path)
  if ([mine, theirs].some(isFields) && [mine, theirs].every((x) => isGone(x) || isFields(x))) {
    const [a, b] = [mine ?? {}, theirs ?? {}] as Fields[]
    return [...new Set([...Object.keys(a), ...Object.keys(b)])]
      .filter((k) => !own.has(k))
      .flatMap((k) => differing(a[k], b[k], [...path, k]))
  }
  return isGone(mine) && isGone(theirs) ? [] : [{ path, mine, theirs }]
}
const isGone = (x: unknown) => x === null || x === undefined

/** Entries with an id are held against their own, others against the one in the same place. */
function entriesDiffering(
  mine: readonly Fields[],
  theirs: readonly Fields[],
  path: readonly string[],
): FieldDifference[] {
  const keyed = (list: readonly Fields[]) =>
    new Map(list.map((x, i) => [typeof x.id === 'string' ? x.id : String(i), { x, i }]))
  const [a, b] = [keyed(mine), keyed(theirs)]
  const out = [...new Set([...a.keys(), ...b.keys()])].flatMap((key) => {
    const [m, t] = [a.get(key), b.get(key)]
    const one = (m ?? t)!
    const name = typeof one.x.name === 'string' && one.x.name !== '' ? one.x.name : `no. ${one.i + 1}`
    const at = [...path, name]
    return m && t
      ? differing(m.x, t.x, at)
      : [{ path: at, mine: m ? there : undefined, theirs: t ? there : undefined }]
  })
  // The same entries in another order: said, though none of them differs.
  return out.length > 0 ? out : [{ path: [...path, 'order'], mine: orderOf(mine), theirs: orderOf(theirs) }]
}
const orderOf = (list: readonly Fields[]) => list.map((x, i) => (x.name as string) || `no. ${i + 1}`)

/** Endings of field names, and what they mean. */
const quantities: Record<string, Quantity> = {
  Kg: 'mass',
  Psi: 'pressure',
  NPerMm: 'springRate',
  Mm: 'length',
  C: 'temperature',
  M: 'altitude',
}
const plainUnits: Record<string, string> = { Pct: '%', Cc: 'cm³', S: 's' }
const unitAtEnd = /(?<=[a-z])(Kg|Psi|NPerMm|Mm|Pct|Cc|C|M|S)$/
const isInstant = /^\d{4}-\d\d-\d\dT\d\d:\d\d/
const isDate = /^\d{4}-\d\d-\d\d$/

/** One difference in words, as this person reads numbers: "bodyMassKg" is "body mass", in kg or lb. */
export function differenceWords({ path, mine, theirs }: FieldDifference, { units, nameOf }: SaidIn): string {
  const last = path[path.length - 1]
  const [ending = ''] = unitAtEnd.exec(last) ?? []
  const said = (x: unknown): string => {
    if (x === there) return 'has it'
    if (x === undefined && [mine, theirs].includes(there)) return 'without it'
    if (x === null || x === undefined || x === '' || (Array.isArray(x) && x.length === 0)) return 'empty'
    if (Array.isArray(x)) return x.map(said).join(', ')
    if (typeof x === 'boolean') return x ? 'yes' : 'no'
    if (typeof x === 'string' && last.endsWith('Id')) return nameOf(x) ?? 'another one'
    if (typeof x === 'string' && isInstant.test(x)) return dateTimeWords(x)
    if (typeof x === 'string' && isDate.test(x)) return dateWords(x)
    if (typeof x === 'number' && quantities[ending]) return say(quantities[ending], x, units)
    return typeof x === 'object' ? 'other details' : [String(x), plainUnits[ending]].filter(Boolean).join(' ')
  }
  const names = path.map((name) =>
    name
      .replace(unitAtEnd, '')
      .replace(/(?<=[a-z])Id$/, '')
      .replace(/(?<=[a-z])([A-Z])/g, (c) => ` ${c.toLowerCase()}`),
  )
  return `${names.join(', ')}: yours ${said(mine)}, theirs ${said(theirs)}`
}
