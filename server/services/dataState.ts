import { statSync } from 'node:fs'
import { desc, isNull, min } from 'drizzle-orm'
import type { DataState } from '#contract/data'
import type { Porter } from '../bundle/porter.ts'
import type { Store } from '../db/open.ts'
import { damaged, days, imports } from '../db/schema.ts'
import { countsOf } from '../safekeeping/facts.ts'
import type { Follower } from '../safekeeping/follower.ts'
import type { Keeper } from '../safekeeping/keeper.ts'
import { roomTaken } from './room.ts'

/** What is kept, how large it is, and its safe copies. */
export async function readDataState(
  { db, client, keptAt }: Store,
  keeper: Keeper,
  porter: Porter,
  follower: Follower | null,
): Promise<DataState> {
  const [[{ since }], room, counts, lost, brought] = await Promise.all([
    db
      .select({ since: min(days.date) })
      .from(days)
      .where(isNull(days.deletedAt)),
    roomTaken(client),
    countsOf(client),
    db
      .select({
        kind: damaged.kind,
        id: damaged.id,
        foundAt: damaged.foundAt,
        became: damaged.became,
        copiedAt: damaged.copiedAt,
      })
      .from(damaged)
      .orderBy(desc(damaged.foundAt))
      .limit(50),
    db.select().from(imports).orderBy(desc(imports.at)).limit(50),
  ])
  return {
    counts,
    since,
    file: keeper.file,
    keptAt,
    fileBytes: statSync(keeper.file).size,
    room,
    copiesFolder: keeper.folder,
    copies: keeper.list(),
    follows: follower?.state ?? null,
    freeBytes: keeper.freeBytes(),
    work: keeper.work,
    carrying: porter.work,
    imports: brought,
    fault: keeper.fault,
    damaged: lost,
  }
}
