import type { Problem } from '#contract/errors'
import { ApiError } from './client.ts'
import { onVersion, replaceable, sameContent, versionOf, type Letter, type NewLetter } from './letters.ts'
import { goesWith, mineOver, theirsOver } from './settling.ts'
import { freshLetter, goingOnFrom, memoryShelf, waitingOf, type Shelf } from './shelves.ts'

/** How far a letter is: bytes sent, figures made. */
export interface LetterProgress {
  share: number
  doing: string
}

/** Sends one letter. Resolves with what the server keeps; rejects with ApiError, `problem` null when unreachable. */
export type Send = (
  letter: Letter,
  onProgress: (p: LetterProgress) => void,
  signal: AbortSignal,
) => Promise<unknown>

/** What tabs tell each other. */
export type OutboxNews =
  | { type: 'changed' }
  | { type: 'sent'; letter: Letter; saved: unknown }
  | { type: 'progress'; id: number; progress: LetterProgress }

export interface Channel {
  post: (news: OutboxNews) => void
  listen: (hear: (news: OutboxNews) => void) => void
}

export interface OutboxDeps {
  shelf: Shelf
  send: Send
  channel: Channel
  tab: string
  now: () => number
  later: (act: () => void, ms: number) => unknown
  never: (timer: unknown) => void
}

/** What a window shows of what waits. */
export interface OutboxState {
  letters: readonly Letter[]
  /** Since when the server could not be reached, ms; null while it answers. */
  unreachableSince: number | null
  /** False where the browser keeps nothing: what waits is lost with the page. */
  durable: boolean
  progress: ReadonlyMap<number, LetterProgress>
}

type Lane = 'plain' | 'file'
const lanes: readonly Lane[] = ['plain', 'file']
const leaseMs = 6000
const renewMs = 2000
const firstRetryMs = 1000
const longestRetryMs = 30_000
/** An answer that the page cannot read: page and server are not of one version. */
const unread: Problem = {
  type: 'about:blank',
  title: 'The answer could not be read',
  status: 500,
  detail:
    'Page and server are not of one version; take the newer page when it is offered, or reload. What you wrote is kept here.',
  code: 'internal',
}
/** Steps of a record that are remembered; what waits behind more than these is asked about. */
const mostSteps = 8
const cancelled = () => new ApiError('Cancelled. Nothing was saved.', null)
/** A server that fails this often on one letter will not take it. */
const mostFaults = 5

/**
 * The one way out of the page. Letters go out one after another in the order they were written, each as often as needed
 * and kept once, by its client-made id. One tab sends for all. Framework-free: storage, timers, clock and channel are
 * handed in.
 */
export class Outbox {
  private letters: Letter[] = []
  private unreachableSince: number | null = null
  private progress = new Map<number, LetterProgress>()
  private listeners = new Set<(s: OutboxState) => void>()
  private sentListeners = new Set<(letter: Letter, saved: unknown) => void>()
  private waiting = new Map<number, { resolve: (saved: unknown) => void; reject: (e: Error) => void }>()
  private timer: unknown = null
  /** A ride note never waits behind a sensor file: files have a lane of their own. */
  private draining = new Map<Lane, Promise<void>>()
  private under = new Map<number, AbortController>()
  private shelf: Shelf
  private full = false
  private closed = false
  /** Letters that are shown already and not yet kept bear numbers below 0. */
  private seen = 0
  /** Letters that were taken out before they were kept, by the number they were seen by, then by the one they got. */
  private recalled = new Set<number>()
  /** Letters the server has taken, until they are off the shelf. */
  private taken = new Set<number>()
  /** By record: from which version to which what was written here brought it, and when. */
  private steps = new Map<string, { from: number; to: number; at: string }[]>()

  constructor(private readonly deps: OutboxDeps) {
    this.shelf = deps.shelf
    deps.channel.listen((news) => void this.hear(news))
  }

  /** Takes up what an earlier page left behind, and begins to send. */
  async start(): Promise<void> {
    await this.read()
    this.kick()
  }

  subscribe(listener: (s: OutboxState) => void): () => void {
    this.listeners.add(listener)
    listener(this.state())
    return () => this.listeners.delete(listener)
  }

  /** Told once for every letter the server has taken, whichever tab sent it. */
  onSent(listener: (letter: Letter, saved: unknown) => void): () => void {
    this.sentListeners.add(listener)
    return () => this.sentListeners.delete(listener)
  }

  state(): OutboxState {
    return {
      letters: this.letters,
      unreachableSince: this.unreachableSince,
      durable: this.shelf.durable && !this.full,
      progress: this.progress,
    }
  }

