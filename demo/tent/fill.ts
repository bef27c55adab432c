import { endpoints } from '#contract/endpoints'
import { fillDay, type Put } from '../fillDay.ts'
import { trails } from '../world.ts'
import { practiceAt } from './plan.ts'
import { tentBikes, tentRiders, tentUnits } from './world.ts'

/** A practice with six riders, in its middle at the instant that is given. */
export async function fillTent(put: Put, now: Date): Promise<void> {
  for (const r of tentRiders) await put(endpoints.putRider, r.id, r)
  for (const u of tentUnits) await put(endpoints.putUnit, u.id, u)
  for (const b of tentBikes) await put(endpoints.putBike, b.id, b)
  const { earlier, stories, tent, riders, hours, notes } = practiceAt(now)
  for (const s of [...earlier, ...stories])
    await fillDay(put, s, undefined, { bikes: tentBikes, units: tentUnits, trails })
  await put(endpoints.putTent, tent.id, tent)
  for (const r of riders) await put(endpoints.putTentRider, r.id, r)
  for (const h of hours) await put(endpoints.putTentHour, h.id, h)
  for (const n of notes) await put(endpoints.putTentNote, n.id, n)
}
