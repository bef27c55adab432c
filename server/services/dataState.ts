import { statSync } from 'node:fs'
import { desc, isNull, like, min, not, sql } from 'drizzle-orm'
import type { DataState } from '#contract/data'
import type { Porter } from '../bundle/porter.ts'
import type { Store } from '../db/open.ts'
import { damaged, days, imports, recordingChunks } from '../db/schema.ts'
import { countsOf } from '../safekeeping/facts.ts'
import type { Keeper } from '../safekeeping/keeper.ts'
import { originalPart } from './recordings/kept.ts'

/** What is kept, how large it is, and its safe copies. */
export async function readDataState(
  { db, client }: Store,
  keeper: Keeper,
  porter: Porter,
): Promise<DataState> {
  const bytes = sql<number>`coalesce(sum(length(${recordingChunks.bytes})), 0)`
  const isOriginal = like(recordingChunks.part, `${originalPart()}%`)
  const [[{ since }], [originals], [channels], counts, lost, brought] = await Promise.all([
    db
      .select({ since: min(days.date) })
      .from(days)
      .where(isNull(days.deletedAt)),
    db.select({ bytes }).from(recordingChunks).where(isOriginal),
    db.select({ bytes }).from(recordingChunks).where(not(isOriginal)),
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
    fileBytes: statSync(keeper.file).size,
    originalBytes: originals.bytes,
    channelBytes: channels.bytes,
    copiesFolder: keeper.folder,
    copies: keeper.list(),
    freeBytes: keeper.freeBytes(),
    work: keeper.work,
    carrying: porter.work,
    imports: brought,
    fault: keeper.fault,
    damaged: lost,
  }
}
