import { endpoints } from '#contract/endpoints'
import type { RecordingUpload } from '#contract/recording'
import { sniffLayout } from '#core/formats/layout'
import { suggestMapping } from '#core/telemetry/mapping'
import { idOf } from './ids.ts'
import { ridingMassKg as massOf } from '#core/spring/load'
import { readBy } from '#core/setup/known'
import { fillLarge } from './large.ts'
import { fillDay, type SensedRun } from './fillDay.ts'
import { sender } from './send.ts'
import { rideFile } from './sensors.ts'
import { baselines, gauges, interruptedBench, services, stock } from './workshop.ts'
import { days } from './days.ts'
import { fillTent } from './tent/fill.ts'
import { fillSeasons } from './seasons/fill.ts'
import { bikes, riders, trails, units } from './world.ts'

/** Fills a running server with the demo world, through the same addresses the page uses. `tsx demo/fill.ts http://…` */
const { send, put } = sender(process.argv[2] ?? 'http://127.0.0.1:4870')

async function fillSensors({ story, step, runId, setup }: SensedRun): Promise<void> {
  const bike = bikes.find((b) => b.id === setup.bikeId)!
  const text = rideFile(
    {
      bike,
      units: units.filter((u) => u.id === bike.frontUnitId || u.id === bike.rearUnitId),
      positions: setup.positions,
      ridingMassKg: massOf(riders.find((r) => r.id === idOf(story.rider))!),
    },
    trails.find((t) => t.id === idOf(story.trail))!.sections,
    40 + step,
  )
  const bytes = new TextEncoder().encode(text)
  const uploadId = idOf(`${story.key} upload ${step}`)
  await send(`/uploads/${uploadId}`, bytes)
  const meta: RecordingUpload = {
    uploadId,
    again: false,
    runId,
    fileName: `${story.date} run ${step + 1}.csv`,
    mapping: suggestMapping(sniffLayout(bytes)),
    spans: [],
    remember: true,
  }
  await put(endpoints.putRecording, idOf(`${story.key} recording ${step}`), meta)
}

if (process.argv.includes('--large')) {
  await fillLarge(put, new Date().toISOString().slice(0, 10))
  process.exit(0)
}
for (const r of riders) await put(endpoints.putRider, r.id, r)
for (const u of units) await put(endpoints.putUnit, u.id, u)
for (const b of bikes) await put(endpoints.putBike, b.id, b)
for (const t of trails) await put(endpoints.putTrail, t.id, t)
for (const d of days) await fillDay(put, d, fillSensors)
await fillSeasons(put)
await fillTent(put, new Date())
for (const g of gauges) await put(endpoints.putGauge, g.id, g)
for (const s of stock) await put(endpoints.putStockItem, s.id, s)
for (const s of services) await put(endpoints.putService, s.id, s)
for (const b of baselines) await put(endpoints.putBaseline, b.id, b)
const joren = bikes.find((b) => b.id === idOf('joren bike'))!
const jorenDay = days.find((d) => d.bike === 'joren')!
const held = jorenDay.start
const bench = interruptedBench(
  units
    .filter((u) => u.id === joren.frontUnitId || u.id === joren.rearUnitId)
    .flatMap((u) =>
      u.adjusters.map((a) => ({
        end: u.end,
        adjusterId: a.id,
        value: Object.entries(held).find(([name]) => idOf(name) === a.id)?.[1] ?? 0,
        known: readBy({ at: `${jorenDay.date}T08:30:00.000Z` }),
      })),
    ),
)
await put(endpoints.putBench, bench.id, bench)
