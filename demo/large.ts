import { endpoints } from '#contract/endpoints'
import { Bike } from '#contract/bike'
import { Rider } from '#contract/rider'
import { Trail } from '#contract/trail'
import { SuspensionUnit } from '#contract/unit'
import { days, type DayStory, type Step } from './days.ts'
import { fillDay, type Put, type World } from './fillDay.ts'
import { idOf } from './ids.ts'
import { bikes, trails, units } from './world.ts'

/** A coach's world after some seasons: 40 riders, 60 bikes, 200 days. What findability is tried in. */
export const largeSize = { riders: 40, bikes: 60, days: 200, today: 5 }

const names =
  'Aune Birk Ceyla Davin Edda Falk Gerrit Hanne Iven Jutta Kolja Linde Malo Nanna Orla Piet Quirin Ronja Silas Thea Ulvi Veit Wanda Xaver Ylva Zeno Arvid Brida Corin Dorle Eskil Frauke Gesa Hedda Imke Jonte Keno Levke Merle Nils'.split(
    ' ',
  )
const trailNames = [
  'Fernhollow Ridge',
  'Kiln Bank',
  'Moss Steps',
  'Long Ash',
  'Tarn Traverse',
  'Heron Cut',
  'Slate Drop',
  'The long way down past the old sheepfold and both of its crooked gates',
]

/** A unit of the small world under another owner's ids. */
function clone(unit: SuspensionUnit, from: string, to: string, known: readonly string[]): SuspensionUnit {
  const ids = new Map(known.map((name) => [idOf(name), idOf(name.replace(from, to))]))
  const other = (id: string) => ids.get(id) ?? idOf(`${to} ${id}`)
  return SuspensionUnit.parse({
    ...unit,
    id: idOf(`${to} ${unit.end}`),
    adjusters: unit.adjusters.map((a) => ({ ...a, id: other(a.id) })),
    charts: unit.charts.map((c) => ({ ...c, id: idOf(`${to} ${c.id}`), adjusterId: other(c.adjusterId) })),
  })
}

const rename = (record: Record<string, number>, from: string, to: string) =>
  Object.fromEntries(Object.entries(record).map(([name, value]) => [name.replace(from, to), value]))

/** @param today YYYY-MM-DD; the latest days are of it */
export function largeWorld(today: string): World & { riders: Rider[]; days: DayStory[] } {
  const riders = names.map((name, i) =>
    Rider.parse({
      id: idOf(name),
      version: 0,
      name,
      bodyMassKg: 52 + ((i * 7) % 45),
      kitMassKg: 3 + (i % 5),
      level: (['novice', 'intermediate', 'advanced', 'race'] as const)[i % 4],
      taste: (['planted', 'neutral', 'lively'] as const)[i % 3],
      note: '',
    }),
  )
  const madeTrails = trailNames.map((name, i) => {
    const base = trails[i % trails.length]
    const sections =
      i === trailNames.length - 1 ? [...base.sections, ...base.sections].slice(0, 12) : base.sections
    return Trail.parse({
      ...base,
      id: idOf(name),
      name,
      place: `Valley ${(i % 3) + 1}`,
      sections: sections.map((s, k) => ({ ...s, id: idOf(`${name} ${k}`) })),
    })
  })
  const made: World = { bikes: [], units: [], trails: madeTrails }
  const stories: DayStory[] = []
  for (let i = 0; i < largeSize.bikes; i++) {
    const rider = riders[i % largeSize.riders]
    const base = days.find((d) => d.key === (i < largeSize.riders ? 'half-way' : 'mess'))!
    const key = `${rider.name} ${i}`
    const baseBike = bikes.find((b) => b.id === idOf(`${base.bike} bike`))!
    const known = Object.keys(base.start)
    const own = units
      .filter((u) => u.id === baseBike.frontUnitId || u.id === baseBike.rearUnitId)
      .map((u) => clone(u, base.bike, key, known))
    made.units.push(...own)
    made.bikes.push(
      Bike.parse({
        ...baseBike,
        id: idOf(`${key} bike`),
        riderId: rider.id,
        name: i < largeSize.riders ? `${rider.name}’s trail bike` : `${rider.name}’s second bike`,
        frontUnitId: own.find((u) => u.end === 'front')?.id ?? null,
        rearUnitId: own.find((u) => u.end === 'rear')?.id ?? null,
      }),
    )
  }
  for (let k = 0; k < largeSize.days; k++) {
    const i = k % largeSize.bikes
    const rider = riders[i % largeSize.riders]
    const base = days.find((d) => d.key === (i < largeSize.riders ? 'half-way' : 'mess'))!
    const isToday = k >= largeSize.days - largeSize.today
    const from = new Date(`${today}T12:00:00Z`)
    from.setUTCDate(from.getUTCDate() - (isToday ? 0 : 3 * (largeSize.days - largeSize.today - k)))
    const key = `${rider.name} ${i}`
    const trailName = trailNames[k % trailNames.length]
    const trail = madeTrails.find((t) => t.name === trailName)!
    stories.push({
      ...base,
      key: `${key} day ${k}`,
      date: from.toISOString().slice(0, 10),
      rider: rider.name,
      bike: key,
      trail: trailName,
      settled: !isToday && k % 7 !== 0,
      start: rename(base.start, base.bike, key),
      steps: stepsOf(base, key, trail, k),
    })
  }
  return { ...made, riders, days: stories }
}

/** A few runs with one change; the very last day is one of thirty runs. */
function stepsOf(base: DayStory, key: string, trail: Trail, k: number): Step[] {
  const [name, value] = Object.entries(base.start).find(([n]) => n.endsWith('rebound'))!
  const runs = k === largeSize.days - 1 ? 30 : 4
  const steps: Step[] = []
  for (let n = 0; n < runs; n++) {
    if (n === 2) steps.push({ do: 'change', to: { [name.replace(base.bike, key)]: value - 1 }, why: 'Kicks' })
    const clock = `${String(9 + Math.floor(n / 4)).padStart(2, '0')}:${String((n % 4) * 14).padStart(2, '0')}`
    steps.push(
      n === 0
        ? { do: 'run', at: clock, kind: 'warm-up' }
        : {
            do: 'run',
            at: clock,
            rating: 5 + ((k + n) % 6) / 2,
            marks: [{ word: 'kicks', section: trail.sections[n % trail.sections.length].name, end: 'rear' }],
          },
    )
  }
  return steps
}

/** Sends the large world to where `put` leads. */
export async function fillLarge(put: Put, today: string): Promise<void> {
  const world = largeWorld(today)
  for (const r of world.riders) await put(endpoints.putRider, r.id, r)
  for (const u of world.units) await put(endpoints.putUnit, u.id, u)
  for (const b of world.bikes) await put(endpoints.putBike, b.id, b)
  for (const t of world.trails) await put(endpoints.putTrail, t.id, t)
  for (const d of world.days) await fillDay(put, d, undefined, world)
}
