import type { DataCounts } from '#contract/data'
import { childTask } from './childTask.ts'
import type { Copier } from './keeper.ts'

/** A copier in a process of its own. */
export const copierIn =
  (entry: string): Copier =>
  (file, to, signal) =>
    childTask<DataCounts>(entry, [file, to], 'The copy', signal)
