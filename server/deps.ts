import type { Porter } from './bundle/porter.ts'
import type { Door } from './access/door.ts'
import type { EventBus } from './events.ts'
import type { Store } from './db/open.ts'
import type { Ingest } from './ingest/job.ts'
import type { Log } from './problem.ts'
import type { Follower } from './safekeeping/follower.ts'
import type { Keeper } from './safekeeping/keeper.ts'
import type { PutBack } from '#contract/data'

/** Everything the server is built from; tests hand in their own. */
export interface Deps {
  store: Store
  events: EventBus
  /** Turns a spooled sensor file into channels and an analysis. */
  ingest: Ingest
  /** Folder for half-arrived uploads; emptied at start. */
  incomingDir: string
  /** Addresses of loggers that may be talked to, and no others. */
  loggers: readonly string[]
  /** Folder of the built page; null serves the API only. */
  webDir: string | null
  /** UTC now, ISO 8601. */
  now: () => string
  log: Log
  door: Door
  /** With it the lock is set the first time; told where the server is started, and nowhere else. */
  setupCode: string
  version: string
  /** Makes and keeps safe copies of the data file. */
  keeper: Keeper
  /** The copy that follows every save; null: none was asked for. */
  follower: Follower | null
  /** Carries bundles out and in. */
  porter: Porter
  /** Puts a safe copy in the place of the data file, under the running application. */
  putBack: (copy: string) => Promise<PutBack>
}
