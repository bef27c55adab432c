/**
 * Runs writers one after another, so that "read, check, write" is one step for everyone else. One process owns the
 * data file; see docs/adr/0002-sqlite-through-libsql.md.
 */
export class WriteQueue {
  private tail: Promise<unknown> = Promise.resolve()

  run<T>(write: () => Promise<T>): Promise<T> {
    const next = this.tail.then(othersFirst).then(write)
    this.tail = next.catch(() => undefined)
    return next
  }
}

/**
 * The driver works in this thread and never waits for anything, so that fifty writes would be one long turn of it. Between
 * two of them others get theirs: what was read is answered, a new connection is let in (Node takes one each turn).
 */
const othersFirst = () => new Promise<void>((next) => setImmediate(next))
