import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import { endpoints } from '#contract/endpoints'
import type { DayStory } from '../days.ts'
import { fillDay, type Put } from '../fillDay.ts'
import { trails } from '../world.ts'
import { plan } from './plan.ts'
import { tarek, tareksBike, tareksTrails, tareksUnits, lentShock } from './world.ts'

/** Sends Tarek's two seasons, as they were ridden, and what he kept of them. */
export async function fillSeasons(put: Put): Promise<void> {
  await put(endpoints.putRider, tarek.id, tarek)
  for (const u of [...tareksUnits, lentShock]) await put(endpoints.putUnit, u.id, u)
  await put(endpoints.putBike, tareksBike.id, tareksBike)
  for (const t of tareksTrails) await put(endpoints.putTrail, t.id, t)
  const world = { bikes: [tareksBike], units: tareksUnits, trails: [...trails, ...tareksTrails] }
  const ridden = JSON.parse(readFileSync(join(import.meta.dirname, 'ridden.json'), 'utf8')) as DayStory[]
  for (const story of ridden) {
    const end = await fillDay(put, story, undefined, world)
    const day = plan.find((d) => d.key === story.key)!
    if (!day.kept) continue
    const { airTempC, altitudeM, surface } = day.conditions
    await put(endpoints.putKept, end.id, {
      id: end.id,
      version: 0,
      bikeId: tareksBike.id,
      ...day.kept,
      found: {
        place: world.trails.find((t) => t.id === end.trailId)!.place,
        airTempC,
        altitudeM,
        surface,
        pace: 'usual',
        kitMassKg: day.kept.purposes.includes('tour') ? 12 : tarek.kitMassKg,
      },
      tyreFrontPsi: 22,
      tyreRearPsi: 25,
      geometry: '',
      by: tarek.name,
      keptAt: new Date(`${story.date}T16:30:00`).toISOString(),
    })
  }
}
