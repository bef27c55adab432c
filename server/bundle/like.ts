import type { Client } from '@libsql/client'
import type { LikeRecord } from '#contract/bundle'
import type { Body } from './privacy.ts'

/** A record of the bundle that goes by the name of one of ours, and whose ids stand for whose. */
export interface Like extends LikeRecord {
  /** Theirs to ours: the record's own, and those of its parts. */
  ids: [theirs: string, ours: string][]
}

interface Recipe {
  table: string
  /** Two are of one name when this is equal. */
  name: (b: Body) => string
  /** Parts that others refer to, each by what it is, in order; where these differ, one cannot stand for the other. */
  parts: (b: Body) => { id: string; is: string }[]
  /** All that is said of one, without ids. */
  all: (b: Body) => unknown
  about: (b: Body) => string
}

const folded = (v: unknown) => String(v).trim().toLocaleLowerCase('en')
type Sections = { id: string; name: string; kind: string; lengthM: number | null; severity: number }[]
type Adjusters = ({ id: string } & Body)[]
const without = (body: Body, ...names: string[]) =>
  Object.fromEntries(Object.entries(body).filter(([n]) => !names.includes(n)))

const recipes: readonly Recipe[] = [
  {
    table: 'riders',
    name: (b) => folded(b.name),
    parts: () => [],
    all: (b) => [b.level, b.taste],
    about: (b) => [b.level, b.taste].join(', '),
  },
  {
    table: 'trails',
    name: (b) => folded(b.name),
    parts: (b) => (b.sections as Sections).map((s) => ({ id: s.id, is: `${folded(s.name)} ${s.kind}` })),
    all: (b) => [folded(b.place), (b.sections as Sections).map((s) => [s.lengthM, s.severity])],
    about: (b) => [b.place, ...(b.sections as Sections).map((s) => s.name)].join(', '),
  },
  {
    table: 'units',
    name: (b) => `${folded(b.name)} ${String(b.end)} ${String(b.spring)} ${String(b.strokeMm)}`,
    parts: (b) =>
      (b.adjusters as Adjusters).map((a) => ({ id: a.id, is: JSON.stringify(without(a, 'id', 'alias')) })),
    all: (b) =>
      without(b, 'id', 'version', 'name', 'ownerId', 'adjusters', 'charts', 'note', 'idNote', 'assumed'),
    about: (b) => `${String(b.end)}, ${String(b.strokeMm)} mm`,
  },
  {
    table: 'gauges',
    name: (b) => folded(b.name),
    parts: () => [],
    all: (b) => [b.readsHighPsi, b.hoseCc],
    about: (b) => `reads ${String(b.readsHighPsi)} psi high`,
  },
]

/** Records that are new here by their id, and known here by their name. `came` is attached. */
export async function likeRecords(client: Client): Promise<Like[]> {
  const found: Like[] = []
  for (const recipe of recipes) {
    const rows = async (db: string, other: string) =>
      (
        await client.execute(
          `SELECT id, body FROM ${db}.${recipe.table} WHERE deleted_at IS NULL
             AND id NOT IN (SELECT id FROM ${other}.${recipe.table}) ORDER BY id`,
        )
      ).rows.map((r) => JSON.parse(String(r.body)) as Body)
    const ours = await rows('main', 'came')
    for (const theirs of await rows('came', 'main')) {
      const parts = recipe.parts(theirs)
      const own = ours.find((o) => {
        const p = recipe.parts(o)
        return (
          recipe.name(o) === recipe.name(theirs) &&
          p.length === parts.length &&
          p.every((x, i) => x.is === parts[i].is)
        )
      })
      if (!own) continue
      found.push({
        kind: recipe.table,
        key: String(theirs.id),
        name: String(theirs.name),
        about: recipe.about(theirs),
        asKey: String(own.id),
        asAbout: recipe.about(own),
        isAlike: JSON.stringify(recipe.all(own)) === JSON.stringify(recipe.all(theirs)),
        ids: [
          [String(theirs.id), String(own.id)],
          ...recipe.parts(own).map((p, i): [string, string] => [parts[i].id, p.id]),
        ],
      })
    }
  }
  return found
}
