import type { SuspensionUnit } from '#contract/unit'

/** What of an adjuster a model has, whoever's it is. */
const shapeOf = ({ id: _id, alias: _alias, ...shape }: SuspensionUnit['adjusters'][number]) => shape

/**
 * Whether two units are of one model: the same name, end, spring, stroke and adjusters in the same order, neither re-valved.
 * A name alone is none: a fork of another travel is another fork.
 */
export function isSameModel(a: SuspensionUnit, b: SuspensionUnit): boolean {
  const plain = (s: string) => s.trim().toLowerCase()
  return (
    plain(a.name) === plain(b.name) &&
    a.end === b.end &&
    a.spring === b.spring &&
    a.strokeMm === b.strokeMm &&
    !a.revalved &&
    !b.revalved &&
    JSON.stringify(a.adjusters.map(shapeOf)) === JSON.stringify(b.adjusters.map(shapeOf))
  )
}
