import type { z } from 'zod'
import { endpoints, type Endpoint } from '#contract/endpoints'
import type { RecordingUpload } from '#contract/recording'
import type { Setup } from '#contract/setup'
import type { TrailDay } from '#contract/day'
import { sniffLayout } from '#core/formats/layout'
import { suggestMapping } from '#core/telemetry/mapping'
import { idOf } from './ids.ts'
import { ridingMassKg as massOf } from '#core/spring/load'
import { readBy, withTurns } from '#core/setup/known'
import { rideFile } from './sensors.ts'
import { baselines, gauges, interruptedBench, services, stock } from './workshop.ts'
import { days, type DayStory, type Step } from './days.ts'
import { bikes, riders, trails, units } from './world.ts'

/** Fills a running server with the demo world, through the same addresses the page uses. `tsx demo/fill.ts http://…` */
const base = `${process.argv[2] ?? 'http://127.0.0.1:4870'}/api/v1`

async function send(path: string, body: BodyInit): Promise<void> {
  const response = await fetch(base + path, {
    method: 'PUT',
    body,
    headers: { 'Content-Type': 'application/json' },
  })
  if (!response.ok) throw new Error(`${path}: ${await response.text()}`)
}

function put<B extends z.ZodType>(
  endpoint: Endpoint<z.ZodType, B, z.ZodType>,
  id: string,
  body: z.input<B>,
): Promise<void> {
  return send(endpoint.path.replace(':id', id), JSON.stringify(body))
}

/** What is on each bike so far: every setup follows the one before it. */
const onBike = new Map<string, string>()
const noReason = { proposalId: null, undoes: null, fromSetupId: null }

async function fillDay(story: DayStory): Promise<void> {
  const bike = bikes.find((b) => b.id === idOf(`${story.bike} bike`))!
  const trail = trails.find((t) => t.id === idOf(story.trail))!
  const fitted = units.filter((u) => u.id === bike.frontUnitId || u.id === bike.rearUnitId)
  const parts = new Map(
    fitted.flatMap((u) => u.adjusters.map((part) => [part.id, { part, end: u.end }] as const)),
  )
  const { airTempC, altitudeM } = story.conditions
  const ridingMassKg = massOf(riders.find((r) => r.id === idOf(story.rider))!)
  const dayId = idOf(`day ${story.key}`)
  const instant = (clock: string) => new Date(`${story.date}T${clock}:00`).toISOString()
  let setup: Setup = {
    id: idOf(`${story.key} start`),
    bikeId: bike.id,
    parentId: onBike.get(bike.id) ?? null,
    dayId: null,
    madeAt: instant('08:30'),
    name: null,
    frontUnitId: bike.frontUnitId,
    rearUnitId: bike.rearUnitId,
    positions: Object.entries(story.start).map(([name, value]) => ({
      end: parts.get(idOf(name))!.end,
      adjusterId: idOf(name),
      value,
      known: readBy({ at: instant('08:30'), airTempC, altitudeM, place: trail.place }),
    })),
    reason: { ...noReason, text: 'Read off the bike', source: 'baseline', linked: true },
    foundIn: story.foundIn
      ? {
          altitudeM,
          place: trail.place,
          sagFrontPct: null,
          sagRearPct: null,
          postureFront: 'ready',
          postureRear: 'seated',
          ...story.foundIn,
        }
      : null,
    wanted: false,
  }
  await put(endpoints.putSetup, setup.id, setup)
  const day: TrailDay = {
    id: dayId,
    version: 0,
    date: story.date,
    riderId: idOf(story.rider),
    bikeId: bike.id,
    trailId: trail.id,
    startSetupId: setup.id,
    conditions: story.conditions,
    changeLimit: 8,
    settledSetupId: null,
    purpose: 'testing',
    blind: false,
    judgedAlone: false,
    note: '',
  }
  await put(endpoints.putDay, dayId, day)

  const runIds = new Map<number, string>()
  for (const [i, step] of story.steps.entries()) {
    if (step.do === 'change') {
      const to = new Map(Object.entries(step.to).map(([name, value]) => [idOf(name), value]))
      setup = {
        ...setup,
        id: idOf(`${story.key} setup ${i}`),
        parentId: setup.id,
        dayId,
        madeAt: instant('09:30'),
        positions: withTurns(setup.positions, to, parts, {
          at: instant('09:30'),
          airTempC,
          altitudeM,
          place: trail.place,
        }),
        reason: { ...noReason, text: step.why, source: 'own-idea', linked: step.linked ?? false },
        foundIn: null,
      }
      await put(endpoints.putSetup, setup.id, setup)
    } else runIds.set(i, await fillRun(step, i))
  }
  onBike.set(bike.id, setup.id)
  if (story.settled) await put(endpoints.putDay, dayId, { ...day, version: 1, settledSetupId: setup.id })

  async function fillRun(step: Extract<Step, { do: 'run' }>, i: number): Promise<string> {
    const id = idOf(`${story.key} run ${i}`)
    await put(endpoints.putRun, id, {
      id,
      version: 0,
      dayId,
      setupId: setup.id,
      startedAt: instant(step.at),
      kind: step.kind ?? 'counted',
      voidReason: step.voidReason ?? null,
      durationS: null,
      mind: step.mind ?? 'normal',
      ringFrontMm: step.ringFrontMm ?? null,
      ringRearMm: step.ringRearMm ?? null,
      tyreFrontPsi: 22,
      tyreRearPsi: 25,
      surface: null,
      note: step.note ?? '',
    })
    if (step.rating !== undefined || step.marks) {
      const sectionId = (name: string | null) => trail.sections.find((s) => s.name === name)?.id ?? null
      await put(endpoints.putFeel, id, {
        runId: id,
        version: 0,
        rating: step.rating ?? null,
        note: '',
        marks: (step.marks ?? []).map((m, k) => ({
          id: idOf(`${story.key} mark ${i} ${k}`),
          word: m.word,
          sectionId: sectionId(m.section),
          end: m.end,
          strength: m.strength ?? 2,
        })),
        verdicts: step.against
          ? [{ againstRunId: runIds.get(step.against.step)!, value: step.against.value }]
          : [],
      })
    }
    if (step.sensors) await fillSensors(id, i)
    return id
  }

  async function fillSensors(runId: string, i: number): Promise<void> {
    const text = rideFile(
      { bike, units: fitted, positions: setup.positions, ridingMassKg },
      trail.sections,
      40 + i,
    )
    const bytes = new TextEncoder().encode(text)
    const uploadId = idOf(`${story.key} upload ${i}`)
    await send(`/uploads/${uploadId}`, bytes)
    const meta: RecordingUpload = {
      uploadId,
      again: false,
      runId,
      fileName: `${story.date} run ${i + 1}.csv`,
      mapping: suggestMapping(sniffLayout(bytes)),
      spans: [],
      remember: true,
    }
    await put(endpoints.putRecording, idOf(`${story.key} recording ${i}`), meta)
  }
}

for (const r of riders) await put(endpoints.putRider, r.id, r)
for (const u of units) await put(endpoints.putUnit, u.id, u)
for (const b of bikes) await put(endpoints.putBike, b.id, b)
for (const t of trails) await put(endpoints.putTrail, t.id, t)
for (const d of days) await fillDay(d)
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
