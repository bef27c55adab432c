import { fork } from 'node:child_process'
import type { DataCounts } from '#contract/data'
import type { Copier } from './keeper.ts'

type Answer = { counts: DataCounts } | { fault: string }

/** A copier in a process of its own: a gigabyte holds nobody up, and what a damaged page does to it ends there. */
export const copierIn =
  (entry: string): Copier =>
  (file, to, signal) =>
    new Promise((resolve, reject) => {
      const child = fork(entry, [file, to])
      signal.addEventListener('abort', () => child.kill('SIGKILL'), { once: true })
      let answer: Answer | null = null
      child.on('message', (m) => (answer = m as Answer))
      child.on('error', reject)
      child.on('exit', (code) => {
        if (signal.aborted) reject(signal.reason as Error)
        else if (answer === null) reject(new Error(`The copy was not made: its process ended with ${code}.`))
        else if ('fault' in answer) reject(new Error(answer.fault))
        else resolve(answer.counts)
      })
    })
