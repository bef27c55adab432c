/**
 * Runs writers one after another, so that "read, check, write" is one step for everyone else, and answers each when what it
 * wrote is on the disk. One process owns the data file; see docs/adr/0002-sqlite-through-libsql.md, 0032.
 */
export class WriteQueue {
  private tail: Promise<unknown> = Promise.resolve()
  /** The bringing to the disk that is under way, or was last. */
  private bringing: Promise<void> = Promise.resolve()
  /** The one after it, as long as it has not begun: whoever is done meanwhile shares it. */
  private next: Promise<void> | null = null

  /**
   * @param toDisk brings everything that is written by now to the disk; without it, turns are taken and nothing more
   * @param mayWrite throws where nothing may be written just now
   */
  constructor(
    private readonly toDisk: () => Promise<void> = async () => {},
    private readonly mayWrite: () => void = () => {},
  ) {}

  /** @returns what the writer returns, when it is on the disk; what the writer throws, at once */
  async run<T>(write: () => Promise<T>): Promise<T> {
    const written = this.tail.then(othersFirst).then(() => {
      this.mayWrite()
      return write()
    })
    this.tail = written.catch(() => undefined)
    const value = await written
    await this.kept()
    return value
  }

  private kept(): Promise<void> {
    this.next ??= this.bringing = this.bringing
      .catch(() => undefined)
      .then(() => {
        // From here on it may be too late for what others write.
        this.next = null
        return this.toDisk()
      })
    return this.next
  }
}

/**
 * The driver works in this thread and never waits for anything, so that fifty writes would be one long turn of it. Between
 * two of them others get theirs: what was read is answered, a new connection is let in (Node takes one each turn).
 */
const othersFirst = () => new Promise<void>((next) => setImmediate(next))
