import type { DifferingRecord } from '#contract/bundle'

type Field = DifferingRecord['fields'][number]
const mostLetters = 80

/**
 * The places in which two JSON values differ, innermost first named: "marks.1.strength". Lists of another length are one place.
 */
export function differences(ours: unknown, theirs: unknown, path = ''): Field[] {
  if (Object.is(ours, theirs) || ((ours ?? null) === null && (theirs ?? null) === null)) return []
  if (Array.isArray(ours) && Array.isArray(theirs) && ours.length === theirs.length)
    return ours.flatMap((o, i) => differences(o, theirs[i], join(path, String(i))))
  if (isObject(ours) && isObject(theirs)) {
    const names = [...new Set([...Object.keys(ours), ...Object.keys(theirs)])]
    return names.flatMap((n) => differences(ours[n], theirs[n], join(path, n)))
  }
  return [{ path, ours: shown(ours), theirs: shown(theirs) }]
}

const join = (path: string, name: string) => (path ? `${path}.${name}` : name)
const isObject = (v: unknown): v is Record<string, unknown> =>
  typeof v === 'object' && v !== null && !Array.isArray(v)

function shown(value: unknown): string {
  if (value === undefined || value === null || value === '') return '–'
  if (Array.isArray(value)) return value.length === 1 ? '1 entry' : `${value.length} entries`
  const text = typeof value === 'object' ? 'something' : String(value)
  return text.length > mostLetters ? `${text.slice(0, mostLetters - 1)}…` : text
}
