import { fork, type ChildProcess } from 'node:child_process'
import { mkdirSync } from 'node:fs'
import type { Follows } from '#contract/data'
import { WriteQueue } from '../db/writeQueue.ts'
import type { Log } from '../problem.ts'
import { forgetFollowed } from './followed.ts'

/** What the process that follows is told, and says. */
export interface FollowJob {
  /** Path of Litestream. */
  program: string
  file: string
  folder: string
  /** Whatever was noted of the data file is of another one: begin anew. */
  isAnew: boolean
}
export type FollowNews = { fault: string | null } | { checkedAt: string }

const againAfterMs = 30_000

/**
 * A copy on another disk that follows every save within about a second: Litestream, in a process of its own that ends
 * with this one. It reads along without a pause, so that whoever exchanges or empties the data file asks it to step aside.
 * Why: docs/adr/0031-a-copy-that-follows.md.
 */
export class Follower {
  /** Whoever asks it to step aside, one after another: it comes back when the last is done. */
  private readonly turns = new WriteQueue()
  private child: ChildProcess | null = null
  private timer: ReturnType<typeof setTimeout> | undefined
  private isAside = false
  private fault: string | null = null
  private checkedAt: string | null = null

  /** @param entry of the process that follows */
  constructor(
    private readonly entry: string,
    private readonly of: Omit<FollowJob, 'isAnew'>,
    private readonly log: Log,
  ) {}

  get state(): Follows {
    return { folder: this.of.folder, fault: this.fault, checkedAt: this.checkedAt }
  }

  /** @throws Error when the folder cannot be made */
  start(isAnew = false): void {
    mkdirSync(this.of.folder, { recursive: true, mode: 0o700 })
    const job: FollowJob = { ...this.of, isAnew }
    const child = fork(this.entry, [JSON.stringify(job)])
    this.child = child
    child.on('message', (m) => this.hear(m as FollowNews))
    child.on('error', (e) => this.hear({ fault: e.message }))
    child.on('exit', (code) => {
      if (this.child !== child) return
      this.child = null
      if (this.isAside) return
      this.hear({ fault: this.fault ?? `it ended with ${code}` })
      this.timer = setTimeout(() => this.start(), againAfterMs)
      this.timer.unref()
    })
  }

  private hear(news: FollowNews): void {
    if ('checkedAt' in news) {
      this.checkedAt = news.checkedAt
      return
    }
    if (news.fault !== null && news.fault !== this.fault) this.log.error('the copy that follows', news.fault)
    this.fault = news.fault
  }

  /** Looks a last time, and ends. */
  async stop(): Promise<void> {
    this.isAside = true
    clearTimeout(this.timer)
    const { child } = this
    if (!child) return
    await new Promise<void>((resolve) => {
      child.on('exit', () => resolve())
      if (child.connected) child.disconnect()
    })
    this.child = null
  }

  /** Steps aside while something is done to the data file that nobody may read along with; then begins a new copy. */
  aside<T>(work: () => Promise<T>): Promise<T> {
    return this.turns.run(async () => {
      await this.stop()
      try {
        return await work()
      } finally {
        this.isAside = false
        this.checkedAt = null
        this.start(true)
      }
    })
  }

  /** Takes the copy away with all its past; only while it has stepped aside. */
  forget(): void {
    forgetFollowed(this.of.folder)
  }
}

/** Does something with nobody reading along, where somebody does. */
export const unfollowed = <T>(follower: Follower | null, work: () => Promise<T>): Promise<T> =>
  follower ? follower.aside(work) : work()
