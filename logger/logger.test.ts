import { beforeEach, describe, expect, it } from 'vitest'
import {
  Hold,
  LoggerIdentity,
  LoggerProblem,
  LoggerState,
  StoredRecording,
  type StandInWorld,
} from '#contract/logger'
import { calibrationSteps, judgeHold, mappingFor, stepsFor } from '#core/devices/calibration'
import type { HeldSteps } from '#core/devices/calibrationStep'
import { standInRingMm } from '#core/devices/heldDepthSteps'
import { freshWatch, importFaults, watchFaults, watchSample } from '#core/devices/liveWatch'
import { fork, shock, startPositions } from '#core/test/dayBuilder'
import { sectionOf, trailBike } from '#core/test/simulated'
import { ingestDelimited } from '#core/telemetry/ingest'
import { shaftMm } from '#core/sim/sensors'
import { simBike } from '#core/sim/bike'
import { loggerApp } from './app.ts'
import { StandInLogger } from './device.ts'

const world: StandInWorld = {
  bike: trailBike,
  units: [fork, shock],
  positions: Object.entries(startPositions).map(([adjusterId, value]) => ({
    end: fork.adjusters.some((a) => a.id === adjusterId) ? ('front' as const) : ('rear' as const),
    adjusterId,
    value,
  })),
  ridingMassKg: 80,
  sections: [sectionOf('roots', 80), sectionOf('jump', 90), sectionOf('smooth', 40)],
  groundSeed: 3,
  runSeed: 4,
}
/** The same with ids as the protocol wants them. */
const names = new Map<string, string>()
const idKeys = new Set(['id', 'riderId', 'frontUnitId', 'rearUnitId', 'adjusterId'])
const sent = JSON.stringify(world, (key, value: unknown) => {
  if (typeof value !== 'string' || !idKeys.has(key)) return value
  if (!names.has(value)) names.set(value, crypto.randomUUID())
  return names.get(value)
})
const stroke = { front: 150, rear: 55 }
const geometry = { frontTravelMm: 150, rearStrokeMm: 55, leverage: null }
let now = 0
const device = (kind: LoggerIdentity['kind']) => {
  const d = new StandInLogger(kind, () => now, 10)
  d.mount(world)
  return d
}
beforeEach(() => void (now = 1000))

/** All measured steps, with the hands doing what each asks for. */
function calibrate(d: StandInLogger): HeldSteps {
  const held: HeldSteps = {}
  for (const s of calibrationSteps[d.kind]) {
    d.setHands(s.hands)
    now += 1000
    if (s.holdSeconds > 0) held[s.key] = Hold.parse(d.hold(s.holdSeconds))
  }
  return held
}
function ride(d: StandInLogger, seconds = 1000): { text: string; stored: StoredRecording } {
  d.start()
  now += (seconds / 10) * 1000
  const stored = StoredRecording.parse(d.stop())
  return { text: d.file(stored.id), stored }
}
const read = (d: StandInLogger, text: string, held: HeldSteps) =>
  ingestDelimited(new TextEncoder().encode(text), mappingFor(d.identity(), held, stroke)!, geometry)

describe.each(['chamber-pressure', 'travel'] as const)('a %s logger', (kind) => {
  it('tells who it is and how it is, in the words of the protocol', () => {
    const d = device(kind)
    expect(LoggerIdentity.parse(d.identity()).kind).toBe(kind)
    expect(LoggerState.parse(d.state()).recording).toBeNull()
  })
  it('calibrates step by step, and its ride is read as the simulator rode it', () => {
    const d = device(kind)
    const held = calibrate(d)
    for (const s of calibrationSteps[kind])
      if (s.holdSeconds > 0) expect(judgeHold(s.key, d.identity(), held), s.key).toMatchObject({ ok: true })
    const { text } = ride(d)
    const r = read(d, text, held)
    // A chamber is never read to the millimetre, and says so.
    if (kind === 'travel') expect(r.issues).toEqual([])
    else
      for (const i of r.issues)
        expect(i).toMatchObject({ code: 'pressure-unsure', message: expect.stringContaining('± 2 %') })
    expect(r.ends).toEqual(['front', 'rear'])
    expect(r.distanceM).not.toBeNull()
    expect(r.barG).not.toBeNull()
    // Depth at rest before the lift ends, and a deep landing later on.
    expect(Math.abs(r.depthPct.front![100])).toBeLessThan(3)
    expect(Math.max(...r.depthPct.rear!.filter(Number.isFinite))).toBeGreaterThan(60)
  })
  it('stops by itself at the end of the trail, and can be stopped before', () => {
    const d = device(kind)
    const whole = ride(d).stored
    const part = ride(d, 8).stored
    expect(part.seconds).toBeCloseTo(8, 0)
    expect(whole.seconds).toBeGreaterThan(20)
    d.start()
    now += 100_000
    expect(d.state().recording).toMatchObject({ finished: true })
    expect(d.list()).toHaveLength(2)
  })
})

