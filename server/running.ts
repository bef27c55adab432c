import { problemResponse } from './problem.ts'
import { Refusal } from './refusal.ts'
import type { Store } from './db/open.ts'

export interface Opened {
  store: Store
  fetch: (request: Request, env?: unknown) => Response | Promise<Response>
}

const patienceMs = 15_000

/**
 * The application and its data file as they run. The file can be exchanged under it: what is asked meanwhile is told to
 * wait, what is under way comes to its end first.
 */
export class Running {
  private under = 0
  private paused = false

  private constructor(
    private now: Opened,
    private readonly open: () => Promise<Opened>,
  ) {}

  static async start(open: () => Promise<Opened>): Promise<Running> {
    return new Running(await open(), open)
  }

  get store(): Store {
    return this.now.store
  }

  fetch = async (request: Request, env?: unknown): Promise<Response> => {
    if (this.paused)
      return problemResponse('storage.exchanged', 'A safe copy is being put in place; ask again in a moment.')
    this.under++
    try {
      return await this.now.fetch(request, env)
    } finally {
      this.under--
    }
  }

  /**
   * Closes the data file, lets it be exchanged and opens what is there then; what was there before, when that fails.
   * @param own requests that wait for this themselves
   * @throws Refusal 'storage.busy'
   */
  async exchange<T>(replace: () => Promise<T>, own: number): Promise<T> {
    if (this.paused) throw new Refusal('storage.busy', 'A safe copy is being put in place already.')
    this.paused = true
    try {
      await this.idle(own)
      await this.now.store.close()
      try {
        return await replace()
      } finally {
        this.now = await this.open()
      }
    } finally {
      this.paused = false
    }
  }

  /** Lets what is under way come to its end, and closes the data file. @param last what else reads it, and ends before */
  async stop(last: () => Promise<void> = () => Promise.resolve()): Promise<void> {
    this.paused = true
    await this.idle(0).catch(() => undefined)
    await last()
    await this.now.store.close()
  }

  private async idle(own: number): Promise<void> {
    for (const until = Date.now() + patienceMs; this.under > own;) {
      if (Date.now() > until)
        throw new Refusal(
          'storage.busy',
          'Something is still being read or written; try again when it is done.',
        )
      await new Promise((resolve) => setTimeout(resolve, 20))
    }
  }
}
