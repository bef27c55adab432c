import type { TrailGate, TrailSection } from '#contract/trail'
import type { Way } from '../geo/way.ts'
import { isLengthSaid, layoutLengthM } from './sectionLength.ts'

export const gateRules = {
  /** A pass further away than this is none; closer than `surelyM` it is believed. */
  nearM: 25,
  surelyM: 12,
  /** Wander of a receiver, of the gate and of the pass together. */
  wanderM: 5,
  /** How far the way between two gates may differ from the sections between them: share and metres. */
  lengthShare: 0.15,
  lengthM: 10,
  /** The same where nobody has said how long a section between them is: ln of the ratio. */
  unsaidLn: 1,
  /** What leaving a gate out costs, in squares of standard deviations. */
  leftOut: 25,
} as const

/** When a gate was passed, and how near. */
export interface Passed {
  /** Time on the way's own clock. */
  timeS: number
  wayM: number
  missM: number
}

/**
 * When each gate of a trail was passed: by the nearest approach, in the order of the trail, with about the way between
 * them that the sections are long. So the arm of a hairpin beside the gate is not taken for the gate, and what was
 * ridden before the first is none of the trail. Solved over all passes at once (Viterbi 1967).
 *
 * @returns per edge of the trail (sections' begins, then the end of the last) when it was passed; null where it has no
 * gate or none was passed
 */
export function passGates(
  way: Way,
  sections: readonly TrailSection[],
  gates: readonly TrailGate[],
): (Passed | null)[] {
  const r = gateRules
  const edges = [...sections.map((s) => s.id), 'finish']
  const atM = [0]
  for (const s of sections) atM.push(atM[atM.length - 1] + layoutLengthM(s))
  const known = edges.flatMap((at, edge) => {
    const gate = gates.find((g) => g.at === at)
    return gate ? [{ edge, passes: passesOf(way, gate) }] : []
  })
  const result: (Passed | null)[] = edges.map(() => null)
  // Cheapest chain that ends at each pass of each gate.
  interface Chain {
    pass: Passed
    edge: number
    cost: number
    before: Chain | null
  }
  let chains: Chain[] = []
  for (const [i, { edge, passes }] of known.entries()) {
    const grown: Chain[] = passes.map((pass) => {
      const own = (pass.missM / r.wanderM) ** 2
      const alone: Chain = { pass, edge, cost: own + i * r.leftOut, before: null }
      return chains.reduce((best, c) => {
        if (c.pass.timeS >= pass.timeS) return best
        const expectedM = atM[edge] - atM[c.edge]
        const wayM = pass.wayM - c.pass.wayM
        const between = sections.slice(c.edge, edge).every(isLengthSaid)
          ? ((wayM - expectedM) / (r.lengthM + r.lengthShare * expectedM)) ** 2
          : (Math.log(Math.max(1, wayM) / expectedM) / r.unsaidLn) ** 2
        const skipped = known.filter((k) => k.edge > c.edge && k.edge < edge).length * r.leftOut
        const cost = c.cost + own + between + skipped
        return cost < best.cost ? { pass, edge, cost, before: c } : best
      }, alone)
    })
    chains = [...chains, ...grown]
  }
  const total = (c: Chain) => c.cost + known.filter((k) => k.edge > c.edge).length * r.leftOut
  let best = chains.reduce<Chain | null>((b, c) => (b && total(b) <= total(c) ? b : c), null)
  for (; best; best = best.before) result[best.edge] = best.pass
  return result
}

/** Nearest approaches to a gate, one for each time that the way comes near. */
function passesOf(way: Way, gate: TrailGate): Passed[] {
  const { eastM, northM } = way.toPlane(gate)
  const away = way.timeS.map((_, i) => Math.hypot(way.eastM[i] - eastM, way.northM[i] - northM))
  const passes: Passed[] = []
  for (let i = 0; i < away.length; i++) {
    if (away[i] > gateRules.nearM) continue
    const nearest = (i === 0 || away[i] <= away[i - 1]) && (i === away.length - 1 || away[i] < away[i + 1])
    if (nearest) passes.push({ timeS: way.timeS[i], wayM: way.wayM[i], missM: away[i] })
  }
  return passes
}
