import { readDelimited, type DelimitedOptions, type DelimitedTable } from './delimited.ts'

/**
 * A reader of one file that reads the same columns only once: an edit of what a column means asks for the same table again.
 *
 * @param bytes of the file; others are refused by throwing, they are a fault of the caller
 */
export function readOnce(bytes: Uint8Array): typeof readDelimited {
  let last: { asked: string; table: DelimitedTable } | null = null
  return (of, options) => {
    if (of !== bytes) throw new Error('this reader belongs to another file')
    const { onProgress: _, ...what } = options satisfies DelimitedOptions
    const asked = JSON.stringify(what)
    if (last?.asked !== asked) last = { asked, table: readDelimited(bytes, options) }
    return last.table
  }
}
