import type { End } from '#contract/common'
import type {
  Hold,
  LiveSample,
  LoggerChannel,
  LoggerCode,
  LoggerFaults,
  LoggerIdentity,
  LoggerState,
  StandInHands,
  StandInWorld,
  StoredRecording,
} from '#contract/logger'
import { loggerProtocol } from '#contract/logger'
import { chamberShare, seaLevelPa } from '#core/spring/air'
import { unitAir } from '#core/spring/unitSpring'
import { paPerPsi } from '#core/units/convert'
import { simBike, type SimBike } from '#core/sim/bike'
import { normalFrom, seededRandom } from '#core/numeric/random'
import { rideTrail } from '#core/sim/ride'
import { accelerationReading, chamberPsi, gpsFixes, pressureReading, shaftMm } from '#core/sim/sensors'
import type { Ride } from '#core/sim/halfCar'

const rateHz = { 'chamber-pressure': 200, travel: 500 } as const
/** The bike hangs so long before and after a ride: what tells the baseline from a drift. */
const liftS = 3
const ambientPsi = seaLevelPa / paPerPsi
/** Raw counts of a travel sensor: 12 bits over a little more than the stroke, counting down. */
const counts = { extended: 3700, compressed: 410, most: 4095 } as const
const fixHz = 5

/** A problem the device answers with. */
export class DeviceError extends Error {
  constructor(
    readonly code: LoggerCode,
    message: string,
  ) {
    super(message)
  }
}

interface Stored extends StoredRecording {
  text: string
}
interface Running {
  id: string
  startedMs: number
  ride: Ride
  lines: string[]
}

/** A logger that rides simulated trails. Its clock is handed in; it runs `pace` times as fast while it rides. */
export class StandInLogger {
  faults: LoggerFaults = {
    leakingAdapter: false,
    dropOuts: false,
    clockJump: false,
    flatBattery: false,
    wrongRange: false,
  }
  hands: StandInHands = { pose: 'standing', air: 'filled' }
  private world: StandInWorld | null = null
  private bike: SimBike | null = null
  private running: Running | null = null
  private stored: Stored[] = []
  private made = 0
  private random = seededRandom(77)
  private filledMs: number

  constructor(
    readonly kind: LoggerIdentity['kind'],
    private readonly nowMs: () => number,
    readonly pace: number,
  ) {
    this.filledMs = nowMs()
  }

  identity(): LoggerIdentity {
    return {
      protocol: loggerProtocol,
      name: this.kind === 'travel' ? 'Stand-in travel logger' : 'Stand-in pressure logger',
      serial: this.kind === 'travel' ? 'SI-T-1' : 'SI-P-1',
      kind: this.kind,
      standIn: true,
      channels: this.channels(),
    }
  }

  private channels(): LoggerChannel[] {
    const ends = (['front', 'rear'] as const).filter((e) => !this.bike || this.bike[e])
    const of = (end: End): LoggerChannel =>
      this.kind === 'travel'
        ? {
            key: `${end}_raw`,
            role: `${end}-travel`,
            unit: 'raw',
            end,
            rateHz: 500,
            low: 0,
            high: this.highest(end),
          }
        : {
            key: `${end}_psi`,
            role: `${end}-pressure`,
            unit: 'psi',
            end,
            rateHz: 200,
            low: 0,
            high: this.highest(end),
          }
    const whole = (
      key: string,
      role: LoggerChannel['role'],
      unit: LoggerChannel['unit'],
      rate: number,
    ): LoggerChannel => ({
      key,
      role,
      unit,
      end: null,
      rateHz: rate,
      low: null,
      high: null,
    })
    return [
      ...ends.map(of),
      whole('bar_g', 'bar-acceleration', 'g', rateHz[this.kind]),
      whole('lat_deg', 'latitude', 'deg', fixHz),
      whole('lon_deg', 'longitude', 'deg', fixHz),
    ]
  }

  /** End of a sensor's range; too short when told to be. */
  private highest(end: End): number {
    if (this.kind === 'travel') return counts.most
    const psi = this.bike?.[end]?.pressurePsi ?? 100
    return Math.round(this.faults.wrongRange ? psi * 1.35 : psi * 6)
  }

  state(): LoggerState {
    const { running } = this
    return {
      batteryPct: this.faults.flatBattery ? 4 : 86,
      clockMs: this.clockMs(),
      recording: running
        ? {
            id: running.id,
            seconds: this.riddenS(running),
            finished: this.riddenS(running) >= this.lengthS(running),
          }
        : null,
    }
  }

  /** Its own clock; after half a minute it jumps by an hour when told to. */
  private clockMs(): number {
    const ms = this.nowMs() * this.pace
    return this.faults.clockJump && Math.floor(this.nowMs() / 4000) % 2 === 1 ? ms + 3_600_000 : ms
  }

