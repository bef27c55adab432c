import { parentPort, workerData } from 'node:worker_threads'
import { InputError } from '#core/errors'
import type { IngestJob } from './job.ts'
import { runIngest } from './run.ts'

/** Entry of the worker thread: one job, then done. Cancelling ends the thread from outside. */
const port = parentPort!
let lastSent = 0
runIngest(workerData as IngestJob, {
  signal: new AbortController().signal,
  onProgress: (share, doing) => {
    // A message per percent is plenty.
    if (share - lastSent < 0.01 && share < 1) return
    lastSent = share
    port.postMessage({ kind: 'progress', share, doing })
  },
}).then(
  (result) => port.postMessage({ kind: 'done', result }),
  (e: unknown) =>
    port.postMessage(
      e instanceof InputError
        ? { kind: 'bad-input', code: e.code, detail: e.detail }
        : { kind: 'failed', message: String(e) },
    ),
)
