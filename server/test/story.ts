import { v7 as uuid } from 'uuid'
import type { Bike } from '#contract/bike'
import type { TrailDay } from '#contract/day'
import type { RecordingUpload } from '#contract/recording'
import type { Rider } from '#contract/rider'
import type { Feel, Run } from '#contract/run'
import type { Setup } from '#contract/setup'
import type { Trail } from '#contract/trail'
import type { SuspensionUnit } from '#contract/unit'
import { setBy } from '#core/setup/known'
import { nothingNoted } from '#core/setup/nothingNoted'

/** Whoever carries a request to a server: an app in memory, or a real one over a socket. */
interface Speaker<Answer extends { status: number }> {
  put: (path: string, body: unknown) => Promise<Answer>
  send: (method: string, path: string, body?: unknown, headers?: Record<string, string>) => Promise<Answer>
}

export const makeReason = (
  source: Setup['reason']['source'],
  over: Partial<Setup['reason']> = {},
): Setup['reason'] => ({
  text: '',
  source,
  linked: false,
  proposalId: null,
  undoes: null,
  fromSetupId: null,
  ...over,
})

export const makeRider = (over: Partial<Rider> = {}): Rider => ({
  id: uuid(),
  version: 0,
  name: 'Ilka',
  bodyMassKg: 68,
  kitMassKg: 5,
  waterL: 0,
  level: 'advanced',
  taste: 'neutral',
  assumed: [],
  note: '',
  ...over,
})

export function makeUnit(end: 'front' | 'rear', over: Partial<SuspensionUnit> = {}): SuspensionUnit {
  const base = { alias: null, tool: 'hand' as const }
  return {
    id: uuid(),
    version: 0,
    name: end === 'front' ? '150 mm air fork' : '55 mm air shock',
    end,
    spring: 'air',
    strokeMm: end === 'front' ? 150 : 55,
    sagTargetPct: end === 'front' ? 20 : 30,
    revalved: false,
    revalvedOn: null,
    ownerId: null,
    loan: null,
    idNote: '',
    airSpring: null,
    preloadPitchMm: 1.5,
    serviceEveryDays: null,
    assumed: [],
    charts: [],
    note: '',
    adjusters: [
      {
        ...base,
        id: uuid(),
        kind: 'pressure',
        role: 'main-pressure',
        tool: 'shock-pump',
        minPsi: 40,
        maxPsi: 300,
        stepPsi: 1,
      },
      { ...base, id: uuid(), kind: 'click', role: 'rebound', clicks: 12, step: 1, countBase: 'closed-0' },
    ],
    ...over,
  }
}

export const makeTrail = (over: Partial<Trail> = {}): Trail => ({
  id: uuid(),
  version: 0,
  name: 'Larch Bank',
  place: 'Fernhollow',
  gates: [],
  note: '',
  sections: [
    { id: uuid(), name: 'Roots', kind: 'roots', lengthM: 100, severity: 1 },
    { id: uuid(), name: 'Berms', kind: 'berms', lengthM: 100, severity: 1 },
  ],
  ...over,
})

export function makeSetup(bike: Bike, units: SuspensionUnit[], over: Partial<Setup> = {}): Setup {
  return {
    id: uuid(),
    bikeId: bike.id,
    parentId: null,
    dayId: null,
    madeAt: '2031-05-02T08:00:00.000Z',
    name: null,
    frontUnitId: bike.frontUnitId,
    rearUnitId: bike.rearUnitId,
    positions: units.flatMap((u) =>
      u.adjusters.map((a) => ({
        end: u.end,
        adjusterId: a.id,
        value: a.kind === 'pressure' ? 80 : 6,
        known: setBy({ at: '2026-05-02T08:00:00.000Z' }),
      })),
    ),
    reason: makeReason('baseline'),
    foundIn: null,
    wanted: false,
    ...over,
  }
}

export const makeRun = (day: TrailDay, setupId: string, over: Partial<Run> = {}): Run => ({
  id: uuid(),
  version: 0,
  dayId: day.id,
  setupId,
  startedAt: '2031-05-02T09:00:00.000Z',
  kind: 'counted',
  ...nothingNoted,
  ...over,
})

