import type { Client } from '@libsql/client'
import type { RoomFreed, RoomTaken } from '#contract/data'
import type { Store } from '../db/open.ts'
import { mustBeHere } from '../libsql/mustBeHere.ts'
import { Refusal } from '../refusal.ts'

/** Recordings nobody sees: removed themselves, or with their run or their day. */
const outOfSight = `SELECT r.id FROM recordings r JOIN runs u ON u.id = r.run_id JOIN days d ON d.id = u.day_id
  WHERE coalesce(r.deleted_at, u.deleted_at, d.deleted_at) IS NOT NULL`

/** What sensor files take in the data file, and what of it can go. Bytes as they are kept, compressed. */
export async function roomTaken(client: Client): Promise<RoomTaken> {
  const number = async (sql: string) => Number((await client.execute(sql)).rows[0][0] ?? 0)
  const sizes = 'SELECT sha256, sum(length(bytes)) AS bytes FROM original_chunks GROUP BY sha256'
  const files = await number('SELECT count(DISTINCT sha256) FROM original_chunks')
  const fileBytes = await number('SELECT sum(length(bytes)) FROM original_chunks')
  const asOften = await number(
    `SELECT sum(s.bytes) FROM recording_originals o JOIN (${sizes}) s USING (sha256)`,
  )
  const channelBytes = await number('SELECT sum(length(bytes)) FROM recording_chunks')
  const removed = await number(`SELECT count(*) FROM (${outOfSight})`)
  const removedChannels = await number(
    `SELECT sum(length(bytes)) FROM recording_chunks WHERE recording_id IN (${outOfSight})`,
  )
  const removedFiles = await number(
    `SELECT sum(bytes) FROM (${sizes}) WHERE sha256 NOT IN
       (SELECT sha256 FROM recording_originals WHERE recording_id NOT IN (${outOfSight}))`,
  )
  const emptyPages = await number('PRAGMA freelist_count')
  return {
    files,
    fileBytes,
    sparedBytes: asOften - fileBytes,
    channelBytes,
    removed,
    removedBytes: removedChannels + removedFiles,
    emptyBytes: emptyPages * (await number('PRAGMA page_size')),
  }
}

/**
 * Takes recordings nobody sees out of the data file for good, and gives the room back to the disk. Runs and days stay on
 * the shelf.
 * @param seen how many the person was told of
 * @throws Refusal 'request.invalid' when they are others by now; 'storage.full' is the writer's
 */
export function freeRoom(store: Store, seen: number): Promise<RoomFreed> {
  mustBeHere(store, 'Nothing was removed')
  const { client, writes, rewrite } = store
  return writes.run(async () => {
    const before = await sizeOf(client)
    const { removed } = await roomTaken(client)
    if (removed !== seen)
      throw new Refusal(
        'request.invalid',
        `There are ${removed} removed recordings by now, not ${seen}; look again first.`,
        { path: 'removed' },
      )
    await client.execute('DROP TABLE IF EXISTS temp.freed')
    await client.execute(`CREATE TEMP TABLE freed AS ${outOfSight}`)
    await client.batch(
      ['recording_chunks', 'recording_originals']
        .map((table) => `DELETE FROM ${table} WHERE recording_id IN (SELECT id FROM temp.freed)`)
        .concat('DELETE FROM recordings WHERE id IN (SELECT id FROM temp.freed)'),
      'write',
    )
    await client.execute('DROP TABLE temp.freed')
    await rewrite().catch((e: unknown) => {
      throw new Refusal(
        'storage.busy',
        `The removed recordings are out of the data, but their room could not be given back to the disk (${String((e as Error).message)}). There must be room for the file once more while that is done; try again then.`,
      )
    })
    // Whoever reads just now holds this up; the file is shorter at the next stop then.
    await client.execute('PRAGMA wal_checkpoint(TRUNCATE)')
    return { freedBytes: Math.max(0, before - (await sizeOf(client))) }
  })
}

/** Bytes of the data file, as its pages say. */
async function sizeOf(client: Client): Promise<number> {
  const number = async (name: string) => Number((await client.execute(`PRAGMA ${name}`)).rows[0][0])
  return (await number('page_count')) * (await number('page_size'))
}
