import { fork, type ChildProcess } from 'node:child_process'
import { join } from 'node:path'

interface Answer {
  number: number
  address: string
  said: string
  fault?: string
}

let host: ChildProcess | undefined
let orders = 0

/** The process that serves what this worker's tests start; it ends with the worker. */
function theHost(): ChildProcess {
  if (host?.connected) return host
  // None of the runner's own ways to load a file.
  host = fork(join(import.meta.dirname, 'serverHost.mjs'), { execArgv: [] })
  host.setMaxListeners(0)
  // It does not keep the worker from ending, except while it is asked something.
  host.unref()
  host.channel?.unref()
  return host
}

function ask(number: number, order?: { env: NodeJS.ProcessEnv; words: readonly string[] }): Promise<Answer> {
  const to = theHost()
  return new Promise((resolve, reject) => {
    to.channel?.ref()
    const done = () => {
      to.channel?.unref()
      to.off('message', hear)
      to.off('exit', end)
    }
    const hear = (message: unknown) => {
      const answer = message as Answer
      if (answer.number !== number) return
      done()
      if (answer.fault === undefined) resolve(answer)
      else reject(new Error(answer.fault))
    }
    const end = (code: number | null) => {
      done()
      reject(new Error(`the process that hosts the servers ended with ${code}`))
    }
    to.on('message', hear)
    to.on('exit', end)
    to.send({ number, order })
  })
}

/** Starts the built server among others in one process. @returns its address, what it printed, and the way to end it in peace */
export async function startHosted(
  env: NodeJS.ProcessEnv,
  words: readonly string[],
): Promise<{ base: string; said: string; stop: () => Promise<void> }> {
  const number = ++orders
  const { address, said } = await ask(number, { env, words })
  let stopped: Promise<unknown> | undefined
  return {
    base: address,
    said,
    stop: async () => void (await (stopped ??= ask(number))),
  }
}
