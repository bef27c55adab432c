import type { z } from 'zod'
import type { Bike } from '#contract/bike'
import type { SuspensionUnit } from '#contract/unit'
import type { Trail } from '#contract/trail'
import { endpoints, type Endpoint } from '#contract/endpoints'
import type { Setup } from '#contract/setup'
import type { TrailDay } from '#contract/day'
import { readBy, withTurns } from '#core/setup/known'
import { idOf } from './ids.ts'
import type { DayStory, Step } from './days.ts'
import * as small from './world.ts'

/** Keeps one record: over HTTP, or in a list. */
export type Put = <B extends z.ZodType>(
  endpoint: Endpoint<z.ZodType, B, z.ZodType>,
  id: string,
  body: z.input<B>,
) => Promise<void>

/** The records a story is told on. */
export interface World {
  bikes: Bike[]
  units: SuspensionUnit[]
  trails: Trail[]
}

/** A run that sensors rode along on. */
export interface SensedRun {
  story: DayStory
  step: number
  runId: string
  setup: Setup
}

/** What is on each bike so far: every setup follows the one before it. */
const onBike = new Map<string, string>()
const noReason = { proposalId: null, undoes: null, fromSetupId: null }

/**
 * Tells one day's story as records.
 * @param sensed what is done with a run that sensors rode along on
 * @returns the setup the day ended on
 */
export async function fillDay(
  put: Put,
  story: DayStory,
  sensed: (run: SensedRun) => Promise<void> = async () => undefined,
  { bikes, trails, units }: World = small,
): Promise<{ id: string; trailId: string }> {
  const bike = bikes.find((b) => b.id === idOf(`${story.bike} bike`))!
  const trail = trails.find((t) => t.id === idOf(story.trail))!
  const fitted = units.filter((u) => u.id === bike.frontUnitId || u.id === bike.rearUnitId)
  const parts = new Map(
    fitted.flatMap((u) => u.adjusters.map((part) => [part.id, { part, end: u.end }] as const)),
  )
  const { airTempC, altitudeM } = story.conditions
  const dayId = idOf(`day ${story.key}`)
  const readAt = story.readAt ?? '08:30'
  const instant = (clock: string) => new Date(`${story.date}T${clock}:00`).toISOString()
  let setup: Setup = {
    id: idOf(`${story.key} start`),
    bikeId: bike.id,
    parentId: onBike.get(bike.id) ?? null,
    dayId: null,
    madeAt: instant(readAt),
    name: null,
    frontUnitId: bike.frontUnitId,
    rearUnitId: bike.rearUnitId,
    positions: Object.entries(story.start).map(([name, value]) => ({
      end: parts.get(idOf(name))!.end,
      adjusterId: idOf(name),
      value,
      known: readBy({ at: instant(readAt), airTempC, altitudeM, place: trail.place }),
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
    plans: [],
    hours: (story.later ?? []).map(({ at, airTempC }) => ({
      id: idOf(`day ${story.key} hour ${at}`),
      at: instant(at),
      airTempC,
      altitudeM: null,
      surface: null,
      track: [],
      note: '',
    })),
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
      const turnedAt = step.at ?? '09:30'
      const to = new Map(Object.entries(step.to).map(([name, value]) => [idOf(name), value]))
      setup = {
        ...setup,
        id: idOf(`${story.key} setup ${i}`),
        parentId: setup.id,
        dayId,
        madeAt: instant(turnedAt),
        positions: withTurns(setup.positions, to, parts, {
          at: instant(turnedAt),
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
  return { id: setup.id, trailId: trail.id }

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
    if (step.sensors) await sensed({ story, step: i, runId: id, setup })
    return id
  }
}
