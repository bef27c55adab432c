import type { BundleHead } from '#contract/bundle'
import { Refusal } from '../refusal.ts'
import { packBundle, type OnProgress, type PackJob } from './pack.ts'
import { unpackBundle, type UnpackJob } from './unpack.ts'

export type BundlerJob = ({ do: 'pack' } & PackJob) | ({ do: 'unpack' } & UnpackJob)
export interface Bundled {
  head: BundleHead
  /** Of the file that was written. */
  bytes: number
}

/** Packs and unpacks; a process of its own in earnest, so that it holds nobody up and can be ended. */
export type Bundler = (job: BundlerJob, onProgress: OnProgress, signal: AbortSignal) => Promise<Bundled>

/** The same on the calling thread. */
export const bundleHere: Bundler = async (job, onProgress, signal) => {
  const told: OnProgress = (share, doing) => {
    if (signal.aborted) throw new Refusal('bundle.cancelled', 'It was cancelled; nothing was changed.')
    onProgress(share, doing)
  }
  if (job.do === 'pack') return packBundle(job, told)
  return { head: await unpackBundle(job, told), bytes: 0 }
}
