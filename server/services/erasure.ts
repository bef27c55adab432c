import type { Client, InStatement } from '@libsql/client'
import { eq } from 'drizzle-orm'
import type { Erasure, ErasureReach } from '#contract/erasure'
import type { Store } from '../db/open.ts'
import { riders } from '../db/schema.ts'
import { Refusal } from '../refusal.ts'
import { gatherRider, goneIn, leftToOthers, own } from './gathered.ts'
import { authored, namedElsewhere } from './nameElsewhere.ts'
import { renamedAt, renaming } from './withoutName.ts'

/** @throws Refusal 'record.not-found' */
export async function riderOf({ db }: Store, id: string) {
  const [row] = await db.select().from(riders).where(eq(riders.id, id))
  if (!row) throw new Refusal('record.not-found', 'There is no such rider.')
  return row.body
}

/** Looked at before anything is erased. @throws Refusal 'record.not-found' */
export async function erasureReach(store: Store, riderId: string, copies: number): Promise<ErasureReach> {
  const { name } = await riderOf(store, riderId)
  return store.writes.run(async () => {
    const { client } = store
    await gatherRider(store, riderId)
    const count = async (kind: string) =>
      Number((await client.execute(`SELECT count(*) FROM temp.gone_${kind}`)).rows[0][0])
    const passed = await client.execute({ sql: heirs, args: [riderId] })
    return {
      name,
      bikes: await count('bikes'),
      units: await count('units'),
      setups: await count('setups'),
      days: await count('days'),
      runs: await count('runs'),
      recordings: await count('recordings'),
      elsewhere: await namedElsewhere(client, name, [...own, ...leftToOthers]),
      passedOn: passed.rows.map((r) => ({ bike: String(r.bike), to: String(r.heir) })),
      copies,
    }
  })
}

/** For each bike that others have ridden: the last of them. */
const lastOther = `(SELECT d.rider_id FROM days d WHERE d.bike_id = b.id AND d.rider_id <> ?1 ORDER BY d.date DESC, d.id DESC LIMIT 1)`
const heirs = `SELECT json_extract(b.body, '$.name') AS bike, json_extract(r.body, '$.name') AS heir
  FROM bikes b JOIN riders r ON r.id = ${lastOther} WHERE b.id IN ${goneIn('shared')}`

/**
 * Takes a rider and all that is theirs out of the data file, and out of its free pages and its -wal file.
 * @throws Refusal 'record.not-found'; 'request.invalid' when the name typed is another
 */
export async function eraseRider(store: Store, riderId: string, { name }: Erasure): Promise<void> {
  const rider = await riderOf(store, riderId)
  if (name.trim() !== rider.name)
    throw new Refusal('request.invalid', `Type the name as it stands: ${rider.name}.`, { path: 'name' })
  await store.writes.run(async () => {
    const { client } = store
    await gatherRider(store, riderId)
    const nameless = await renamedAt(client, leftToOthers, renaming(rider.name, 'a rider'))
    await writtenOver(store, [
      ...forgetImports,
      // Read before, so written before what else changes the same records.
      ...nameless,
      ...(await authored(client, rider.name, [...own, ...leftToOthers])),
      ...deletions,
      {
        sql: `UPDATE bikes AS b SET rider_id = ${lastOther}, version = version + 1,
          body = json_set(body, '$.riderId', ${lastOther}, '$.version', version + 1) WHERE id IN ${goneIn('shared')}`,
        args: [riderId],
      },
      // What stays is nobody's now.
      ...['units', 'stock'].map((table) => ({
        sql: `UPDATE ${table} SET version = version + 1, body = json_set(body, '$.ownerId', NULL, '$.version', version + 1)
          WHERE json_extract(body, '$.ownerId') = ?1`,
        args: [riderId],
      })),
      { sql: `DELETE FROM damaged WHERE id = ?1`, args: [riderId] },
      { sql: `DELETE FROM riders WHERE id = ?1`, args: [riderId] },
    ])
  })
}

