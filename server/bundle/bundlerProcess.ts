import { fork } from 'node:child_process'
import { rm } from 'node:fs/promises'
import type { ErrorCode } from '#contract/errors'
import { Refusal } from '../refusal.ts'
import type { Bundled, Bundler } from './bundler.ts'
import { forgetStaged } from './unpack.ts'

/** What the process says of itself. */
export type BundlerNews =
  | { kind: 'progress'; share: number; doing: string }
  | { kind: 'done'; bundled: Bundled }
  | { kind: 'refused'; code: ErrorCode; message: string }
  | { kind: 'failed'; message: string }

/** A bundler in a process of its own. Cancelling ends it from outside; what it left is taken away. */
export const bundlerIn =
  (entry: string): Bundler =>
  async (job, onProgress, signal) => {
    try {
      return await new Promise<Bundled>((resolve, reject) => {
        const child = fork(entry, [JSON.stringify(job)])
        signal.addEventListener('abort', () => child.kill('SIGKILL'), { once: true })
        let last: BundlerNews | null = null
        child.on('message', (m) => {
          const news = m as BundlerNews
          if (news.kind === 'progress') onProgress(news.share, news.doing)
          else last = news
        })
        child.on('error', reject)
        child.on('exit', (code) => {
          if (signal.aborted)
            reject(new Refusal('bundle.cancelled', 'It was cancelled; nothing was changed.'))
          else if (last?.kind === 'done') resolve(last.bundled)
          else if (last?.kind === 'refused') reject(new Refusal(last.code, last.message))
          else reject(new Error(last?.kind === 'failed' ? last.message : `The bundler ended with ${code}.`))
        })
      })
    } catch (e) {
      await rm(`${job.to}.part`, { force: true })
      await forgetStaged(job.to)
      throw e
    }
  }
