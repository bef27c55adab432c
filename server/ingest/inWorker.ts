import { Worker } from 'node:worker_threads'
import { InputError, type InputCode } from '#core/errors'
import { limits } from '#contract/limits'
import type { Ingest, IngestResult } from './job.ts'

type Message =
  | { kind: 'progress'; share: number; doing: string }
  | { kind: 'done'; result: IngestResult }
  | { kind: 'bad-input'; code: InputCode; detail: Record<string, number | string> }
  | { kind: 'failed'; message: string }

/**
 * Runs each job in a thread of its own, so that a 40 MB file never holds up a ride note. The thread has a limit of memory
 * and of time; running into one is a refusal of that file, never the end of the server.
 */
export function ingestInWorker(
  entry: URL,
  most: { seconds: number; heapMb: number } = { seconds: limits.ingestSeconds, heapMb: limits.ingestHeapMb },
): Ingest {
  return (job, { onProgress, signal }) =>
    new Promise((resolve, reject) => {
      const worker = new Worker(entry, {
        workerData: job,
        resourceLimits: { maxOldGenerationSizeMb: most.heapMb },
      })
      const timer = setTimeout(() => {
        void worker.terminate()
        finish(() => reject(new InputError('file.took-too-long', { seconds: most.seconds })))
      }, most.seconds * 1000)
      const cancel = () => {
        clearTimeout(timer)
        void worker.terminate()
        reject(signal.reason)
      }
      if (signal.aborted) return cancel()
      signal.addEventListener('abort', cancel, { once: true })
      const finish = (act: () => void) => {
        clearTimeout(timer)
        signal.removeEventListener('abort', cancel)
        act()
      }
      worker.on('message', (m: Message) => {
        if (m.kind === 'progress') onProgress(m.share, m.doing)
        else if (m.kind === 'done') finish(() => resolve(m.result))
        else if (m.kind === 'bad-input') finish(() => reject(new InputError(m.code, m.detail)))
        else finish(() => reject(new Error(m.message)))
      })
      worker.on('error', (e) =>
        finish(() => reject(outOfMemory(e) ? new InputError('file.too-much-memory') : e)),
      )
      worker.on('exit', (code) =>
        finish(() => code !== 0 && reject(new Error(`The reading thread ended with code ${code}.`))),
      )
    })
}

const outOfMemory = (e: unknown) =>
  e instanceof Error &&
  'code' in e &&
  (e.code === 'ERR_WORKER_OUT_OF_MEMORY' || /memory|Array buffer allocation/i.test(e.message))
