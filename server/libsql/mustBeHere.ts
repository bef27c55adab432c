import type { Store } from '../db/open.ts'
import { Refusal } from '../refusal.ts'

/**
 * What is done to a data file as a whole is done where it lies: there is no way to reach it through a libSQL server.
 * @param nothing what was not done, as a sentence without its stop
 * @throws Refusal 'storage.elsewhere'
 */
export function mustBeHere({ keptAt }: Store, nothing: string): void {
  if (keptAt !== null)
    throw new Refusal(
      'storage.elsewhere',
      `${nothing}: the data are kept by the libSQL server at ${keptAt}, and no file of it can be written anew from here. docs/guide/scale.md says how it is done there.`,
    )
}
