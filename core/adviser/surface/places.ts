import { fallOff, type SurfaceData } from './model.ts'

/**
 * Where each dial stood over a day, each place once: most runs share theirs, and what a place loses is asked for many
 * thousand times.
 */
export class Places {
  /** Different places per dial, click-equivalents. */
  readonly different: readonly Float64Array[]
  /** Per dial and run, which of them it was. */
  readonly of: readonly Int32Array[]

  constructor({ dials, points }: Pick<SurfaceData, 'dials' | 'points'>) {
    this.different = dials.map((_, k) => Float64Array.from(new Set(points.map((p) => p.at[k]))))
    this.of = dials.map((_, k) => Int32Array.from(points, (p) => this.different[k].indexOf(p.at[k])))
  }

  /** Writes how ratings fall off at each place of a dial whose best one is `best`, see `fallOff`. */
  fall(dial: number, best: number, straightFrom: number, out: Float64Array): void {
    const places = this.different[dial]
    for (let i = 0; i < places.length; i++) out[i] = fallOff(places[i] - best, straightFrom)
  }

  /** Room for what `fall` writes, per dial. */
  room(): Float64Array[] {
    return this.different.map((places) => new Float64Array(places.length))
  }
}
