import { normalFrom } from '../../numeric/random.ts'
import { noiseGrid, type NoiseFit } from './kernel.ts'
import { surfacePriors, type SurfaceData } from './model.ts'
import { Places } from './places.ts'
import { Rated } from './rated.ts'
import { Said } from './said.ts'

/** What steps add to is worked out anew after so many passes, so that rounding does not add up. */
const afreshEvery = 32
const square = (x: number) => x * x

/** The Markov chain: one place, width, noise and shape at a time, moved by Metropolis steps. */
export class Chain {
  /** Best place per dial, click-equivalents, and the logarithm of its steepness. */
  readonly best: Float64Array
  readonly logSteepness: Float64Array
  private noiseAt = (noiseGrid.length - 1) / 2
  private shapeAt = 1
  private sweeps = 0
  private readonly places: Places
  private readonly rated: Rated
  /** How ratings fall off at each place of each dial, as it is and as it is asked for. */
  private readonly falls: readonly Float64Array[]
  private readonly askedFalls: readonly Float64Array[]
  private readonly said: Said

  constructor(
    private readonly data: SurfaceData,
    private readonly noises: readonly NoiseFit[],
    private readonly random: () => number,
  ) {
    this.best = Float64Array.from(data.dials, (d) => Math.min(d.high, Math.max(d.low, d.expected)))
    this.logSteepness = Float64Array.from(data.dials, (d) => d.logSteepness.mean)
    const places = new Places(data)
    this.places = places
    this.falls = places.room()
    this.askedFalls = places.room()
    for (let k = 0; k < data.dials.length; k++) places.fall(k, this.best[k], this.straightFrom, this.falls[k])
    this.rated = new Rated(data, places, this.noise)
    this.rated.set(this.steepness(), this.falls)
    this.said = new Said(data, places, this.best, this.steepness(), this.falls)
  }

  get noise(): NoiseFit {
    return this.noises[this.noiseAt]
  }
  get straightFrom(): number {
    return surfacePriors.straightFrom[this.shapeAt]
  }
  /** What bowl and level leave of each row, weighed by the inverse of its covariance. */
  get weighedRest(): Float64Array {
    return this.rated.weighed
  }

  /** One pass over all dials, then noise and shape. */
  sweep(): void {
    if (++this.sweeps % afreshEvery === 0) this.rated.refresh()
    for (let k = 0; k < this.data.dials.length; k++) {
      this.movePlace(k)
      this.moveWidth(k)
    }
    this.rated.moveTops(this.random)
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
    const gained =
      log + this.rated.change(k, steepness, falls) + this.said.change(k, this.best[k], to, steepness, falls)
    if (Math.log(1 - this.random()) >= gained) return false
    this.rated.accept()
    this.said.accept()
    return true
  }

  private moveNoise(): void {
    const to = this.noiseAt + (this.random() < 0.5 ? -1 : 1)
    const there = this.noises[to]
    if (!there) return
    const log = this.rated.heardAt(there) + there.logWeight - this.noise.logWeight
    if (Math.log(1 - this.random()) >= log) return
    this.noiseAt = to
    this.rated.hearAt(there)
  }

  private moveShape(): void {
    const old = this.shapeAt
    const last = surfacePriors.straightFrom.length - 1
    this.shapeAt = Math.min(last, Math.max(0, old + (this.random() < 0.5 ? -1 : 1)))
    if (this.shapeAt === old) return
    const steepness = this.steepness()
    const { askedFalls } = this
    for (let k = 0; k < steepness.length; k++)
      this.places.fall(k, this.best[k], this.straightFrom, askedFalls[k])
    const gained = this.rated.reshaped(steepness, askedFalls) + this.said.reshaped(steepness, askedFalls)
    if (Math.log(1 - this.random()) < gained) {
      this.said.acceptShape()
      this.rated.set(steepness, askedFalls)
      for (let k = 0; k < steepness.length; k++) this.falls[k].set(askedFalls[k])
    } else this.shapeAt = old
  }

  private steepness(): Float64Array {
    return this.logSteepness.map(Math.exp)
  }
}