  /** Puts a write on its way. Resolves once it waits safely, or as safely as this browser allows. */
  async write(letter: NewLetter): Promise<Letter> {
    // Plain JSON: what a page hands in may be a proxy, which no storage keeps.
    const plain = (x: unknown): unknown => x && JSON.parse(JSON.stringify(x))
    const [body, opened] = [plain(letter.body), plain(letter.opened)]
    const fresh = freshLetter({ ...letter, body, opened }, new Date(this.deps.now()).toISOString())
    const replaces = replaceable.has(letter.kind)
    // Seen at once: whoever writes on in the same breath builds on it. It goes out once it waits safely.
    const mine = replaces ? waitingOf(this.letters, letter.key) : []
    const seen: Letter = { ...goingOnFrom(mine, fresh), id: -++this.seen }
    this.letters = [...this.letters.filter((l) => !mine.includes(l)), seen]
    this.tell()
    const { kept: asWritten, replaced } = await this.keep(fresh, replaces)
    if (this.recalled.delete(seen.id)) return this.takeBack(asWritten, replaced)
    const kept = this.goneOn(asWritten)
    if (kept !== asWritten) await this.shelf.put([kept]).catch(() => undefined)
    this.letters = this.letters
      .filter((l) => l.id !== kept.id && !replaced.includes(l.id))
      .map((l) => (l.id === seen.id ? kept : l))
    for (const id of replaced) this.hand(id, kept.id)
    this.changed()
    this.kick(letter.holdMs ?? 0)
    return kept
  }

  /**
   * Waits for the server's answer to a letter.
   * @throws ApiError when it is refused or in conflict
   */
  confirmed(id: number): Promise<unknown> {
    if (this.recalled.delete(id)) return Promise.reject(cancelled())
    return new Promise((resolve, reject) => {
      const before = this.waiting.get(id)
      this.waiting.set(id, {
        resolve: (saved) => (before?.resolve(saved), resolve(saved)),
        reject: (e) => (before?.reject(e), reject(e)),
      })
    })
  }

  /**
   * Ends a conflict: mine goes on from theirs, or theirs is taken and what waits of the record is dropped, but for what goes
   * with it.
   */
  async settle(id: number, which: 'mine' | 'theirs'): Promise<void> {
    const letter = this.letters.find((l) => l.id === id)
    if (!letter) return
    const send = async (body: unknown) => {
      await this.change({ ...letter, body, state: 'waiting', problem: null, attempted: [] })
      this.kick()
    }
    if (which === 'mine') {
      const theirs = versionOf(letter.problem?.current)
      return send(theirs === null ? letter.body : onVersion(mineOver(letter), theirs))
    }
    const ofRecord = this.letters.filter((l) => l.key === letter.key)
    const rest = theirsOver({ ...letter, body: ofRecord[ofRecord.length - 1].body })
    await this.drop(ofRecord.map((l) => l.id).filter((x) => rest === null || x !== id))
    if (rest !== null) await send(rest)
  }

  /** Tries a refused letter once more, as it is or with another body. */
  async again(id: number, body?: unknown): Promise<void> {
    const letter = this.letters.find((l) => l.id === id)
    if (!letter) return
    await this.change({ ...letter, body: body ?? letter.body, state: 'waiting', problem: null, tries: 0 })
    this.kick()
  }

  /** Takes letters out: refused ones that were read, or an upload that is cancelled. */
  async drop(ids: readonly number[]): Promise<void> {
    for (const id of ids) {
      this.under.get(id)?.abort()
      if (id < 0 && this.letters.some((l) => l.id === id)) this.recalled.add(id)
    }
    this.letters = this.letters.filter((l) => !ids.includes(l.id))
    await this.shelf.remove(ids).catch(() => undefined)
    for (const id of ids) {
      this.waiting.get(id)?.reject(cancelled())
      this.waiting.delete(id)
      this.progress.delete(id)
    }
    this.changed()
  }

  /** It was taken out while it was put away: it leaves the shelf before anybody sends it. */
  private async takeBack(letter: Letter, replaced: readonly number[]): Promise<Letter> {
    this.recalled.add(letter.id)
    for (const id of replaced) this.waiting.get(id)?.reject(cancelled())
    await this.shelf.remove([letter.id]).catch(() => undefined)
    this.changed()
    return letter
  }

  /** The page goes: nothing is sent from here any more, and another tab or the next page may. */
  async close(): Promise<void> {
    this.closed = true
    if (this.timer !== null) this.deps.never(this.timer)
    for (const abort of this.under.values()) abort.abort()
    await this.shelf.release(this.deps.tab).catch(() => undefined)
  }

  /** Sends what waits now, without waiting for the next try. */
  flush(): Promise<void> {
    return this.drainLane('plain')
  }

