import { rmSync } from 'node:fs'
import { dirname } from 'node:path'
import { pathToFileURL } from 'node:url'
import { createClient, type Client } from '@libsql/client'
import { drizzle } from 'drizzle-orm/libsql'
import { migrate } from 'drizzle-orm/libsql/migrator'
import type { Store } from '../db/open.ts'
import * as schema from '../db/schema.ts'
import { shapeOf } from '../db/shape.ts'
import { WriteQueue } from '../db/writeQueue.ts'
import { Refusal } from '../refusal.ts'
import { Lease } from './lease.ts'
import type { LibsqlPlace } from './place.ts'

/**
 * Opens data that a libSQL server keeps: writes go there, reads from a replica of it in a file here, which holds what was
 * written from here at once. The replica is a copy and no more; where it is gone or of another server it is fetched anew.
 *
 * @param file path of the replica
 * @param beforeUpdate makes a safe copy before the tables are changed
 * @throws Error in one sentence where the server does not answer, is another program's or a newer version's, or is taken
 */
export async function openLibsql(
  { url, token: authToken }: LibsqlPlace,
  file: string,
  migrationsFolder: string,
  beforeUpdate: () => Promise<unknown>,
): Promise<Store> {
  const primary = createClient({ url, authToken })
  const shape = await shapeOf(primary, migrationsFolder).catch((e: unknown) => {
    throw new Error(
      `The libSQL server at ${url} does not answer (${(e as Error).message}). Start it first, or leave WILD_SPRING_LIBSQL_URL out to keep the data in a file here.`,
      { cause: e },
    )
  })
  if (shape === 'newer')
    throw new Error(
      `The data at ${url} were written by a newer version of Wild Spring, and this one would strip what it does not know. Start the newer version.`,
    )
  if (shape === 'foreign')
    throw new Error(`The libSQL server at ${url} holds the tables of another program. Name another one.`)
  const lease = await Lease.take(primary, dirname(file))
  try {
    const replica = await follow({ url, authToken, file })
    if (shape === 'older') await beforeUpdate()
    await migrate(drizzle(primary, { schema }), { migrationsFolder })
    await replica.sync()
    return {
      file,
      keptAt: url,
      client: replica,
      db: drizzle(replica, { schema }),
      writes: new WriteQueue(
        async () => {},
        () => mayWrite(lease),
      ),
      rewrite: () => Promise.reject(new Error('the libSQL server keeps the file')),
      close: async () => {
        if (replica.closed) return
        await lease.giveBack()
        replica.close()
        primary.close()
      },
    }
  } catch (e) {
    await lease.giveBack()
    throw e
  }
}

function mayWrite(lease: Lease): void {
  if (!lease.holds)
    throw new Refusal(
      'storage.away',
      'The libSQL server that keeps the data has not answered for a while; nothing was saved. It is tried again.',
    )
}

/** The replica, up to date. */
async function follow(of: { url: string; authToken: string | undefined; file: string }): Promise<Client> {
  const open = async () => {
    const client = createClient({
      url: pathToFileURL(of.file).href,
      syncUrl: of.url,
      authToken: of.authToken,
      concurrency: 1,
    })
    try {
      await client.sync()
      return client
    } catch (e) {
      client.close()
      throw e
    }
  }
  try {
    return await open()
  } catch {
    for (const end of ['', '-wal', '-shm', '-client_wal_index', '-info'])
      rmSync(`${of.file}${end}`, { force: true })
    return open()
  }
}