describe('a chamber calibrated as it is ridden', () => {
  const steps = stepsFor('chamber-pressure', 'held')
  const calibrateHeld = (d: StandInLogger, misread = 0): HeldSteps => {
    const held: HeldSteps = {}
    for (const s of steps) {
      d.hands = s.hands
      now += 1000 * s.holdSeconds
      const ringMm = s.hands.depthPct
        ? { front: standInRingMm(s, stroke.front), rear: standInRingMm(s, stroke.rear) }
        : undefined
      if (ringMm && s.key === 'deep-2') ringMm.front += misread
      held[s.key] = { ...d.hold(s.holdSeconds), ringMm }
    }
    return held
  }
  it('reads a ride as the emptied way does, to what it says of itself', () => {
    const d = device('chamber-pressure')
    const emptied = calibrate(d)
    const held = calibrateHeld(d)
    for (const s of steps)
      expect(judgeHold(s.key, d.identity(), held, stroke), s.key).toMatchObject({ ok: true })
    expect(judgeHold('deep-3', d.identity(), held, stroke).words).toMatch(/compression ratio [\d.]+ ± 0\.\d/)
    const { text } = ride(d)
    const byDepths = ingestDelimited(
      new TextEncoder().encode(text),
      mappingFor(d.identity(), held, stroke, 'held')!,
      geometry,
    )
    const byEmptied = read(d, text, emptied)
    for (const end of ['front', 'rear'] as const) {
      const told = byDepths.issues.find((i) => i.message.includes(`${end} pressure`))
      const pct = told ? Number(/± (\d+) %/.exec(told.message)![1]) : 1.5
      const [a, b] = [byDepths.depthPct[end]!, byEmptied.depthPct[end]!]
      let squares = 0
      for (let i = 0; i < a.length; i++) squares += (a[i] - b[i]) ** 2
      expect(Math.sqrt(squares / a.length), end).toBeLessThan(pct)
    }
  })
  it('takes no depth that nobody has read, none beyond the unit, and none that was misread', () => {
    const d = device('chamber-pressure')
    const held = calibrateHeld(d)
    const judged = (h: HeldSteps, key: 'deep-1' | 'deep-3') => judgeHold(key, d.identity(), h, stroke)
    const unread = { ...held, 'deep-1': { ...held['deep-1']!, ringMm: undefined } }
    expect(judged(unread, 'deep-1')).toMatchObject({
      ok: false,
      words: expect.stringContaining('front ring'),
    })
    expect(mappingFor(d.identity(), unread, stroke, 'held')).toBeNull()
    const beyond = { ...held, 'deep-1': { ...held['deep-1']!, ringMm: { front: 400, rear: 12 } } }
    expect(judged(beyond, 'deep-1').ok).toBe(false)
    expect(judged(calibrateHeld(d, 25), 'deep-3')).toMatchObject({
      ok: false,
      words: expect.stringContaining('off the line'),
    })
  })
})

describe('faults that it was told to show', () => {
  const withFault = (kind: LoggerIdentity['kind'], fault: keyof StandInLogger['faults']) => {
    const d = device(kind)
    d.faults = { ...d.faults, [fault]: true }
    return d
  }
  it('a leaking adapter is named at the baseline, and again in the file', () => {
    const d = withFault('chamber-pressure', 'leakingAdapter')
    const held = calibrate(d)
    expect(judgeHold('baseline', d.identity(), held)).toMatchObject({ ok: false, fault: 'leak' })
    const sound = calibrate(device('chamber-pressure'))
    const codes = read(d, ride(d).text, sound).issues.map((i) => i.code)
    expect(importFaults(codes)).toContain('leak')
  })
  it('a range too small is named at the compressed hold or in the file', () => {
    const p = withFault('chamber-pressure', 'wrongRange')
    const sound = calibrate(device('chamber-pressure'))
    expect(importFaults(read(p, ride(p).text, sound).issues.map((i) => i.code))).toContain('range')
    const t = withFault('travel', 'wrongRange')
    expect(judgeHold('compressed', t.identity(), calibrate(t))).toMatchObject({ ok: false, fault: 'range' })
    expect(
      importFaults(read(t, ride(t).text, calibrate(device('travel'))).issues.map((i) => i.code)),
    ).toContain('range')
  })
  it('drop-outs leave gaps in the file, and silence in the live stream', () => {
    const d = withFault('travel', 'dropOuts')
    const held = calibrate(d)
    const codes = read(d, ride(d).text, held).issues.map((i) => i.code)
    expect(importFaults(codes)).toEqual(['drop-outs'])
    let w = freshWatch()
    for (now = 0; now < 14_000; now += 100) {
      const s = d.live()
      if (s) w = watchSample(w, s, now, d.identity().channels, 10)
    }
    expect(watchFaults(w, d.state())).toEqual(['drop-outs'])
  })
  it('a clock that jumps is named live and in the file, and no hour is invented', () => {
    const d = withFault('travel', 'clockJump')
    const held = calibrate(d)
    const r = read(d, ride(d).text, held)
    expect(importFaults(r.issues.map((i) => i.code))).toEqual(['clock-jump'])
    expect(r.samples / r.sampleRateHz).toBeLessThan(120)
    let w = freshWatch()
    for (now = 0; now < 14_000; now += 100) w = watchSample(w, d.live()!, now, d.identity().channels, 10)
    expect(watchFaults(w, d.state())).toEqual(['clock-jump'])
  })
  it('a flat battery refuses to start, and breaks a running one off', () => {
    const d = device('travel')
    d.start()
    now += 1000
    d.faults = { ...d.faults, flatBattery: true }
    expect(d.stop()).toMatchObject({ complete: false })
    expect(() => d.start()).toThrow(/4 %/)
    expect(watchFaults(freshWatch(), d.state())).toEqual(['battery'])
  })
  it('a sound device shows none of them', () => {
    const d = device('travel')
    d.setHands({ pose: 'standing', air: 'filled' })
    let w = freshWatch()
    for (now = 0; now < 10_000; now += 100) w = watchSample(w, d.live()!, now, d.identity().channels, 10)
    expect(watchFaults(w, d.state())).toEqual([])
  })
})

