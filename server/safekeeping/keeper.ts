import { existsSync, readdirSync, rmSync, statfsSync, statSync } from 'node:fs'
import { dirname, join } from 'node:path'
import type { DataCounts, SafeCopy } from '#contract/data'
import { WriteQueue } from '../db/writeQueue.ts'
import type { Log } from '../problem.ts'
import { Refusal } from '../refusal.ts'
import { copyNameOf, listCopies, makeFolder, noteCounts, removeCopy } from './copies.ts'
import { removePart } from './copyFile.ts'
import { mayGo, type Reason } from './rotation.ts'

/** Copies a data file and checks the copy; a process of its own in earnest. */
export type Copier = (file: string, to: string, signal: AbortSignal) => Promise<DataCounts>

const dueAfterMs = 24 * 3_600_000
const lookEveryMs = 3_600_000
const firstLookMs = 60_000
/** Beyond the size of the file itself. */
const spareBytes = 20e6

/** Makes safe copies, one at a time, when they are due and when they are asked for, and takes old ones away. */
export class Keeper {
  work: { doing: string; share: number } | null = null
  fault: string | null = null
  private readonly turns = new WriteQueue()
  private given = new AbortController()

  constructor(
    readonly file: string,
    readonly folder: string,
    private readonly copier: Copier,
    private readonly now: () => string,
    private readonly log: Log,
  ) {}

  list(): SafeCopy[] {
    return listCopies(this.folder)
  }

  pathOf(name: string): string {
    if (!this.list().some((c) => c.name === name))
      throw new Refusal('record.not-found', 'There is no such safe copy.')
    return join(this.folder, name)
  }

  remove(name: string): void {
    this.pathOf(name)
    removeCopy(this.folder, name)
  }

  /** Copies, and files that were set aside when one was put back: what else has the data of before in it. */
  traces(): string[] {
    const aside = join(dirname(this.file), 'set-aside')
    return [
      ...this.list().map((c) => join(this.folder, c.name)),
      ...(existsSync(aside) ? readdirSync(aside).map((name) => join(aside, name)) : []),
    ]
  }

  /** Takes all of them away. */
  forget(): void {
    for (const path of this.traces())
      for (const end of ['', '.json']) rmSync(`${path}${end}`, { force: true })
  }

  freeBytes(): number {
    makeFolder(this.folder)
    const { bavail, bsize } = statfsSync(this.folder)
    return bavail * bsize
  }

  /** @throws Refusal 'storage.full'; Error when the copy is not sound */
  make(why: Reason): Promise<SafeCopy> {
    return this.turns.run(async () => {
      const whole = sizeWithWal(this.file)
      if (this.freeBytes() < whole + spareBytes)
        throw new Refusal(
          'storage.full',
          `A safe copy needs ${Math.ceil((whole + spareBytes) / 1e6)} MB in ${this.folder}, and there is less. Make room, or name a folder on another disk with WILD_SPRING_COPIES.`,
        )
      const name = this.freeName(why)
      const path = join(this.folder, name)
      this.work = { doing: 'Making a safe copy', share: 0 }
      this.given = new AbortController()
      const { signal } = this.given
      const watch = setInterval(() => {
        const done = statSync(`${path}.part`, { throwIfNoEntry: false })?.size ?? 0
        this.work = { doing: 'Making a safe copy', share: Math.min(0.9, done / whole) }
      }, 200)
      try {
        noteCounts(this.folder, name, await this.copier(this.file, path, signal))
      } catch (e) {
        if (!signal.aborted) throw e
        removePart(path)
        throw new Refusal(
          'copy.cancelled',
          'The safe copy was cancelled; those made before are as they were.',
        )
      } finally {
        clearInterval(watch)
        this.work = null
      }
      for (const old of mayGo(this.list(), this.now())) removeCopy(this.folder, old.name)
      return this.list().find((c) => c.name === name)!
    })
  }

  /** By the second; two of one second are two copies all the same. */
  private freeName(why: Reason): string {
    for (let ms = Date.parse(this.now()); ; ms += 1000) {
      const name = copyNameOf(new Date(ms).toISOString(), why)
      if (!existsSync(join(this.folder, name))) return name
    }
  }

  /** Gives up the copy that is under way, if one is. */
  cancel(): void {
    this.given.abort()
  }

  /** A copy when the last is a day old and something was written since. What goes wrong is told on the page of the data. */
  async makeIfDue(): Promise<void> {
    const nowMs = Date.parse(this.now())
    // One that a wrong clock dated into the future says nothing of today.
    const last = this.list().find((c) => Date.parse(c.at) <= nowMs)
    const isDue = !last || nowMs - Date.parse(last.at) >= dueAfterMs
    const isChanged = !last || writtenAtMs(this.file) > Date.parse(last.at)
    if (!isDue || !isChanged) return
    try {
      await this.make('daily')
      this.fault = null
    } catch (e) {
      this.fault = e instanceof Error ? e.message : String(e)
      this.log.error('the safe copy of the day', e)
    }
  }

  /**
   * The first look waits for a minute: whoever starts the server wants its page first.
   * @param isNew nothing is in it yet: the first copy waits for an hour
   * @returns the way to stop
   */
  everyHour(isNew: boolean): () => void {
    const first = isNew ? undefined : setTimeout(() => void this.makeIfDue(), firstLookMs)
    const timer = setInterval(() => void this.makeIfDue(), lookEveryMs)
    first?.unref()
    timer.unref()
    return () => {
      clearTimeout(first)
      clearInterval(timer)
    }
  }
}

const parts = (file: string) => [file, `${file}-wal`].map((p) => statSync(p, { throwIfNoEntry: false }))
const sizeWithWal = (file: string) => parts(file).reduce((sum, s) => sum + (s?.size ?? 0), 0)
const writtenAtMs = (file: string) => Math.max(...parts(file).map((s) => s?.mtimeMs ?? 0))
