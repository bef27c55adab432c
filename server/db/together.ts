import type { WriteQueue } from './writeQueue.ts'

/** More than this at once would be one long turn of the thread that also answers. */
const most = 100

/** Rows that wait for the same turn, and what comes of them. */
interface Batch<Row, Written> {
  rows: Map<string, Row>
  written: Promise<Map<string, Written>>
}

/**
 * What several want to write while the queue is busy is written by one statement: asking for each costs more than writing
 * it. See docs/adr/0032-to-the-disk-together.md.
 */
export class Together<Row, Written> {
  /** The one that has not begun yet. */
  private next: Batch<Row, Written> | null = null

  /** @param write writes those of the rows that can be written, all in one step, and says what was, by key */
  constructor(
    private readonly queue: WriteQueue,
    private readonly write: (rows: Row[]) => Promise<Map<string, Written>>,
  ) {}

  /**
   * @param key what no two rows of one step may share
   * @returns what was written, when it is on the disk; null where nothing was, and it has to be looked why
   * @throws what the statement throws, for all of one step
   */
  async add(key: string, row: Row): Promise<Written | null> {
    if (this.next?.rows.has(key)) return null
    if (this.next && this.next.rows.size >= most) this.next = null
    this.next ??= this.begin()
    const { rows, written } = this.next
    rows.set(key, row)
    return (await written).get(key) ?? null
  }

  private begin(): Batch<Row, Written> {
    const rows = new Map<string, Row>()
    const written = this.queue.run(() => {
      // From here on it is too late for others.
      if (this.next?.rows === rows) this.next = null
      return this.write([...rows.values()])
    })
    return { rows, written }
  }
}
