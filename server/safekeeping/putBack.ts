import type { PutBack } from '#contract/data'
import type { Log } from '../problem.ts'
import { Refusal } from '../refusal.ts'
import type { Running } from '../running.ts'
import type { Keeper } from './keeper.ts'
import { putInPlace } from './putInPlace.ts'

/**
 * Puts a safe copy in place under the running application.
 * @throws Refusal 'copy.unsound' when the copy cannot be used, 'storage.busy'; all is as before then
 */
export async function putBack(
  copy: string,
  {
    keeper,
    running,
    migrations,
    now,
    log,
  }: {
    keeper: Keeper
    running: Running
    migrations: string
    now: () => string
    log: Log
  },
): Promise<PutBack> {
  // A wrecked file cannot be copied; it is set aside all the same.
  await keeper
    .make('before-restore')
    .catch((e: unknown) => log.error('a safe copy before another is put in place', e))
  try {
    // The request that asks for it waits for this itself.
    return await running.exchange(() => putInPlace(copy, keeper.file, migrations, now()), 1)
  } catch (e) {
    if (e instanceof Refusal) throw e
    throw new Refusal('copy.unsound', e instanceof Error ? e.message : String(e))
  }
}
