import { rm } from 'node:fs/promises'
import { Analysis } from '#contract/recording'
import { InputError } from '#core/errors'
import type { Deps } from '../../deps.ts'
import type { IngestJob, IngestResult } from '../../ingest/job.ts'
import { Refusal } from '../../refusal.ts'

/**
 * Reads and analyses spooled files with progress told live. Figures pass their schema before anybody keeps them: a file
 * whose figures do not is refused here, so that no day ever holds one.
 *
 * @throws InputError for a bad file, 'figures.not-finite'
 */
export async function readFiles(
  deps: Deps,
  recordingId: string,
  job: IngestJob,
  signal: AbortSignal,
): Promise<IngestResult> {
  const result = await deps.ingest(job, {
    signal,
    onProgress: (share, doing) =>
      deps.events.emit({ type: 'ingest', recordingId, share: Math.min(1, Math.max(0, share)), doing }),
  })
  const sound = Analysis.safeParse(result.analysis)
  if (!sound.success)
    throw new InputError('figures.not-finite', { path: sound.error.issues[0].path.join('.') })
  if (!Number.isFinite(result.sampleRateHz) || !Number.isInteger(result.samples))
    throw new InputError('figures.not-finite', { path: 'sampleRateHz' })
  return result
}

/** Runs the work and removes its spooled files; a cancelled one says that nothing was kept. */
export async function undoneOnAbort<T>(
  signal: AbortSignal,
  paths: readonly string[],
  work: () => Promise<T>,
): Promise<T> {
  try {
    return await work()
  } catch (e) {
    if (signal.aborted) throw new Refusal('upload.cancelled', 'The upload was cancelled; nothing was kept.')
    throw e
  } finally {
    for (const path of paths) await rm(path, { force: true })
  }
}

/** One job at a time on one record: whoever comes second builds on what the first one kept. */
export class PerRecord {
  private tails = new Map<string, Promise<unknown>>()

  run<T>(id: string, work: () => Promise<T>): Promise<T> {
    const next = (this.tails.get(id) ?? Promise.resolve()).then(work, work)
    const tail = next.catch(() => undefined)
    this.tails.set(id, tail)
    void tail.then(() => this.tails.get(id) === tail && this.tails.delete(id))
    return next
  }
}