/** Does all of it or nothing, and leaves no earlier form of anything behind: not in free space, not in the -wal file. */
export async function writtenOver(
  { client, rewrite }: Store,
  statements: readonly InStatement[],
): Promise<void> {
  // Freed space is written over with zeros, and not only given back.
  await client.execute('PRAGMA secure_delete = ON')
  try {
    await client.batch([...statements], 'write')
    // Earlier forms of a record lie in free space until the file is written anew.
    await rewrite().catch((e: unknown) => {
      throw new Refusal(
        'storage.busy',
        `It is erased from the data, but the file could not be written anew, so that earlier forms still lie in its free space (${String((e as Error).message)}). That is done when room is freed or the next rider is erased: before that, make room on the disk, and see that no other program is in the file.`,
      )
    })
    await emptyWal(client)
  } finally {
    await client.execute('PRAGMA secure_delete = OFF')
  }
}

const triesAtWal = 12
/**
 * Empties the -wal file; whoever reads the data file just now is waited for, each time as long as the connection's patience.
 * @throws Refusal 'storage.busy' when somebody never lets go: it is done, and the last traces are not gone yet
 */
async function emptyWal(client: Client): Promise<void> {
  for (let i = 0; i < triesAtWal; i++) {
    const [row] = (await client.execute('PRAGMA wal_checkpoint(TRUNCATE)')).rows
    if (Number(row.busy) === 0) return
    await new Promise((resolve) => setTimeout(resolve, 250))
  }
  throw new Refusal(
    'storage.busy',
    'It is erased from the data, but another program keeps reading the data file, so that earlier forms still lie beside it. Stop that program, then make a safe copy or restart Wild Spring.',
  )
}

/** An import that had part in it can no more be taken back: what it kept for that would have the rider in it. */
export const forgetImports: string[] = [
  `DELETE FROM import_rows WHERE import_id IN (SELECT import_id FROM import_rows WHERE key IN ${goneIn('days')}
     OR key IN ${goneIn('bikes')} OR key IN ${goneIn('shared')} OR key IN ${goneIn('runs')} OR key IN ${goneIn('setups')}
     OR key IN ${goneIn('units')} OR key IN (SELECT id FROM temp.gone_rider))`,
  `DELETE FROM imports WHERE id NOT IN (SELECT import_id FROM import_rows)`,
]

/** In the order in which they stand on each other. */
const deletions: string[] = [
  `DELETE FROM damaged WHERE id IN ${goneIn('days')} OR id IN ${goneIn('bikes')} OR id IN ${goneIn('runs')}
     OR id IN ${goneIn('recordings')} OR id IN ${goneIn('setups')} OR id IN ${goneIn('units')}`,
  `DELETE FROM recording_chunks WHERE recording_id IN ${goneIn('recordings')}`,
  `DELETE FROM recording_originals WHERE recording_id IN ${goneIn('recordings')}`,
  `DELETE FROM recordings WHERE id IN ${goneIn('recordings')}`,
  `DELETE FROM feels WHERE run_id IN ${goneIn('runs')}`,
  `DELETE FROM pad_reports WHERE day_id IN ${goneIn('days')}`,
  `DELETE FROM voices WHERE day_id IN ${goneIn('days')}`,
  `DELETE FROM pads WHERE day_id IN ${goneIn('days')}`,
  `DELETE FROM tent_notes WHERE json_extract(body, '$.dayId') IN ${goneIn('days')}`,
  `DELETE FROM tent_riders WHERE id IN ${goneIn('days')}`,
  `DELETE FROM proposals WHERE day_id IN ${goneIn('days')}`,
  `DELETE FROM runs WHERE id IN ${goneIn('runs')}`,
  `UPDATE setups SET day_id = NULL, body = json_set(body, '$.dayId', NULL) WHERE day_id IN ${goneIn('days')}`,
  `DELETE FROM days WHERE id IN ${goneIn('days')}`,
  // What was weighed at a bench was this rider, whoever rides the bike now.
  ...['benches', 'baselines'].map(
    (table) => `DELETE FROM ${table} WHERE bike_id IN ${goneIn('bikes')} OR bike_id IN ${goneIn('shared')}`,
  ),
  ...['services', 'kept'].map((table) => `DELETE FROM ${table} WHERE bike_id IN ${goneIn('bikes')}`),
  `DELETE FROM setups WHERE id IN ${goneIn('setups')}`,
  `DELETE FROM bikes WHERE id IN ${goneIn('bikes')}`,
  `DELETE FROM units WHERE id IN ${goneIn('units')}`,
]
