import { eq } from 'drizzle-orm'
import { letterheadId, type Letterhead } from '#contract/letterhead'
import type { Store } from '../db/open.ts'
import { letterheads } from '../db/schema.ts'
import { canBePrinted } from '../print/render.ts'
import { Refusal } from '../refusal.ts'
import { saveRecord } from './records.ts'

const blank: Letterhead = { id: letterheadId, version: 0, line: '', mark: null }

export async function readLetterhead({ db }: Store): Promise<Letterhead> {
  const [row] = await db.select().from(letterheads).where(eq(letterheads.id, letterheadId))
  return (row as typeof row | undefined)?.body ?? blank
}

/** @throws Refusal 'request.invalid' for a mark that is no picture, 'record.stale' */
export async function saveLetterhead(store: Store, sent: Letterhead): Promise<Letterhead> {
  if (sent.id !== letterheadId)
    throw new Refusal('request.invalid', `There is one letterhead only, ${letterheadId}.`, { path: 'id' })
  // A card that cannot be printed is found out here, not in the shop.
  if (sent.mark !== null && !(await canBePrinted(sent.mark)))
    throw new Refusal('request.invalid', 'The mark cannot be read as a PNG picture.', { path: 'mark' })
  return store.writes.run(() =>
    saveRecord(store, letterheads, letterheads.id, sent.id, sent, { id: sent.id }),
  )
}
