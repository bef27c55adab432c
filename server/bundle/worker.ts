import { Refusal } from '../refusal.ts'
import { bundleHere, type BundlerJob } from './bundler.ts'
import type { BundlerNews } from './bundlerProcess.ts'

/** Entry of the bundling process: one job, then done. */
process.umask(0o077)
const tell = (news: BundlerNews) => process.send!(news)
let lastSent = 0
bundleHere(
  JSON.parse(process.argv[2]) as BundlerJob,
  (share, doing) => {
    if (share - lastSent < 0.01 && share < 1) return
    lastSent = share
    tell({ kind: 'progress', share, doing })
  },
  new AbortController().signal,
).then(
  (bundled) => tell({ kind: 'done', bundled }),
  (e: unknown) =>
    tell(
      e instanceof Refusal
        ? { kind: 'refused', code: e.code, message: e.message }
        : { kind: 'failed', message: e instanceof Error ? (e.stack ?? e.message) : String(e) },
    ),
)
