import type { PlannedStep, Proposal } from '#contract/proposal'
import { positionWords } from '../adjusters/words.ts'
import { isComplaint } from '../causes/words.ts'
import { candidatesFrom, type Candidate } from './candidates.ts'
import { stepWords } from './change.ts'
import { costOfTurn } from './costs.ts'
import { choice, riddenPlaces, worth } from './decide.ts'
import type { Climb } from './ladder/climb.ts'
import { againstLeading } from './ladder/useful.ts'
import { answersOf, oneStep } from './remedies.ts'
import { reweighted } from './surface/samples.ts'

/** Samples that an outcome is thought through on. */
const imaginedSamples = 400
/** A plan names no dial that nothing points at. */
const aliveFrom = 0.03

/** Adds what would follow a change that was weighed on what was ridden, one step at a time, by how it turns out. */
export function withPlan(c: Climb, p: Proposal): Proposal {
  if (p.kind !== 'change' || p.outlook === null || p.moves.length === 0) return p
  return { ...p, plan: [ifBetter(c, p), ifWorse(c, p)] }
}

/** The most useful turn that answers a living cause, on the surface as it would be after one better ride. */
function ifBetter(c: Climb, p: Proposal): PlannedStep {
  const s = c.outlook()
  const after = new Map(c.positions)
  for (const m of p.moves) after.set(m.adjusterId, m.to)
  const surface = reweighted(s.surface, betterWeights(c, p), imaginedSamples)
  const against = againstLeading(c)
  const turns = turnsAlive(c)
  const answers = (x: Candidate) =>
    x.steps.every((step) =>
      turns.some(
        (t) =>
          t.adjuster.id === s.dials[step.dial].adjuster.id && t.direction === Math.sign(step.to - step.from),
      ),
    )
  const perRun = (x: Candidate) =>
    worth(x) / Math.max(...x.steps.map((step) => costOfTurn(s.dials[step.dial].adjuster)))
  const next = candidatesFrom(surface, s.dials, after, riddenPlaces(c.h), s.noticeable)
    .filter((x) => answers(x) && !against(x) && worth(x) >= choice.leastWorth)
    .reduce<Candidate | null>((a, b) => (a && perRun(a) >= perRun(b) ? a : b), null)
  const words = next?.steps.map((step) => {
    const d = s.dials[step.dial]
    return stepWords(d.end, d.adjuster, step.from, step.to, c.space)
  })
  return {
    when: 'better',
    does: words ? `Keep it. Then ${lower(words.join(', with '))}.` : 'Keep it, and ride it again to be sure.',
  }
}

/** Taken back; then the step that answers the likeliest cause which this change did not. */
function ifWorse(c: Climb, p: Proposal): PlannedStep {
  const back = p.moves.map((m) => {
    const part = c.space[m.end]!.adjusters.find((a) => a.id === m.adjusterId)!
    return positionWords(part, m.from, c.space.units)
  })
  const same = (t: Turn) =>
    p.moves.some((m) => m.adjusterId === t.adjuster.id && Math.sign(m.to - m.from) === t.direction)
  const next = turnsAlive(c).flatMap((t) => {
    const from = c.positions.get(t.adjuster.id)
    const to = from === undefined || same(t) ? null : oneStep(t.adjuster, from, t.direction)
    return to === null ? [] : [stepWords(t.end, t.adjuster, from!, to, c.space)]
  })[0]
  return { when: 'worse', does: `Back to ${back.join(' and ')}.${next ? ` Then ${lower(next)}.` : ''}` }
}

type Turn = ReturnType<typeof answersOf>[number]

/** What answers the causes of what was complained of that are alive, likeliest first; nothing that only stands in. */
function turnsAlive(c: Climb): Turn[] {
  const said = (c.onNow.at(-1)?.feel?.marks ?? []).map((m) => m.word).filter(isComplaint)
  return c
    .causes()
    .filter(
      (x) =>
        x.probability >= aliveFrom &&
        x.evidence.some((e) => e.weight > 0 && e.link.word !== null && said.includes(e.link.word)),
    )
    .flatMap((x) => answersOf(x.kind, x.end, c.space).filter((t) => !t.standIn))
}

/** How likely each sample makes a ride on the change that is better by what a rider notices. */
function betterWeights(c: Climb, p: Proposal): Float64Array {
  const { surface, dials, noticeable } = c.outlook()
  const to = new Map(p.moves.map((m) => [m.adjusterId, m.to]))
  const lossAt = (place: (id: string) => number) =>
    surface.lossAt(Float64Array.from(dials, (d) => d.toClicks(place(d.adjuster.id))))
  const here = lossAt((id) => c.positions.get(id)!)
  const there = lossAt((id) => to.get(id) ?? c.positions.get(id)!)
  return here.map((loss, i) => {
    const off = (loss - there[i] - noticeable) / (Math.SQRT2 * surface.noiseSd[i])
    return Math.exp(-0.5 * off * off)
  })
}

const lower = (s: string) => s.charAt(0).toLowerCase() + s.slice(1)
