import type { Rewriter } from '../db/open.ts'
import { childTask } from './childTask.ts'

/** Writes the data file anew in a process of its own. */
export const rewriterIn =
  (entry: string): Rewriter =>
  async (file) => {
    await childTask<null>(entry, [file], 'Writing the file anew')
  }
