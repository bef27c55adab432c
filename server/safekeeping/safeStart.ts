import { join, resolve } from 'node:path'
import type { Log } from '../problem.ts'
import { copierIn } from './copierProcess.ts'
import { clearParts, listCopies } from './copies.ts'
import { Keeper } from './keeper.ts'
import { lookFirst } from './lookFirst.ts'
import { takeFolder } from './onlyOne.ts'

export interface Places {
  dataDir: string
  file: string
  incomingDir: string
  copiesDir: string
  /** Of the copy that follows; null: none was asked for. */
  followDir: string | null
}

/** Where everything lies, by the settings of the environment. */
export function placesOf(env: Record<string, string | undefined>): Places {
  const dataDir = resolve(env.WILD_SPRING_DATA ?? 'data')
  return {
    dataDir,
    file: join(dataDir, env.WILD_SPRING_LIBSQL_URL ? 'replica.sqlite' : 'wild-spring.sqlite'),
    incomingDir: join(dataDir, 'incoming'),
    copiesDir: resolve(env.WILD_SPRING_COPIES ?? join(dataDir, 'safe-copies')),
    followDir: env.WILD_SPRING_FOLLOW ? resolve(env.WILD_SPRING_FOLLOW) : null,
  }
}

/**
 * Everything that comes before the data file is opened: nobody else has it, it may be opened, and before its tables are
 * changed there is a safe copy of it.
 * @throws Error with one sentence and the way out
 */
export async function safeStart(
  { dataDir, file, copiesDir }: Places,
  migrations: string,
  how: { copierEntry: string; beginEmpty: boolean; keptHere: boolean; now: () => string; log: Log },
): Promise<{ keeper: Keeper; isNew: boolean; release: () => void }> {
  const release = await takeFolder(dataDir)
  try {
    clearParts(copiesDir)
    const copies = how.beginEmpty ? 0 : listCopies(copiesDir).length
    // Of data that are kept elsewhere there is a copy here at most, which is fetched anew where it is wrong.
    const found = how.keptHere ? await lookFirst(file, migrations, copies) : 'current'
    const keeper = new Keeper(file, copiesDir, copierIn(how.copierEntry), how.now, how.log)
    if (found === 'older') await keeper.make('before-update')
    return { keeper, isNew: found === 'new', release }
  } catch (e) {
    release()
    throw e
  }
}
