import { writeFileSync } from 'node:fs'
import { endpoints } from '#contract/endpoints'
import { days } from './days.ts'
import { fillDay, type Put } from './fillDay.ts'
import { idOf } from './ids.ts'
import { bikes, riders, trails, units } from './world.ts'

/** The date that the page replaces by its own today. */
const someDay = '2000-01-01'
const kinds = new Map<unknown, string>([
  [endpoints.putRider, 'rider'],
  [endpoints.putUnit, 'unit'],
  [endpoints.putBike, 'bike'],
  [endpoints.putTrail, 'trail'],
  [endpoints.putSetup, 'setup'],
  [endpoints.putDay, 'day'],
  [endpoints.putRun, 'run'],
  [endpoints.putFeel, 'feel'],
])

/** The half-way day of an invented rider as the letters a page would send: what an empty start offers to try. */
export async function sampleDay(): Promise<{ kind: string; record: unknown }[]> {
  const out: { kind: string; record: unknown }[] = []
  const put: Put = async (endpoint, _id, body) => {
    const kind = kinds.get(endpoint)
    if (!kind) throw new Error(`${endpoint.path} is no part of a sample day`)
    out.push({ kind, record: endpoint.body.parse(body) })
  }
  const story = { ...days.find((d) => d.key === 'half-way')!, date: someDay }
  const rider = riders.find((r) => r.id === idOf(story.rider))!
  const bike = bikes.find((b) => b.id === idOf(`${story.bike} bike`))!
  await put(endpoints.putRider, rider.id, { ...rider, name: `${rider.name} (invented)` })
  for (const u of units.filter((u) => u.id === bike.frontUnitId || u.id === bike.rearUnitId))
    await put(endpoints.putUnit, u.id, u)
  await put(endpoints.putBike, bike.id, bike)
  const trail = trails.find((t) => t.id === idOf(story.trail))!
  await put(endpoints.putTrail, trail.id, trail)
  await fillDay(put, story)
  return out
}

if (process.argv[2]) writeFileSync(process.argv[2], JSON.stringify(await sampleDay()))
