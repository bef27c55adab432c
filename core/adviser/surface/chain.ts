import { normalFrom } from '../../numeric/random.ts'
import { noiseGrid, type NoiseFit } from './kernel.ts'
import { drifted, surfacePriors, type SurfaceData } from './model.ts'
import { Places } from './places.ts'
import { Said } from './said.ts'

const square = (x: number) => x * x
/** The Markov chain: one place, width, noise and shape at a time, moved by Metropolis steps. */
export class Chain {
  /** Best place per dial, click-equivalents, and the logarithm of its steepness. */
  readonly best: Float64Array
  readonly logSteepness: Float64Array
  /** What bowl and level leave of each row. */
  readonly rest: Float64Array
  private noiseAt = (noiseGrid.length - 1) / 2
  private shapeAt = 1
  private quadratic: number
  private readonly target: Float64Array
  private readonly places: Places
  /** How ratings fall off at each place of each dial, as it is and as it is asked for. */
  private readonly falls: readonly Float64Array[]
  private readonly askedFalls: readonly Float64Array[]
  /** Per dial, places of the runs of each row; a rating has no first one: -1. */
  private readonly rowPlaces: readonly { a: Int32Array; b: Int32Array }[]
  /** Contribution of each dial to each row, so that one dial's step touches only its own. */
  private readonly part: readonly Float64Array[]
  private readonly reshaped: readonly Float64Array[]
  private readonly said: Said
  private readonly proposed: Float64Array
  private readonly change: Float64Array

  constructor(
    private readonly data: SurfaceData,
    private readonly noises: readonly NoiseFit[],
    private readonly random: () => number,
  ) {
    const N = data.rows.length
    this.best = Float64Array.from(data.dials, (d) => Math.min(d.high, Math.max(d.low, d.expected)))
    this.logSteepness = Float64Array.from(data.dials, (d) => d.logSteepness.mean)
    const meanDrift = data.points.reduce((t, p) => t + drifted(p.index), 0) / Math.max(1, data.points.length)
    this.target = Float64Array.from(data.rows, (r) => {
      const since =
        drifted(data.points[r.b].index) - (r.a === null ? meanDrift : drifted(data.points[r.a].index))
      return r.value - (r.a === null ? surfacePriors.levelMean : 0) - data.habit.drift.mean * since
    })
    const places = new Places(data)
    this.places = places
    this.falls = places.room()
    this.askedFalls = places.room()
    this.rowPlaces = places.of.map((of) => ({
      a: Int32Array.from(data.rows, (r) => (r.a === null ? -1 : of[r.a])),
      b: Int32Array.from(data.rows, (r) => of[r.b]),
    }))
    this.part = data.dials.map(() => new Float64Array(N))
    this.reshaped = data.dials.map(() => new Float64Array(N))
    this.rest = Float64Array.from(this.target)
    for (let k = 0; k < data.dials.length; k++) {
      places.fall(k, this.best[k], this.straightFrom, this.falls[k])
      this.rowsOf(k, this.falls[k], Math.exp(this.logSteepness[k]), this.part[k])
      for (let i = 0; i < N; i++) this.rest[i] -= this.part[k][i]
    }
    this.quadratic = quadraticOf(this.rest, this.noise.inverse)
    this.said = new Said(data, places, this.best, this.steepness(), this.falls)
    this.proposed = new Float64Array(N)
    this.change = new Float64Array(N)
  }

  get noise(): NoiseFit {
    return this.noises[this.noiseAt]
  }
  get straightFrom(): number {
    return surfacePriors.straightFrom[this.shapeAt]
  }

  /** One pass over all dials, then noise and shape. */
  sweep(): void {
    for (let k = 0; k < this.data.dials.length; k++) {
      this.movePlace(k)
      this.moveWidth(k)
    }
    this.moveNoise()
    this.moveShape()
  }

  private movePlace(k: number): void {
    const { random } = this
    const d = this.data.dials[k]
    const old = this.best[k]
    const to = old + (random() < 0.3 ? 4 : 1.3) * normalFrom(random)
    if (to < d.low || to > d.high) return
    const log = 0.5 * (square((old - d.expected) / d.expectedSd) - square((to - d.expected) / d.expectedSd))
    const asked = this.askedFalls[k]
    this.places.fall(k, to, this.straightFrom, asked)
    if (!this.take(k, log, to, Math.exp(this.logSteepness[k]), asked)) return
    this.best[k] = to
    this.falls[k].set(asked)
  }

