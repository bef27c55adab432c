import { eq } from 'drizzle-orm'
import type { BatchItem } from 'drizzle-orm/batch'
import type { Position } from '#contract/setup'
import type { SuspensionUnit } from '#contract/unit'
import { recountShift } from '#core/adjusters/recount'
import type { Store } from '../db/open.ts'
import { baselines, benches, setups } from '../db/schema.ts'

/**
 * Writes that keep what people counted true after a dial's range was corrected. Positions are stored from closed; one
 * that was counted from open by a wrong range moves by the difference, so that "4 from open" stays 4 from open.
 * Setups are otherwise immutable: this corrects their storage, not what was said.
 */
export async function countCorrections(
  { db }: Store,
  before: SuspensionUnit,
  after: SuspensionUnit,
): Promise<BatchItem<'sqlite'>[]> {
  const shifts = new Map(
    after.adjusters.flatMap((a) => {
      const old = before.adjusters.find((x) => x.id === a.id)
      const by = old ? recountShift(old, a) : 0
      return by === 0 ? [] : [[a.id, by] as const]
    }),
  )
  if (shifts.size === 0) return []
  const writes: BatchItem<'sqlite'>[] = []
  for (const table of [setups, baselines, benches] as const) {
    const rows = await db.select({ id: table.id, body: table.body }).from(table)
    for (const { id, body } of rows as { id: string; body: { positions: Position[] } }[]) {
      if (!body.positions.some((p) => shifts.has(p.adjusterId))) continue
      const positions = body.positions.map((p) => ({
        ...p,
        value: p.value + (shifts.get(p.adjusterId) ?? 0),
      }))
      writes.push(
        db
          .update(table)
          .set({ body: { ...body, positions } as never })
          .where(eq(table.id, id)),
      )
    }
  }
  return writes
}