  mount(world: StandInWorld): void {
    if (this.running) throw new DeviceError('logger.busy', 'It is recording; stop it first.')
    this.bike = simBike(world.bike, world.units, world.positions, world.ridingMassKg)
    this.world = world
    this.filledMs = this.nowMs()
  }

  setHands(hands: StandInHands): void {
    if (hands.air === 'filled' && this.hands.air === 'let-out') this.filledMs = this.nowMs()
    this.hands = hands
  }

  /** Air left by a leaking adapter, share of the absolute pressure. */
  private leftover(sinceS: number): number {
    return this.faults.leakingAdapter ? Math.exp(-0.0016 * sinceS) : 1
  }

  /** What a sensor reads at a shaft position. */
  private reading(end: End, mm: number, warmth: number, still = false): number {
    const setting = this.bike![end]!
    const stroke = setting.unit.strokeMm
    if (this.kind === 'travel') {
      // Too short a range: the counts are used up at seven tenths of the stroke.
      const deepest = this.faults.wrongRange ? counts.extended * (1 - 1 / 0.7) : counts.compressed
      const raw = counts.extended + (deepest - counts.extended) * (mm / stroke) + 3 * normalFrom(this.random)
      return Math.round(Math.min(counts.most, Math.max(0, raw)))
    }
    const psi =
      this.hands.air === 'let-out'
        ? ambientPsi / (1 - chamberShare(unitAir(setting.unit).shape, setting.spacers) * (mm / stroke)) -
          ambientPsi
        : chamberPsi(setting, mm, 1, still ? mm / stroke : undefined) * warmth + ambientPsi * (warmth - 1)
    const read = Math.max(0, pressureReading(psi, this.random))
    return Math.min(this.highest(end), Math.round(read * 100) / 100)
  }

  /** Where the hands hold the bike, share of the stroke. */
  private heldShare(end: End): number {
    if (this.hands.pose === 'extended') return 0
    if (this.hands.pose === 'compressed') return 1
    if (this.hands.pose === 'leaned') return (this.hands.depthPct ?? 0) / 100
    return this.bike?.[end]?.restShare ?? 0.2
  }

  /** A live sample; null while the connection is down. */
  live(): LiveSample | null {
    const now = this.nowMs()
    if (this.faults.dropOuts && now % 4000 < 1500) return null
    const { running, bike } = this
    const values: LiveSample['values'] = {}
    for (const c of this.channels()) values[c.key] = null
    if (bike) {
      const sinceS = ((now - this.filledMs) / 1000) * this.pace
      const i = running ? Math.round((this.riddenS(running) - liftS) * running.ride.sampleRateHz) : -1
      const riding = running !== null && i >= 0 && i < running.ride.front.length
      for (const end of ['front', 'rear'] as const) {
        const setting = bike[end]
        if (!setting) continue
        const share = riding ? shareAt(bike, running.ride, end, i) : this.heldShare(end)
        const key = this.kind === 'travel' ? `${end}_raw` : `${end}_psi`
        values[key] = this.reading(end, share * setting.unit.strokeMm, this.leftover(sinceS), !riding)
      }
      values.bar_g = round(accelerationReading(riding ? running.ride.barG[i] : 1, this.random), 3)
    }
    return { clockMs: this.clockMs(), values }
  }

  /** What holding still for some seconds measures: as many readings as the device takes in that time. */
  hold(seconds: number): Hold {
    if (!this.bike) throw new DeviceError('logger.no-world', 'It is not mounted on a bike yet.')
    const n = Math.round(seconds * 50)
    const sinceS = ((this.nowMs() - this.filledMs) / 1000) * this.pace
    const channels: Hold['channels'] = {}
    for (const c of this.channels()) {
      if (!c.end) continue
      const mm = this.heldShare(c.end) * this.bike[c.end]!.unit.strokeMm
      const x = Float64Array.from({ length: n }, (_, i) =>
        this.reading(c.end!, mm, this.leftover(sinceS + i / 50), true),
      )
      channels[c.key] = { ...lineOf(x, 50), samples: n }
    }
    return { seconds, channels }
  }

  start(): string {
    if (this.running) throw new DeviceError('logger.busy', 'It is recording already.')
    if (this.faults.flatBattery)
      throw new DeviceError('logger.battery-low', 'The battery is at 4 %; charge it before recording.')
    const { world, bike } = this
    if (!world || !bike) throw new DeviceError('logger.no-world', 'It is not mounted on a bike yet.')
    this.made++
    const seeds = { ground: world.groundSeed, run: world.runSeed + this.made }
    const ride = rideTrail(bike, world.sections, seeds, rateHz[this.kind])
    const id = `r${this.made}`
    this.running = { id, startedMs: this.nowMs(), ride, lines: [] }
    return id
  }

  private riddenS(r: Running): number {
    return Math.min(this.lengthS(r), ((this.nowMs() - r.startedMs) / 1000) * this.pace)
  }

