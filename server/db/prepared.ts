import type { Db } from './open.ts'

const kept = new WeakMap<Db, Map<unknown, unknown>>()

/**
 * A query that every save asks, built once for each data file: building one takes longer than running it.
 * @param key what tells it apart: a column, a name, or a function that is there once
 */
export function prepared<Q>(db: Db, key: unknown, build: () => Q): Q {
  const ofFile = kept.get(db) ?? new Map<unknown, unknown>()
  kept.set(db, ofFile)
  const held = (ofFile.get(key) as Q | undefined) ?? build()
  ofFile.set(key, held)
  return held
}
