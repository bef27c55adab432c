import { fork } from 'node:child_process'

type Answer<T> = { value: T } | { fault: string }

/**
 * Does a piece of work in a process of its own: a gigabyte holds nobody up, and what a damaged page does to it ends there.
 *
 * @param entry script that ends in `answerOnce`
 * @param work  what it is, as the start of the sentence of an error
 * @throws Error with what it said, or that it ended without an answer; the reason of `signal` when that is raised
 */
export function childTask<T>(
  entry: string,
  args: readonly string[],
  work: string,
  signal?: AbortSignal,
): Promise<T> {
  return new Promise((resolve, reject) => {
    const child = fork(entry, args)
    signal?.addEventListener('abort', () => child.kill('SIGKILL'), { once: true })
    let answer: Answer<T> | null = null
    child.on('message', (m) => (answer = m as Answer<T>))
    child.on('error', reject)
    child.on('exit', (code) => {
      if (signal?.aborted) reject(signal.reason as Error)
      else if (answer === null) reject(new Error(`${work} was not done: its process ended with ${code}.`))
      else if ('fault' in answer) reject(new Error(answer.fault))
      else resolve(answer.value)
    })
  })
}

/** In that process: does it, says what came of it, and is gone. Whoever asked gone before ends it: nobody waits for it. */
export function answerOnce<T>(work: () => Promise<T>): void {
  process.umask(0o077)
  process.on('disconnect', () => process.exit())
  /** Said to the end, then gone. */
  const say = (answer: Answer<T>) => process.send!(answer, undefined, {}, () => process.exit())
  work().then(
    (value) => say({ value }),
    (e: unknown) => say({ fault: e instanceof Error ? e.message : String(e) }),
  )
}