describe('holds that cannot be used', () => {
  it('say what was wrong with them', () => {
    const d = device('travel')
    const held = calibrate(d)
    const swap = { ...held, compressed: held.extended }
    expect(judgeHold('compressed', d.identity(), swap)).toMatchObject({ ok: false, fault: 'stuck' })
    const shaky = structuredClone(held)
    shaky.extended!.channels.front_raw.sd = 200
    expect(judgeHold('extended', d.identity(), shaky).words).toMatch(/keep the bike still/)
    expect(judgeHold('baseline', d.identity(), {}).ok).toBe(false)
    expect(mappingFor(d.identity(), {}, stroke)).toBeNull()
    const silent = structuredClone(held)
    delete silent.extended!.channels.rear_raw
    expect(judgeHold('extended', d.identity(), silent)).toMatchObject({ ok: false, fault: 'stuck' })
  })
  it('air left in the chamber hides the ratio', () => {
    const d = device('chamber-pressure')
    d.setHands({ pose: 'extended', air: 'let-out' })
    const extended = d.hold(5)
    expect(judgeHold('compressed', d.identity(), { extended, compressed: extended }).words).toMatch(
      /hardly grew/,
    )
  })
})

describe('over HTTP', () => {
  it('speaks the protocol, and answers mistakes with a sentence', async () => {
    const d = device('travel')
    const app = loggerApp(d)
    const ask = async (method: string, path: string, body?: unknown) => {
      const r = await app.request(path, {
        method,
        body: body === undefined ? undefined : JSON.stringify(body),
      })
      const text = await r.text()
      return {
        status: r.status,
        body: text.startsWith('{') || text.startsWith('[') ? JSON.parse(text) : text,
      }
    }
    expect((await ask('GET', '/v1/identity')).body.protocol).toBe('wild-spring-logger/1')
    expect((await ask('POST', '/v1/recording/stop')).status).toBe(409)
    const { id } = (await ask('POST', '/v1/recording/start')).body
    expect(LoggerProblem.parse((await ask('POST', '/v1/recording/start')).body).code).toBe('logger.busy')
    expect((await ask('PUT', '/stand-in/world', JSON.parse(sent))).status).toBe(409)
    now += 2000
    expect((await ask('POST', '/v1/recording/stop')).body.id).toBe(id)
    expect((await ask('GET', '/v1/recordings')).body).toHaveLength(1)
    expect((await ask('GET', `/v1/recordings/${id}`)).body).toMatch(/^time_ms,front_raw/)
    expect((await ask('DELETE', `/v1/recordings/${id}`)).status).toBe(200)
    expect((await ask('GET', `/v1/recordings/${id}`)).status).toBe(404)
    const bad = LoggerProblem.parse((await ask('POST', '/v1/hold', { seconds: 99 })).body)
    expect([bad.code, bad.status]).toEqual(['logger.request-invalid', 422])
    expect(bad.detail).toMatch(/seconds/)
    expect(LoggerProblem.parse((await ask('GET', '/v1/nothing')).body).code).toBe('logger.no-address')
    expect((await ask('PUT', '/stand-in/faults', { leak: 1 })).status).toBe(422)
    expect((await ask('GET', '/v1/nothing')).status).toBe(404)
  })
})

it('the pressure file holds what the chamber would read', () => {
  const d = device('chamber-pressure')
  const held = calibrate(d)
  const { text } = ride(d)
  const r = read(d, text, held)
  const sim = simBike(world.bike, world.units, world.positions, world.ridingMassKg)
  expect(shaftMm(sim, { front: new Float64Array([0.5]) } as never, 'front')[0]).toBe(75)
  // Ride height of both loggers on the same kind of ride agrees within two per cent of travel.
  const t = device('travel')
  const travel = read(t, ride(t).text, calibrate(t))
  const mean = (x: Float64Array) => x.filter(Number.isFinite).reduce((s, v) => s + v, 0) / x.length
  expect(Math.abs(mean(r.depthPct.front!) - mean(travel.depthPct.front!))).toBeLessThan(2)
  expect(Math.abs(mean(r.depthPct.rear!) - mean(travel.depthPct.rear!))).toBeLessThan(2)
})
