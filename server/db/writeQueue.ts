/**
 * Runs writers one after another, so that "read, check, write" is one step for everyone else. One process owns the
 * data file; see docs/adr/0002-sqlite-through-libsql.md.
 */
export class WriteQueue {
  private tail: Promise<unknown> = Promise.resolve()

  run<T>(write: () => Promise<T>): Promise<T> {
    const next = this.tail.then(write, write)
    this.tail = next.catch(() => undefined)
    return next
  }
}
