import { isNotNull } from 'drizzle-orm'
import type { ShelfItem } from '#contract/endpoints'
import type { Store } from '../db/open.ts'
import {
  baselines,
  benches,
  bikes,
  days,
  gauges,
  kept,
  profiles,
  recordings,
  riders,
  runs,
  services,
  setups,
  stock,
  tentHours,
  tentNotes,
  tentRiders,
  tents,
  trails,
  units,
} from '../db/schema.ts'

/** Everything that was removed and can be brought back, newest first, each by the name a person knows it by. */
export async function readShelf({ db }: Store): Promise<ShelfItem[]> {
  const [names, allTrails] = await Promise.all([
    db.select({ id: bikes.id, body: bikes.body, rider: bikes.riderId }).from(bikes),
    db.select({ id: trails.id, body: trails.body }).from(trails),
  ])
  const riderNames = new Map(
    (await db.select({ id: riders.id, body: riders.body }).from(riders)).map((r) => [r.id, r.body.name]),
  )
  const bikeName = (id: string) => {
    const b = names.find((x) => x.id === id)
    return b ? `${b.body.name} of ${riderNames.get(b.rider) ?? '?'}` : '?'
  }
  const dayName = new Map(
    (await db.select({ id: days.id, body: days.body }).from(days)).map((d) => [
      d.id,
      `${allTrails.find((t) => t.id === d.body.trailId)?.body.name ?? '?'}, ${d.body.date}`,
    ]),
  )
  const turned = new Set(
    (await db.select({ body: setups.body }).from(setups)).map((s) => s.body.reason.fromSetupId),
  )
  const list: ShelfItem[] = []
  const put = (
    kind: ShelfItem['kind'],
    id: string,
    name: string,
    about: string,
    removedAt: string | null,
    /** Of what has no name, its time. */
    at: string | null = null,
  ) => {
    if (removedAt !== null) list.push({ kind, id, name, at, about, removedAt })
  }
  for (const r of await db.select().from(riders).where(isNotNull(riders.deletedAt)))
    put('rider', r.id, r.body.name, '', r.deletedAt)
  for (const b of await db.select().from(bikes).where(isNotNull(bikes.deletedAt)))
    put('bike', b.id, b.body.name, riderNames.get(b.riderId) ?? '', b.deletedAt)
  for (const u of await db.select().from(units).where(isNotNull(units.deletedAt)))
    put('unit', u.id, u.body.name, u.body.end, u.deletedAt)
  for (const t of await db.select().from(trails).where(isNotNull(trails.deletedAt)))
    put('trail', t.id, t.body.name, t.body.place, t.deletedAt)
  for (const g of await db.select().from(gauges).where(isNotNull(gauges.deletedAt)))
    put('gauge', g.id, g.body.name, '', g.deletedAt)
  for (const s of await db.select().from(stock).where(isNotNull(stock.deletedAt)))
    put('stock', s.id, s.body.name, s.body.kind, s.deletedAt)
  for (const s of await db.select().from(services).where(isNotNull(services.deletedAt)))
    put('service', s.id, s.body.kind, `${bikeName(s.bikeId)}, ${s.date}`, s.deletedAt)
  for (const b of await db.select().from(baselines).where(isNotNull(baselines.deletedAt)))
    put('baseline', b.id, b.body.name, bikeName(b.bikeId), b.deletedAt)
  for (const k of await db.select().from(kept).where(isNotNull(kept.deletedAt)))
    put('kept', k.id, k.body.name, bikeName(k.bikeId), k.deletedAt)
  for (const p of await db.select().from(profiles).where(isNotNull(profiles.deletedAt)))
    put('profile', p.id, p.body.name, p.body.from, p.deletedAt)
  for (const b of await db.select().from(benches).where(isNotNull(benches.deletedAt)))
    put('bench', b.id, '', bikeName(b.bikeId), b.deletedAt, b.startedAt)
  const tentNames = new Map(
    (await db.select({ id: tents.id, body: tents.body }).from(tents)).map((t) => [t.id, t.body.name]),
  )
  const inTent = (id: string) => `in ${tentNames.get(id) ?? '?'}`
  for (const t of await db.select().from(tents).where(isNotNull(tents.deletedAt)))
    put('tent', t.id, t.body.name, t.date, t.deletedAt)
  for (const r of await db.select().from(tentRiders).where(isNotNull(tentRiders.deletedAt)))
    put(
      'tentRider',
      r.id,
      `number ${r.body.number}, ${dayName.get(r.id) ?? '?'}`,
      inTent(r.tentId),
      r.deletedAt,
    )
  for (const h of await db.select().from(tentHours).where(isNotNull(tentHours.deletedAt)))
    put('tentHour', h.id, '', inTent(h.tentId), h.deletedAt, h.at)
  for (const n of await db.select().from(tentNotes).where(isNotNull(tentNotes.deletedAt)))
    put('tentNote', n.id, n.body.text || n.body.kind, inTent(n.tentId), n.deletedAt)
  for (const d of await db.select().from(days).where(isNotNull(days.deletedAt)))
    put('day', d.id, dayName.get(d.id) ?? d.date, bikeName(d.bikeId), d.deletedAt)
  for (const r of await db.select().from(runs).where(isNotNull(runs.deletedAt)))
    put('run', r.id, '', dayName.get(r.dayId) ?? '', r.deletedAt, r.startedAt)
  for (const r of await db.select().from(recordings).where(isNotNull(recordings.deletedAt)))
    put('recording', r.id, r.body.fileName, '', r.deletedAt)
  for (const s of await db.select().from(setups).where(isNotNull(setups.deletedAt)))
    // Wishes that were turned are marked the same way; they are on the bike, not on the shelf.
    if (s.wanted && !turned.has(s.id))
      put('setup', s.id, s.body.name ?? 'wanted setup', bikeName(s.bikeId), s.deletedAt)
  return list.sort((a, b) => b.removedAt.localeCompare(a.removedAt))
}