  private moveWidth(k: number): void {
    const s = this.data.dials[k].logSteepness
    const old = this.logSteepness[k]
    const to = old + 0.7 * normalFrom(this.random)
    const log = 0.5 * (square((old - s.mean) / s.sd) - square((to - s.mean) / s.sd))
    if (this.take(k, log, this.best[k], Math.exp(to), this.falls[k])) this.logSteepness[k] = to
  }

  /** Whether a dial's step is taken. @param log what the prior says of it, and `falls` what there is at its new place */
  private take(k: number, log: number, to: number, steepness: number, falls: Float64Array): boolean {
    const part = this.part[k]
    const { rest, proposed, change } = this
    this.rowsOf(k, falls, steepness, change)
    let moved = false
    for (let i = 0; i < change.length; i++) {
      if (change[i] !== part[i]) moved = true
      proposed[i] = rest[i] + part[i] - change[i]
    }
    const quadratic = moved ? quadraticOf(proposed, this.noise.inverse) : this.quadratic
    const gained =
      log + 0.5 * (this.quadratic - quadratic) + this.said.change(k, this.best[k], to, steepness, falls)
    if (Math.log(1 - this.random()) >= gained) return false
    this.quadratic = quadratic
    part.set(change)
    rest.set(proposed)
    this.said.accept()
    return true
  }

  private moveNoise(): void {
    const to = this.noiseAt + (this.random() < 0.5 ? -1 : 1)
    const there = this.noises[to]
    if (!there) return
    const quadratic = quadraticOf(this.rest, there.inverse)
    const log = 0.5 * (this.quadratic - quadratic) + there.logWeight - this.noise.logWeight
    if (Math.log(1 - this.random()) >= log) return
    this.noiseAt = to
    this.quadratic = quadratic
  }

  private moveShape(): void {
    const old = this.shapeAt
    const last = surfacePriors.straightFrom.length - 1
    this.shapeAt = Math.min(last, Math.max(0, old + (this.random() < 0.5 ? -1 : 1)))
    if (this.shapeAt === old) return
    const steepness = this.steepness()
    const { proposed, reshaped, askedFalls } = this
    proposed.set(this.target)
    for (let k = 0; k < steepness.length; k++) {
      this.places.fall(k, this.best[k], this.straightFrom, askedFalls[k])
      this.rowsOf(k, askedFalls[k], steepness[k], reshaped[k])
      for (let i = 0; i < proposed.length; i++) proposed[i] -= reshaped[k][i]
    }
    const quadratic = quadraticOf(proposed, this.noise.inverse)
    const said = this.said.reshaped(steepness, askedFalls)
    if (Math.log(1 - this.random()) < 0.5 * (this.quadratic - quadratic) + said) {
      this.said.acceptShape()
      this.quadratic = quadratic
      this.rest.set(proposed)
      for (let k = 0; k < steepness.length; k++) {
        this.part[k].set(reshaped[k])
        this.falls[k].set(askedFalls[k])
      }
    } else this.shapeAt = old
  }

  private steepness(): Float64Array {
    return this.logSteepness.map(Math.exp)
  }

  /** What the bowl of one dial takes off each rating, or adds to each difference. */
  private rowsOf(k: number, falls: Float64Array, steepness: number, out: Float64Array): void {
    const { a, b } = this.rowPlaces[k]
    for (let i = 0; i < out.length; i++)
      out[i] = a[i] < 0 ? -steepness * falls[b[i]] : steepness * (falls[a[i]] - falls[b[i]])
  }
}

function quadraticOf(v: Float64Array, inverse: Float64Array): number {
  const N = v.length
  let q = 0
  for (let i = 0; i < N; i++) {
    let row = 0
    const at = i * N
    for (let j = 0; j < i; j++) row += inverse[at + j] * v[j]
    q += v[i] * (2 * row + inverse[at + i] * v[i])
  }
  return q
}
