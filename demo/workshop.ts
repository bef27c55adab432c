import { Baseline } from '#contract/baseline'
import { Bench, type SagReading } from '#contract/bench'
import { Gauge, ServiceEntry, StockItem } from '#contract/care'
import type { End } from '#contract/common'
import { benchFacts, basisOf } from '#core/bench/steps'
import { equalisedKey } from '#core/bench/evidence'
import { setBy } from '#core/setup/known'
import { ridingMassKg } from '#core/spring/load'
import { idOf } from './ids.ts'
import { bikes, riders, units } from './world.ts'

// What lies around in the invented workshop: pumps, spacers, a log, recommended starts, a bench that was interrupted.

export const gauges = Gauge.array().parse([
  { id: idOf('black pump'), version: 0, name: 'black pump', readsHighPsi: 4, hoseCc: 4, note: '' },
  {
    id: idOf('digital gauge'),
    version: 0,
    name: 'digital gauge',
    readsHighPsi: 0,
    hoseCc: 2,
    note: 'the one we trust',
  },
])

export const stock = StockItem.array().parse([
  {
    id: idOf('grey spacers'),
    version: 0,
    kind: 'spacer',
    name: 'grey fork spacers',
    count: 2,
    unitId: idOf('ilka fork'),
    note: '',
  },
  {
    id: idOf('yellow spring'),
    version: 0,
    kind: 'spring',
    name: 'yellow spring',
    count: 1,
    rateNPerMm: 78.8,
    strokeMm: 65,
    ratePoints: null,
    ownerId: idOf('tarek'),
    note: 'from the old bike',
  },
])

const entry = (key: string, over: object) => ({
  id: idOf(`service ${key}`),
  version: 0,
  bikeId: idOf('ilka bike'),
  unitId: null,
  airTempC: null,
  altitudeM: null,
  place: '',
  note: '',
  ...over,
})
export const services = ServiceEntry.array().parse([
  entry('fork', {
    kind: 'small-service',
    unitId: idOf('ilka fork'),
    date: '2026-05-09',
    note: 'new oil and foam',
  }),
  entry('shock', { kind: 'seals', unitId: idOf('ilka shock'), date: '2026-05-09' }),
])

export const baselines = Baseline.array().parse([
  {
    id: idOf('start unit maker'),
    version: 0,
    bikeId: idOf('ilka bike'),
    name: 'leaflets of fork and shock',
    source: 'unit-maker',
    asOf: '2026-02-20',
    sagFrontPct: 20,
    sagRearPct: 30,
    positions: [
      { end: 'front', adjusterId: idOf('ilka fork psi'), value: 74 },
      { end: 'front', adjusterId: idOf('ilka fork rebound'), value: 5 },
      { end: 'rear', adjusterId: idOf('ilka shock psi'), value: 165 },
      { end: 'rear', adjusterId: idOf('ilka shock rebound'), value: 6 },
    ],
    note: '',
  },
  {
    id: idOf('advice calm'),
    version: 0,
    bikeId: idOf('ilka bike'),
    name: 'pocket analyser',
    source: 'device',
    asOf: '2026-10-11',
    sagFrontPct: 20,
    sagRearPct: null,
    countedFrom: 'open',
    positions: [
      { end: 'front', adjusterId: idOf('ilka fork psi'), value: 76 },
      { end: 'front', adjusterId: idOf('ilka fork lsc'), value: 10 },
      { end: 'rear', adjusterId: idOf('ilka shock rebound'), value: 10 },
    ],
    notHere: [{ end: 'front', role: 'high-speed-compression', says: '3 from open' }],
    score: { value: 71, style: 'calm' },
    note: '',
  },
  {
    id: idOf('start frame maker'),
    version: 0,
    bikeId: idOf('ilka bike'),
    name: 'frame booklet',
    source: 'frame-maker',
    asOf: '2025-09-01',
    sagFrontPct: null,
    sagRearPct: 27,
    positions: [
      { end: 'rear', adjusterId: idOf('ilka shock psi'), value: 186 },
      { end: 'rear', adjusterId: idOf('ilka shock rebound'), value: 9 },
    ],
    note: '',
  },
])

const startedAt = '2026-11-14T09:00:00.000Z'
const minutes = (n: number) => new Date(Date.parse(startedAt) + n * 60_000).toISOString()
const reading = (key: string, end: End, sagMm: number, pressurePsi: number, after: number): SagReading => ({
  id: idOf(`reading ${key}`),
  end,
  at: minutes(after),
  method: 'ring',
  posture: end === 'front' ? 'ready' : 'seated',
  together: false,
  sagMm,
  pressurePsi,
  springRateNPerMm: null,
  preloadTurns: null,
  spacers: 0,
  gaugeId: idOf('black pump'),
  marks: [],
  leftOut: false,
})

/** A bench on the small bike that was broken off: the rear was set, then its pressure was changed again. */
export function interruptedBench(positions: Bench['positions']): Bench {
  const bike = bikes.find((b) => b.id === idOf('joren bike'))!
  const rider = riders.find((r) => r.id === bike.riderId)!
  const fitted = units.filter((u) => u.id === bike.frontUnitId || u.id === bike.rearUnitId)
  const mass = ridingMassKg(rider)
  const withPsi = (psi: number) =>
    positions.map((p) =>
      p.adjusterId === idOf('joren shock psi')
        ? { ...p, value: psi, known: setBy({ at: minutes(15), gaugeId: idOf('black pump') }) }
        : p.adjusterId === idOf('joren fork psi')
          ? { ...p, known: setBy({ at: minutes(6), gaugeId: idOf('black pump') }) }
          : p,
    )
  const bench = Bench.parse({
    id: idOf('joren bench'),
    version: 0,
    bikeId: bike.id,
    startedAt,
    orderSchool: 'sag-rebound-volume',
    equaliseSchool: 'every-50',
    spacerSchool: 'as-delivered',
    posture: { front: 'ready', rear: 'seated' },
    airTempC: 16,
    altitudeM: 420,
    place: 'Fernhollow',
    airSaidAt: startedAt,
    airSaidEach: null,
    gaugeId: { front: idOf('black pump'), rear: idOf('black pump') },
    positions: withPsi(190),
    checks: [
      'sound',
      'full-travel',
      'levers-open',
      'compression-open',
      'rebound-noted',
      'ring',
      'shock-pump',
      'kit-on',
      equalisedKey('front'),
      equalisedKey('rear'),
    ],
    readings: [
      reading('a', 'rear', 16.5, 165, 8),
      reading('b', 'rear', 13.5, 182, 11),
      reading('c', 'rear', 14, 182, 13),
      reading('d', 'front', 20, 92, 16),
    ],
    reboundTests: [],
    travelReadings: [],
    steps: [],
    finishedSetupId: null,
    note: '',
  })
  const facts = benchFacts({ ...bench, positions: withPsi(182) }, fitted, mass)
  const done = (['who', 'prepare', 'start', 'equalise', 'sag-rear'] as const).map((step, i) => ({
    step,
    state: 'done' as const,
    at: minutes(2 + 3 * i),
    reason: '',
    basis: basisOf(step, facts),
  }))
  return { ...bench, steps: done }
}
