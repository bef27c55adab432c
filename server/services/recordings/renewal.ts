import { eq } from 'drizzle-orm'
import { InputError } from '#core/errors'
import type { Deps } from '../../deps.ts'
import { recordings } from '../../db/schema.ts'
import { dayOfRun } from '../days.ts'
import { mustFind } from './kept.ts'
import type { PerRecord } from './reading.ts'
import { renewFigures } from './reread.ts'

/**
 * Makes figures of an older core again in the background, one recording after another, as days are opened. Progress and
 * end are told live. A recording whose kept bytes give no figures any more is marked broken; its day opens all the same.
 */
export class FigureRenewal {
  private under = new Set<string>()
  private tail: Promise<void> = Promise.resolve()

  constructor(
    private readonly deps: Deps,
    private readonly perRecord: PerRecord,
  ) {}

  /** @returns when it is done, for tests; nobody has to wait for it */
  ask(id: string): Promise<void> {
    if (this.under.has(id)) return this.tail
    this.under.add(id)
    this.tail = this.tail.then(() => this.renew(id)).finally(() => this.under.delete(id))
    return this.tail
  }

  private async renew(id: string): Promise<void> {
    const { store, events, log } = this.deps
    try {
      await renewFigures(this.deps, this.perRecord, id, new AbortController().signal)
    } catch (e) {
      if (!(e instanceof InputError)) log.error(`renewing the figures of ${id}`, e)
      const held = await mustFind(store, id).catch(() => null)
      if (held)
        await store.writes.run(async () => {
          const body = { ...held, analysis: null, figures: 'broken' as const }
          await store.db.update(recordings).set({ body }).where(eq(recordings.id, id))
        })
    }
    const held = await mustFind(store, id).catch(() => null)
    const dayId = held && (await dayOfRun(store, held.runId))
    if (dayId) events.emit({ type: 'stale', what: 'day', id: dayId })
  }
}
