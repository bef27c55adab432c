import { limits } from '#contract/limits'
import { InputError } from '../errors.ts'

/** A cell of megabytes would be read letter by letter before anything else is known of it. @throws InputError 'file.long-row' */
export function refuseLongRows(bytes: Uint8Array): void {
  // Old Macintosh files end their lines with CR alone.
  const end = bytes.indexOf(lineFeed) >= 0 ? lineFeed : carriageReturn
  let from = 0
  for (let line = 1; from < bytes.length; line++) {
    const at = bytes.indexOf(end, from)
    const to = at < 0 ? bytes.length : at
    if (to - from > limits.rowLetters) throw new InputError('file.long-row', { line, max: limits.rowLetters })
    from = to + 1
  }
}
const lineFeed = 10
const carriageReturn = 13
