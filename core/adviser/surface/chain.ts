import { normalFrom } from '../../numeric/random.ts'
import { noiseGrid, type NoiseFit } from './kernel.ts'
import { drifted, fallOff, surfacePriors, type RatedRow, type SurfaceData } from './model.ts'
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
  /** Contribution of each dial to each row, so that one dial's step touches only its own. */
  private readonly part: Float64Array[]
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
    this.part = this.partsAt()
    this.rest = Float64Array.from(this.target)
    for (const part of this.part) for (let i = 0; i < N; i++) this.rest[i] -= part[i]
    this.quadratic = quadraticOf(this.rest, this.noise.inverse)
    this.said = new Said(data, this.best, this.steepness(), this.straightFrom)
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
      this.moveDial(k, 'place')
      this.moveDial(k, 'width')
    }
    this.moveNoise()
    this.moveShape()
  }

  private moveDial(k: number, what: 'place' | 'width'): void {
    const { random } = this
    const d = this.data.dials[k]
    const [oldB, oldA] = [this.best[k], this.logSteepness[k]]
    const newB = what === 'place' ? oldB + (random() < 0.3 ? 4 : 1.3) * normalFrom(random) : oldB
    const newA = what === 'width' ? oldA + 0.7 * normalFrom(random) : oldA
    if (newB < d.low || newB > d.high) return
    const s = d.logSteepness
    let log =
      0.5 * (square((oldB - d.expected) / d.expectedSd) - square((newB - d.expected) / d.expectedSd)) +
      0.5 * (square((oldA - s.mean) / s.sd) - square((newA - s.mean) / s.sd))
    const a = Math.exp(newA)
    const { rows } = this.data
    const part = this.part[k]
    let moved = false
    for (let i = 0; i < rows.length; i++) {
      this.change[i] = this.rowAt(k, rows[i], newB, a)
      if (this.change[i] !== part[i]) moved = true
      this.proposed[i] = this.rest[i] + part[i] - this.change[i]
    }
    const quadratic = moved ? quadraticOf(this.proposed, this.noise.inverse) : this.quadratic
    log += 0.5 * (this.quadratic - quadratic)
    log += this.said.change(k, oldB, newB, a, this.straightFrom)
    if (Math.log(1 - random()) >= log) return
    this.best[k] = newB
    this.logSteepness[k] = newA
    this.quadratic = quadratic
    part.set(this.change)
    this.rest.set(this.proposed)
    this.said.accept()
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
    const parts = this.partsAt()
    for (let i = 0; i < this.data.rows.length; i++) {
      this.proposed[i] = this.target[i]
      for (const part of parts) this.proposed[i] -= part[i]
    }
    const quadratic = quadraticOf(this.proposed, this.noise.inverse)
    const said = this.said.reshaped(this.best, this.steepness(), this.straightFrom)
    if (Math.log(1 - this.random()) < 0.5 * (this.quadratic - quadratic) + said.log) {
      said.accept()
      this.quadratic = quadratic
      this.rest.set(this.proposed)
      parts.forEach((x, k) => this.part[k].set(x))
    } else this.shapeAt = old
  }

  private steepness(): Float64Array {
    return this.logSteepness.map(Math.exp)
  }

  /** What the bowl of one dial takes off a rating, or adds to a difference. */
  private rowAt(k: number, row: RatedRow, best: number, a: number): number {
    const { points } = this.data
    const c = this.straightFrom
    const there = fallOff(points[row.b].at[k] - best, c)
    return row.a === null ? -a * there : a * (fallOff(points[row.a].at[k] - best, c) - there)
  }

  private partsAt(): Float64Array[] {
    return this.data.dials.map((_, k) =>
      Float64Array.from(this.data.rows, (r) =>
        this.rowAt(k, r, this.best[k], Math.exp(this.logSteepness[k])),
      ),
    )
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
