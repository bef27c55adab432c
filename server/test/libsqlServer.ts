import { spawn, type ChildProcess } from 'node:child_process'
import { once } from 'node:events'
import { createRequire } from 'node:module'
import { createServer, type AddressInfo } from 'node:net'

/** Path of the libSQL server that a registry package carries; null: it carries none for this machine. */
export function libsqlProgram(): string | null {
  try {
    return createRequire(import.meta.url).resolve(`@sqld/${process.platform}-${process.arch}/sqld`)
  } catch {
    return null
  }
}

const wait = (ms: number) => new Promise<void>((done) => setTimeout(done, ms))

async function freePort(): Promise<number> {
  const server = createServer().listen(0, '127.0.0.1')
  await once(server, 'listening')
  const { port } = server.address() as AddressInfo
  server.close()
  await once(server, 'close')
  return port
}

/** A real libSQL server on a folder, which can be killed and started again at the same address. */
export class LibsqlServer {
  private child: ChildProcess | null = null
  private constructor(
    private readonly dir: string,
    private readonly port: number,
  ) {}

  static async start(dir: string): Promise<LibsqlServer> {
    const server = new LibsqlServer(dir, await freePort())
    await server.start()
    return server
  }

  get url(): string {
    return `http://127.0.0.1:${this.port}`
  }

  async start(): Promise<void> {
    this.child = spawn(
      libsqlProgram()!,
      ['--db-path', this.dir, '--http-listen-addr', `127.0.0.1:${this.port}`, '--no-welcome'],
      { stdio: 'ignore' },
    )
    for (const until = Date.now() + 20_000; Date.now() < until; await wait(25))
      if ((await fetch(`${this.url}/health`).catch(() => null))?.ok) return
    throw new Error('the libSQL server did not come up')
  }

  async kill(): Promise<void> {
    const child = this.child
    this.child = null
    if (!child || child.exitCode !== null) return
    child.kill('SIGKILL')
    await once(child, 'exit')
  }
}