/** Rider, bike, trail, baseline setup, a day and one run, all saved. */
export const makeFeel = (runId: string, over: Partial<Feel> = {}): Feel => ({
  runId,
  version: 0,
  rating: 6,
  marks: [],
  verdicts: [],
  answers: [],
  note: '',
  ...over,
})

export async function startStory(t: Pick<Speaker<{ status: number }>, 'put'>) {
  const rider = makeRider()
  const front = makeUnit('front')
  const rear = makeUnit('rear')
  const bike: Bike = {
    id: uuid(),
    version: 0,
    riderId: rider.id,
    name: 'Trail bike',
    eBike: false,
    kind: 'trail',
    massKg: null,
    leverageCurve: null,
    tyres: {
      front: { name: '', widthMm: null, pressurePsi: null },
      rear: { name: '', widthMm: null, pressurePsi: null },
    },
    frontShareSeatedPct: null,
    frontShareReadyPct: null,
    frontUnitId: front.id,
    rearUnitId: rear.id,
    rearWheelTravelMm: 145,
    leverageStart: 2.9,
    leverageEnd: 2.4,
    currentSetupId: null,
    assumed: [],
    note: '',
  }
  const trail = makeTrail()
  const setup = makeSetup(bike, [front, rear])
  const day: TrailDay = {
    id: uuid(),
    version: 0,
    date: '2031-05-02',
    riderId: rider.id,
    bikeId: bike.id,
    trailId: trail.id,
    startSetupId: setup.id,
    conditions: { airTempC: 14, altitudeM: 420, surface: 'damp' },
    hours: [],
    plans: [],
    changeLimit: 8,
    settledSetupId: null,
    purpose: 'testing',
    blind: false,
    judgedAlone: false,
    note: '',
  }
  const run = makeRun(day, setup.id)
  const saved = [
    await t.put(`/riders/${rider.id}`, rider),
    await t.put(`/units/${front.id}`, front),
    await t.put(`/units/${rear.id}`, rear),
    await t.put(`/bikes/${bike.id}`, bike),
    await t.put(`/trails/${trail.id}`, trail),
    await t.put(`/setups/${setup.id}`, setup),
    await t.put(`/days/${day.id}`, day),
    await t.put(`/runs/${run.id}`, run),
  ]
  return { rider, front, rear, bike, trail, setup, day, run, statuses: saved.map((s) => s.status) }
}

/** A small sensor file that needs no mapping by hand, and its upload description. */
export function makeFile(rows = 2000) {
  const lines = ['time [ms];front [mm];rear [mm]']
  for (let i = 0; i < rows; i++)
    lines.push(
      `${i * 2};${(30 + 20 * Math.sin(i / 40)).toFixed(2).replace('.', ',')};${(15 + 6 * Math.sin(i / 40)).toFixed(2).replace('.', ',')}`,
    )
  return lines.join('\r\n') + '\r\n'
}

export const makeUpload = (runId: string, over: Partial<RecordingUpload> = {}): RecordingUpload => ({
  uploadId: uuid(),
  again: false,
  runId,
  fileName: 'run 1.csv',
  spans: [],
  remember: true,
  mapping: {
    delimiter: ';',
    decimal: ',',
    sampleRateHz: null,
    columns: [
      { column: 0, role: 'time', unit: 'ms', calibration: null },
      { column: 1, role: 'front-travel', unit: 'mm', calibration: null },
      { column: 2, role: 'rear-travel', unit: 'mm', calibration: null },
    ],
  },
  ...over,
})

/** Sends a file as the page does: its bytes first, then what they are. */
export async function importFile<Answer extends { status: number }>(
  t: Speaker<Answer>,
  id: string,
  upload: RecordingUpload,
  bytes: string | Uint8Array<ArrayBuffer> = makeFile(),
) {
  const sent = await t.send('PUT', `/uploads/${upload.uploadId}`, bytes, {
    'content-type': 'application/octet-stream',
  })
  return sent.status === 200 ? t.put(`/recordings/${id}`, upload) : sent
}
