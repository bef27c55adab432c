import { Refusal } from '../refusal.ts'
import { bundleHere, type BundlerJob } from './bundler.ts'
import type { BundlerNews } from './bundlerProcess.ts'

/** Entry of the bundling process: one job, then done. */
process.umask(0o077)
// Whoever asked is gone: nobody waits for this any more.
process.on('disconnect', () => process.exit())
const tell = (news: BundlerNews, then: () => void = () => undefined) =>
  process.send!(news, undefined, {}, then)
/** Said to the end, then gone. */
const done = () => process.exit()
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
  (bundled) => tell({ kind: 'done', bundled }, done),
  (e: unknown) =>
    tell(
      e instanceof Refusal
        ? { kind: 'refused', code: e.code, message: e.message }
        : { kind: 'failed', message: e instanceof Error ? (e.stack ?? e.message) : String(e) },
      done,
    ),
)
