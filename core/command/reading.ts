import type { Adjuster } from '#contract/adjuster'
import type { End } from '#contract/common'
import type { SetupSpace } from '../adviser/dayHistory.ts'
import { InputError } from '../errors.ts'
import type { Clause } from './clause.ts'
import { target } from './target.ts'
import type { Token } from './tokens.ts'

/** Where a part was found to stand; nothing is turned. */
export interface ReadPart {
  end: End
  adjuster: Adjuster
  /** Canonical; null: nobody is sure any more. */
  value: number | null
  /** Where it was said to stand; undefined: nobody had read it. */
  was: number | undefined
}

const verbs = new Set(['read', 'reads', 'counted', 'found'])
const unsureWords = new Set(['unsure', 'lost', 'unknown'])

/** What is left of "read shock reb 8" or "read shock reb not sure"; null: the line is no reading. */
export function readingOf(tokens: readonly Token[]): { rest: Token[]; unsure: boolean } | null {
  const [first, ...after] = tokens
  if (!verbs.has(first.text)) return null
  const words = after.map((t) => t.text)
  const notSure = words.findIndex((w, i) => w === 'not' && words[i + 1] === 'sure')
  const rest = after.filter((_, i) => !unsureWords.has(words[i]) && i !== notSure && i !== notSure + 1)
  return notSure < 0
    ? {
        rest: after.filter((_, i) => !unsureWords.has(words[i])),
        unsure: words.some((w) => unsureWords.has(w)),
      }
    : { rest, unsure: true }
}

/**
 * Where the parts of a line stand.
 *
 * @param found the part each clause means
 * @throws InputError 'command.no-reading' where no count was said, or a step instead of one; as `target` does
 */
export function readParts(
  clauses: readonly Clause[],
  unsure: boolean,
  positions: ReadonlyMap<string, number>,
  space: SetupSpace,
  found: (c: Clause) => { end: End; adjuster: Adjuster },
): ReadPart[] {
  return clauses.map((c) => {
    const { end, adjuster } = found(c)
    const was = positions.get(adjuster.id)
    if (unsure) return { end, adjuster, value: null, was }
    const isCount = c.place !== null || (c.number !== null && !c.number.signed && c.effect === null)
    if (!isCount) throw new InputError('command.no-reading')
    // From nowhere: where it was said to stand has no say in what was read.
    return { end, adjuster, value: target({ ...c, absolute: true }, adjuster, NaN, space.units), was }
  })
}