  private lengthS(r: Running): number {
    return r.ride.front.length / r.ride.sampleRateHz + 2 * liftS
  }

  /** Writes down what was ridden until now. */
  stop(): StoredRecording {
    const { running } = this
    if (!running) throw new DeviceError('logger.not-recording', 'It is not recording.')
    this.running = null
    const whole = this.riddenS(running)
    // A battery that goes flat on the way breaks it off.
    const seconds = this.faults.flatBattery ? 0.6 * whole : whole
    const text = this.fileOf(running, seconds)
    const stored: Stored = {
      id: running.id,
      name: `${this.identity().serial} ${running.id}.csv`,
      seconds,
      bytes: new TextEncoder().encode(text).length,
      complete: !this.faults.flatBattery,
      text,
    }
    this.stored.push(stored)
    return listed(stored)
  }

  /** The file: hanging, the ride, hanging again; clock in ms since switched on. */
  private fileOf(r: Running, seconds: number): string {
    const bike = this.bike!
    const rate = r.ride.sampleRateHz
    const ends = (['front', 'rear'] as const).filter((e) => bike[e])
    const tracks = new Map(ends.map((e) => [e, shaftMm(bike, r.ride, e)]))
    const fixes = gpsFixes(r.ride, fixHz, seededRandom(this.made))
    const lines = [
      `time_ms,${this.channels()
        .map((c) => c.key)
        .join(',')}`,
    ]
    const lift = Math.round(liftS * rate)
    const n = Math.floor(seconds * rate)
    const jumpAt = this.faults.clockJump ? Math.floor(0.6 * n) : Infinity
    for (let i = 0; i < n; i++) {
      // Lost: a quarter second out of every seven.
      if (this.faults.dropOuts && (i / rate) % 7 > 6.75) continue
      const k = i - lift
      const riding = k >= 0 && k < r.ride.front.length
      const t = (1000 * i) / rate + (i >= jumpAt ? 3_600_000 : 0)
      // Gas warms by about 5 % over two minutes of riding.
      const warmth = (1 + 0.05 * (1 - Math.exp(-i / rate / 60))) * this.leftover(i / rate)
      const travel = ends.map((e) => this.reading(e, lifted(tracks.get(e)!, k, rate), warmth))
      const bar = round(accelerationReading(riding ? r.ride.barG[k] : 1, this.random), 3)
      const fix = riding && k % (rate / fixHz) === 0 ? fixes[k / (rate / fixHz)] : undefined
      const place = fix ? `${fix.latitudeDeg.toFixed(7)},${fix.longitudeDeg.toFixed(7)}` : ','
      lines.push(`${t.toFixed(1)},${travel.join(',')},${bar},${place}`)
    }
    return lines.join('\n') + '\n'
  }

  list(): StoredRecording[] {
    return this.stored.map(listed)
  }

  file(id: string): string {
    const found = this.stored.find((s) => s.id === id)
    if (!found) throw new DeviceError('logger.no-recording', 'There is no such recording on the device.')
    return found.text
  }

  remove(id: string): void {
    this.file(id)
    this.stored = this.stored.filter((s) => s.id !== id)
  }
}

const listed = ({ id, name, seconds, bytes, complete }: Stored): StoredRecording => ({
  id,
  name,
  seconds,
  bytes,
  complete,
})

/** Time in which the bike is set down after hanging, and lifted again. */
const setDownS = 0.6

/** Shaft position at sample k of a ride that hangs before its first and after its last one. */
function lifted(mm: Float64Array, k: number, rate: number): number {
  const beyond = k < 0 ? -k : k >= mm.length ? k - mm.length + 1 : 0
  if (beyond === 0) return mm[k]
  const p = Math.min(1, beyond / (setDownS * rate))
  return (k < 0 ? mm[0] : mm[mm.length - 1]) * (1 - p * p * (3 - 2 * p))
}

const round = (v: number, digits: number) => Number(v.toFixed(digits))

function shareAt(bike: SimBike, ride: Ride, end: End, i: number): number {
  const one = { ...ride, [end]: ride[end].subarray(i, i + 1) }
  return shaftMm(bike, one, end)[0] / bike[end]!.unit.strokeMm
}

/** Mean, scatter about the line, and slope per second. */
function lineOf(x: Float64Array, rate: number): { mean: number; sd: number; slopePerS: number } {
  const n = x.length
  const mean = x.reduce((s, v) => s + v, 0) / n
  let [tt, tx] = [0, 0]
  for (let i = 0; i < n; i++) {
    const t = (i - (n - 1) / 2) / rate
    tt += t * t
    tx += t * (x[i] - mean)
  }
  const slopePerS = tx / tt
  let sum = 0
  for (let i = 0; i < n; i++) sum += (x[i] - mean - (slopePerS * (i - (n - 1) / 2)) / rate) ** 2
  return { mean, sd: Math.sqrt(sum / (n - 2)), slopePerS }
}