  /** The browser's storage is full or blocked: what is written waits in memory, is sent all the same, and said so. */
  private async keep(fresh: Omit<Letter, 'id'>, replaces: boolean) {
    try {
      return await this.shelf.add(fresh, replaces)
    } catch {
      this.full = true
      const memory = memoryShelf()
      for (const { id, ...l } of this.letters) if (id > 0) await memory.add(l, false)
      this.shelf = memory
      this.letters = [...(await memory.all()), ...this.letters.filter((l) => l.id < 0)]
      return memory.add(fresh, replaces)
    }
  }

  /** Whoever waited for the one that was replaced waits for its successor. */
  private hand(from: number, to: number): void {
    const w = this.waiting.get(from)
    if (!w) return
    this.waiting.delete(from)
    void this.confirmed(to).then(w.resolve, w.reject)
  }

  private async change(letter: Letter): Promise<void> {
    this.letters = this.letters.map((l) => (l.id === letter.id ? letter : l))
    await this.shelf.put([letter]).catch(() => undefined)
    this.changed()
  }

  private async read(): Promise<void> {
    const kept = (await this.shelf.all()).filter((l) => !this.taken.has(l.id))
    this.letters = [...kept, ...this.letters.filter((l) => l.id < 0)]
    this.tell()
  }

  private async hear(news: OutboxNews): Promise<void> {
    if (news.type === 'changed') {
      await this.read()
      this.kick()
    } else if (news.type === 'progress') {
      this.progress = new Map(this.progress).set(news.id, news.progress)
      this.tell()
    } else this.took(news.letter, news.saved)
  }

  private tell(): void {
    const s = this.state()
    for (const l of this.listeners) l(s)
  }
  private changed(): void {
    this.tell()
    this.deps.channel.post({ type: 'changed' })
  }

  private kick(ms = 0): void {
    if (this.closed) return
    if (this.timer !== null) this.deps.never(this.timer)
    this.timer = this.deps.later(() => {
      this.timer = null
      void this.drain()
    }, ms)
  }

  private async drain(): Promise<void> {
    await Promise.all(lanes.map((lane) => this.drainLane(lane)))
  }
  private drainLane(lane: Lane): Promise<void> {
    const under = this.draining.get(lane)
    if (under) return under
    const fresh = this.sendAll(lane).finally(() => this.draining.delete(lane))
    this.draining.set(lane, fresh)
    return fresh
  }

  private async sendAll(lane: Lane): Promise<void> {
    if (this.closed || !this.next(lane)) return
    if (!(await this.own())) return this.kick(renewMs)
    for (;;) {
      const letter = this.next(lane)
      if (!letter) break
      const wait = await this.sendOne(letter)
      if (wait !== null) return this.kick(wait)
      if (!(await this.own())) return this.kick(renewMs)
    }
    // A file may have waited for what was written before it.
    if (lane === 'plain') void this.drainLane('file')
  }

  private own(): Promise<boolean> {
    return this.shelf.lease(this.deps.tab, this.deps.now(), leaseMs).catch(() => true)
  }

  /** The first letter of a lane that may go: none of its record stands before it, and a file waits for what was written before. */
  private next(lane: Lane): Letter | null {
    const blocked = new Set<string>()
    let plainBefore = false
    for (const l of this.letters) {
      const file = l.file !== null
      if (
        l.id > 0 &&
        l.state === 'waiting' &&
        !blocked.has(l.key) &&
        file === (lane === 'file') &&
        !(file && plainBefore)
      )
        return l
      if (l.state === 'waiting' && !file) plainBefore = true
      blocked.add(l.key)
    }
    return null
  }

  /** @returns ms to wait before the next try, or null to go on at once */
  private async sendOne(next: Letter): Promise<number | null> {
    const letter = this.goneOn(next)
    const abort = new AbortController()
    this.under.set(letter.id, abort)
    const renew = this.renewWhile()
    try {
      // Noted before it goes: whatever happens on the way, what the server then holds is ours.
      await this.note(letter)
      const saved = await this.deps.send(
        letter,
        (p) => {
          this.progress = new Map(this.progress).set(letter.id, p)
          this.tell()
          this.deps.channel.post({ type: 'progress', id: letter.id, progress: p })
        },
        abort.signal,
      )
      this.unreachableSince = null
      await this.arrived(letter, saved)
      return null
    } catch (e) {
      if (abort.signal.aborted) return null
      return this.failed(letter, e instanceof ApiError ? e : new ApiError(unread.detail, unread))
    } finally {
      renew()
      this.under.delete(letter.id)
    }
  }

  private async note(letter: Letter): Promise<void> {
    if (letter.attempted.some((a) => sameContent(a, letter.body))) return
    const noted = { ...letter, attempted: [...letter.attempted, letter.body].slice(-8) }
    this.letters = this.letters.map((l) => (l.id === letter.id ? noted : l))
    await this.shelf.put([noted]).catch(() => undefined)
  }

