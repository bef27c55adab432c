import type { PlannedStep, Proposal } from '#contract/proposal'
import { positionWords } from '../adjusters/words.ts'
import { candidatesFrom, type Candidate } from './candidates.ts'
import { stepWords } from './change.ts'
import { choice, movedToday, worth } from './decide.ts'
import type { Climb } from './ladder/climb.ts'
import { againstLeading } from './ladder/turn.ts'
import { reweighted } from './surface/samples.ts'

/** Samples that an outcome is thought through on. */
const imaginedSamples = 400

/**
 * Adds what would follow a change, by how it turns out: the surface as it would be after one ride that was clearly better,
 * or clearly worse, and the most useful turn from there. Nothing that goes against the leading cause is planned.
 */
export function withPlan(c: Climb, p: Proposal): Proposal {
  if (p.kind !== 'change' || p.outlook === null || p.moves.length === 0) return p
  return { ...p, plan: [ifBetter(c, p), ifWorse(c, p)] }
}

function ifBetter(c: Climb, p: Proposal): PlannedStep {
  const after = new Map(c.positions)
  for (const m of p.moves) after.set(m.adjusterId, m.to)
  const next = bestFrom(c, after, outcomeWeights(c, p, 1), () => true)
  return {
    when: 'better',
    does: next ? `Keep it. Then ${lower(wordsOf(c, next))}.` : 'Keep it, and ride it again to be sure.',
  }
}

function ifWorse(c: Climb, p: Proposal): PlannedStep {
  const back = p.moves
    .map((m) => {
      const part = c.space[m.end]!.adjusters.find((a) => a.id === m.adjusterId)!
      return positionWords(part, m.from, c.space.units)
    })
    .join(' and ')
  const again = (x: Candidate) =>
    !x.steps.some((s) =>
      p.moves.some(
        (m) =>
          m.adjusterId === c.standing().dials[s.dial].adjuster.id &&
          Math.sign(m.to - m.from) === Math.sign(s.to - s.from),
      ),
    )
  const next = bestFrom(c, c.positions, outcomeWeights(c, p, -1), again)
  return { when: 'worse', does: `Back to ${back}.${next ? ` Then ${lower(wordsOf(c, next))}.` : ''}` }
}

/** How likely each sample makes a ride that was better (1) or worse (−1) by what a rider notices. */
function outcomeWeights(c: Climb, p: Proposal, sign: 1 | -1): Float64Array {
  const { surface, dials, noticeable } = c.standing()
  const to = new Map(p.moves.map((m) => [m.adjusterId, m.to]))
  const at = (positions: (id: string) => number) =>
    surface.lossAt(Float64Array.from(dials, (d) => d.toClicks(positions(d.adjuster.id))))
  const here = at((id) => c.positions.get(id)!)
  const there = at((id) => to.get(id) ?? c.positions.get(id)!)
  return here.map((loss, i) => {
    const off = (loss - there[i] - sign * noticeable) / (Math.SQRT2 * surface.noiseSd[i])
    return Math.exp(-0.5 * off * off)
  })
}

function bestFrom(
  c: Climb,
  positions: ReadonlyMap<string, number>,
  weights: Float64Array,
  allowed: (x: Candidate) => boolean,
): Candidate | null {
  const s = c.standing()
  const surface = reweighted(s.surface, weights, imaginedSamples)
  const against = againstLeading(c)
  const [best] = candidatesFrom(surface, s.dials, positions, movedToday(c.h), s.noticeable)
    .filter((x) => allowed(x) && !against(x) && worth(x) >= choice.leastWorth)
    .sort((a, b) => worth(b) - worth(a))
  return best ?? null
}

const wordsOf = (c: Climb, x: Candidate) =>
  x.steps
    .map((s) => {
      const d = c.standing().dials[s.dial]
      return stepWords(d.end, d.adjuster, s.from, s.to, c.space)
    })
    .join(', with ')
const lower = (s: string) => s.charAt(0).toLowerCase() + s.slice(1)
