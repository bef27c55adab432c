const same = (a: unknown, b: unknown) => JSON.stringify(a) === JSON.stringify(b)

/**
 * What somebody typed into a record, laid over the same record as others have since saved it.
 *
 * @param opened the record as it was when the typing began
 * @param typed the record as it was left
 * @param now the record as it is saved
 * @returns the record to go on with, and the fields that were both typed here and changed elsewhere: of them a person chooses
 */
export function typedOver<T extends { version: number; id: string }>(
  opened: T,
  typed: T,
  now: T,
): { record: T; collide: (keyof T)[] } {
  const own = new Set<string>(['version', 'id'])
  const fields = [...new Set([...Object.keys(typed), ...Object.keys(opened)])].filter(
    (k) => !own.has(k),
  ) as (keyof T)[]
  const mine = fields.filter((k) => !same(typed[k], opened[k]))
  return {
    record: { ...now, ...Object.fromEntries(mine.map((k) => [k, typed[k]])) },
    collide: mine.filter((k) => !same(now[k], opened[k]) && !same(now[k], typed[k])),
  }
}
