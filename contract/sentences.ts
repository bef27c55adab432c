import type { z } from 'zod'

type Issue = z.core.$ZodRawIssue

const given = (value: unknown): string => {
  if (value === undefined) return 'it is missing'
  if (value === null) return 'it is empty'
  if (typeof value === 'number')
    return Number.isFinite(value) ? `${value} was given` : 'no finite number was given'
  if (typeof value === 'string') return value.length > 40 ? 'a text was given' : `“${value}” was given`
  if (Array.isArray(value)) return 'a list was given'
  return typeof value === 'boolean' ? `${value} was given` : 'something else was given'
}
const kinds: Record<string, string> = {
  string: 'a text',
  number: 'a number',
  int: 'a whole number',
  boolean: 'true or false',
  object: 'a record',
  array: 'a list',
  record: 'a record',
  tuple: 'a list of that many',
  null: 'nothing',
  undefined: 'nothing',
}
const formats: Record<string, string> = {
  uuid: 'an id (UUID)',
  datetime: 'a moment in UTC, as 2031-05-02T09:00:00Z',
  date: 'a day, as 2031-05-02',
  regex: 'in the form that is accepted here',
}
const listed = (values: readonly unknown[]) =>
  values.length > 12 ? `one of ${values.length} that are known` : `one of ${values.map(String).join(', ')}`

function limit(i: Issue & { code: 'too_small' | 'too_big' }): string {
  const isSmall = i.code === 'too_small'
  const [n, how] = isSmall
    ? [i.minimum, i.inclusive ? 'at least' : 'above']
    : [i.maximum, i.inclusive ? 'at most' : 'below']
  if (i.origin === 'string') return `It has ${how} ${n} letters.`
  if (i.origin === 'array') return `There are ${how} ${n} of them.`
  return `It is ${how} ${n}; ${given(i.input)}.`
}

type Union = Issue & { code: 'invalid_union' }

/** One of several forms: where they differ by one word, the words that are known. */
function union(issue: Union): string {
  const { discriminator, options } = issue as Union & { discriminator?: string; options?: unknown[] }
  if (discriminator !== undefined && options) {
    const input = issue.input as Record<string, unknown> | null | undefined
    return `It has to be ${listed(options)}; ${given(input?.[discriminator])}.`
  }
  const words = (issue.errors as readonly Issue[][]).map((e) =>
    e.length === 1 && e[0].code === 'invalid_value' ? e[0].values : null,
  )
  const whole = words.every((w) => w !== null) && words.length > 0
  return `It has to be ${whole ? listed(words.flat()) : 'one of the forms that are accepted here'}; ${given(issue.input)}.`
}

/**
 * What is said where a schema has no sentence of its own: what would be right, and what was given. Installed once for all of
 * the contract (common.ts), so that nobody reads the words of the library.
 */
export function sentenceOf(issue: Issue): string {
  switch (issue.code) {
    case 'invalid_type':
      return issue.input === undefined
        ? `It is missing: ${kinds[issue.expected] ?? issue.expected} belongs here.`
        : `It has to be ${kinds[issue.expected] ?? issue.expected}; ${given(issue.input)}.`
    case 'invalid_value':
      return `It has to be ${issue.values.length === 1 ? String(issue.values[0]) : listed(issue.values)}; ${given(issue.input)}.`
    case 'invalid_format':
      return `It has to be ${formats[issue.format] ?? issue.format}; ${given(issue.input)}.`
    case 'too_small':
    case 'too_big':
      return limit(issue)
    case 'not_multiple_of':
      return `It goes in steps of ${String(issue.divisor)}; ${given(issue.input)}.`
    case 'unrecognized_keys':
      return `There is no such field: ${issue.keys.map((k) => k.slice(0, 40)).join(', ')}.`
    case 'invalid_key':
      return 'A name in it is not one that is accepted.'
    case 'invalid_union':
      return union(issue)
    default:
      return 'It is not as it has to be.'
  }
}
