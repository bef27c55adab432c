import { fork, type ChildProcess } from 'node:child_process'
import { existsSync, mkdirSync, rmSync, statSync, writeFileSync } from 'node:fs'
import { basename, dirname, join } from 'node:path'
import type { Follows } from '#contract/data'
import type { Log } from '../problem.ts'

const againAfterMs = 30_000
/** What leads back into the past within the copy itself. */
const retention = { retention: '72h', 'snapshot-interval': '24h' }

/**
 * A copy on another disk that follows every save within about a second: Litestream, in a process of its own that ends
 * with this one. It reads along without a pause, so that whoever exchanges or empties the data file asks it to step aside.
 * Why: docs/adr/0031-a-copy-that-follows.md.
 */
export class Follower {
  private child: ChildProcess | null = null
  private timer: ReturnType<typeof setTimeout> | undefined
  private isAside = false
  private fault: string | null = null

  /** @param entry of the process that runs Litestream @param program path of Litestream */
  constructor(
    private readonly entry: string,
    private readonly program: string,
    private readonly file: string,
    readonly folder: string,
    private readonly log: Log,
  ) {}

  get state(): Follows {
    return { folder: this.folder, fault: this.fault }
  }

  /** @throws Error when the folder cannot be made */
  start(): void {
    mkdirSync(this.folder, { recursive: true, mode: 0o700 })
    const settings = join(dirname(this.file), 'follow.yml')
    const replicas = [{ type: 'file', path: this.folder, ...retention }]
    // JSON is YAML.
    writeFileSync(settings, JSON.stringify({ dbs: [{ path: this.file, replicas }] }), { mode: 0o600 })
    const child = fork(this.entry, [this.program, settings, join(this.folder, 'follower.lock')])
    this.child = child
    child.on('message', (m) => {
      const { fault } = m as { fault: string | null }
      if (fault !== null && fault !== this.fault) this.log.error('the copy that follows', fault)
      this.fault = fault
    })
    child.on('exit', (code) => {
      if (this.child !== child) return
      this.child = null
      if (this.isAside) return
      this.fault ??= `it ended with ${code}`
      this.timer = setTimeout(() => this.start(), againAfterMs)
      this.timer.unref()
    })
  }

  /** Looks a last time, and ends. */
  async stop(): Promise<void> {
    this.isAside = true
    clearTimeout(this.timer)
    const { child } = this
    if (!child) return
    await new Promise<void>((resolve) => {
      child.on('exit', () => resolve())
      child.disconnect()
    })
    this.child = null
  }

  /** Steps aside while something is done to the data file that nobody may read along with; then begins a new copy. */
  async aside<T>(work: () => Promise<T>): Promise<T> {
    await this.stop()
    try {
      return await work()
    } finally {
      // What it noted of the file that was would be taken for the file that is.
      rmSync(this.notes, { recursive: true, force: true })
      this.isAside = false
      this.start()
    }
  }

  /** Takes the copy away with all its past; only while it has stepped aside. */
  forget(): void {
    rmSync(join(this.folder, 'generations'), { recursive: true, force: true })
  }

  private get notes(): string {
    return join(dirname(this.file), `.${basename(this.file)}-litestream`)
  }
}

/** Does something with nobody reading along, where somebody does. */
export const unfollowed = <T>(follower: Follower | null, work: () => Promise<T>): Promise<T> =>
  follower ? follower.aside(work) : work()

export const isFollowing = (path: string): boolean =>
  existsSync(join(path, 'generations')) && statSync(path).isDirectory()