  /** Keeps the right to send while one letter takes long. */
  private renewWhile(): () => void {
    let on = true
    const again = () => {
      if (!on) return
      void this.own()
      timer = this.deps.later(again, renewMs)
    }
    let timer = this.deps.later(again, renewMs)
    return () => {
      on = false
      this.deps.never(timer)
    }
  }

  private async arrived(letter: Letter, saved: unknown): Promise<void> {
    const version = versionOf(saved)
    // What was written on top of it goes on from the version it got.
    const after = this.letters
      .filter((l) => l.key === letter.key && (l.id > letter.id || l.id < 0))
      .map((l) =>
        version === null ? l : { ...l, body: onVersion(l.body, version), opened: l.opened && saved },
      )
    this.letters = this.letters.map((l) => after.find((a) => a.id === l.id) ?? l)
    // In one breath: a moment in which it is neither waiting nor known as saved would show the state before it, and
    // whoever wrote in that moment would build on that.
    this.took(letter, saved)
    this.deps.channel.post({ type: 'sent', letter: { ...letter, file: null }, saved })
    if (after.length > 0) await this.shelf.put(after.filter((l) => l.id > 0)).catch(() => undefined)
    await this.shelf.remove([letter.id]).catch(() => undefined)
    this.changed()
  }

  /**
   * A letter on the version that the one before it got, where it was written before that was known here: while the
   * storage was slower than the answer, or next door. What was written later knew of it, or is to be asked.
   */
  private goneOn(letter: Letter): Letter {
    let version = versionOf(letter.body)
    for (const s of this.steps.get(letter.key) ?? [])
      if (s.from === version && letter.at <= s.at) version = s.to
    return version === null || version === versionOf(letter.body)
      ? letter
      : { ...letter, body: onVersion(letter.body, version) }
  }

  private took(letter: Letter, saved: unknown): void {
    this.taken.add(letter.id)
    const [from, to] = [versionOf(letter.body), versionOf(saved)]
    if (from !== null && to !== null) {
      const at = new Date(this.deps.now()).toISOString()
      const steps = [...(this.steps.get(letter.key) ?? []), { from, to, at }]
      this.steps.set(letter.key, steps.slice(-mostSteps))
    }
    for (const l of this.sentListeners) l(letter, saved)
    this.letters = this.letters.filter((l) => l.id !== letter.id)
    this.progress.delete(letter.id)
    this.waiting.get(letter.id)?.resolve(saved)
    this.waiting.delete(letter.id)
    this.tell()
  }

  private async failed(letter: Letter, e: ApiError): Promise<number | null> {
    const tries = letter.tries + 1
    // Replaced while it was under way: what the server may hold is remembered by the one that took its place.
    const now = this.letters.find((l) => l.id === letter.id)
    if (!now) return null
    if (e.problem === null) {
      this.unreachableSince ??= this.deps.now()
      await this.change({ ...now, tries })
      return Math.min(longestRetryMs, firstRetryMs * 2 ** Math.min(10, tries - 1))
    }
    this.unreachableSince = null
    const { problem } = e
    // Nobody is signed in, or it was too much at once: it is none of the letter's fault.
    if (problem.status === 401 || problem.status === 429) {
      await this.change({ ...now, tries })
      return longestRetryMs
    }
    const faults = (now.faults ?? 0) + 1
    if (problem.status >= 500 && faults < mostFaults) {
      await this.change({ ...now, tries, faults })
      return Math.min(longestRetryMs, firstRetryMs * 2 ** (faults - 1))
    }
    if (problem.code === 'setup.not-present') {
      await this.end(now, 'conflict', problem, e)
      return null
    }
    if (problem.code === 'record.stale') {
      const theirs = versionOf(problem.current)
      // What is there is our own earlier try, whose answer was lost: nothing to ask.
      if (
        theirs !== null &&
        [now.body, ...now.attempted].some((mine) => sameContent(problem.current, mine))
      ) {
        await this.change({ ...now, body: onVersion(now.body, theirs), tries })
        return null
      }
      const both = goesWith(now, problem.current)
      if (both) {
        await this.change({ ...now, body: both, opened: problem.current, attempted: [], tries })
        return null
      }
      await this.end(now, 'conflict', problem, e)
      return null
    }
    await this.end(now, 'refused', problem, e)
    return null
  }

  private async end(
    letter: Letter,
    state: 'conflict' | 'refused',
    problem: Problem,
    e: ApiError,
  ): Promise<void> {
    const w = this.waiting.get(letter.id)
    this.waiting.delete(letter.id)
    await this.change({ ...letter, state, problem })
    w?.reject(e)
  }
}
