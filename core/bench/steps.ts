import type { Adjuster } from '#contract/adjuster'
import type { Basis, Bench, BenchStep } from '#contract/bench'
import type { End } from '#contract/common'
import type { Known } from '#contract/setup'
import type { SuspensionUnit } from '#contract/unit'
import { familyOf } from '../adjusters/words.ts'
import { stepOrder } from './schools.ts'

/** The steps that a bike with these units needs, in the order of its school. */
export function stepsFor(bench: Pick<Bench, 'orderSchool'>, units: readonly SuspensionUnit[]): BenchStep[] {
  const has = (end: End) => units.some((u) => u.end === end)
  return stepOrder[bench.orderSchool].filter((step) => {
    if (step === 'sag-rear') return has('rear')
    if (step === 'sag-front') return has('front')
    if (step === 'sag-both') return has('front') && has('rear')
    if (step === 'equalise') return units.some((u) => u.spring === 'air')
    if (step === 'rebound') return units.some((u) => u.adjusters.some((a) => a.role.includes('rebound')))
    if (step === 'compression')
      return units.some((u) => u.adjusters.some((a) => a.role.includes('compression') || a.kind === 'lever'))
    return true
  })
}

/** Position of an adjuster on the bench, canonical; null when not read yet. */
export const benchPosition = (bench: Pick<Bench, 'positions'>, adjusterId: string): number | null =>
  bench.positions.find((p) => p.adjusterId === adjusterId)?.value ?? null

/** Everything a step may rest on, by name: "rear-main-pressure" is psi, "riding-mass" kg, and so on. */
export function benchFacts(
  bench: Bench,
  units: readonly SuspensionUnit[],
  ridingMassKg: number | null,
): Basis {
  const facts: Basis = {
    'riding-mass': ridingMassKg,
    'front-posture': bench.posture.front,
    'rear-posture': bench.posture.rear,
  }
  for (const u of units)
    for (const a of u.adjusters) {
      const key = a.kind === 'custom' ? `custom ${a.id}` : a.role
      facts[`${u.end}-${key}`] = benchPosition(bench, a.id)
    }
  return facts
}

const spring = ['main-pressure', 'negative-pressure', 'spring-rate', 'preload', 'start-of-stroke']
const at = (end: End, names: readonly string[]) => names.map((n) => `${end}-${n}`)

/** Facts that a step rests on. A change in any of them later makes it stale. */
const restsOn: Record<BenchStep, readonly string[]> = {
  who: [],
  prepare: [],
  start: ['riding-mass'],
  equalise: [...at('front', ['main-pressure']), ...at('rear', ['main-pressure'])],
  'sag-rear': ['riding-mass', 'rear-posture', ...at('rear', [...spring, 'spacers'])],
  'sag-front': ['riding-mass', 'front-posture', ...at('front', [...spring, 'spacers'])],
  'sag-both': [
    'riding-mass',
    ...at('front', [...spring, 'spacers', 'posture']),
    ...at('rear', [...spring, 'spacers', 'posture']),
  ],
  rebound: ['riding-mass', ...at('front', [...spring, 'spacers']), ...at('rear', [...spring, 'spacers'])],
  compression: ['riding-mass', ...at('front', spring), ...at('rear', spring)],
  'end-of-stroke': [
    'riding-mass',
    ...at('front', [...spring, 'spacers', 'high-speed-compression', 'compression']),
    ...at('rear', [...spring, 'spacers', 'high-speed-compression', 'compression']),
  ],
  save: [],
}

/** How much a fact may move before it matters: below what a gauge or a scale can tell. */
export function slack(step: BenchStep, fact: string): number {
  // Small corrections near the target are cycled in as they are made; only another region needs the whole card.
  if (step === 'equalise') return 25
  if (fact.endsWith('pressure')) return 1
  return fact === 'riding-mass' ? 1.5 : 1e-6
}

/** The part of the facts that a step done now would rest on. */
export function basisOf(step: BenchStep, facts: Basis): Basis {
  const keys = step === 'save' ? Object.keys(facts) : restsOn[step]
  return Object.fromEntries(keys.filter((k) => k in facts).map((k) => [k, facts[k]]))
}

/**
 * The bench with a step closed now, resting on the present facts. That its evidence is there is the caller's to ask
 * (evidence.ts).
 * @param state done, or out: looked at, not right, and left so for a reason
 */
export function withStepClosed(
  bench: Bench,
  step: BenchStep,
  state: 'done' | 'out',
  reason: string,
  units: readonly SuspensionUnit[],
  ridingMassKg: number | null,
  at: string,
): Bench {
  const basis = basisOf(step, benchFacts(bench, units, ridingMassKg))
  const steps = bench.steps.filter((s) => s.step !== step)
  return { ...bench, steps: [...steps, { step, state, at, reason, basis }] }
}

/** The bench with a step skipped for a reason. */
export function withStepSkipped(bench: Bench, step: BenchStep, reason: string, at: string): Bench {
  const steps = bench.steps.filter((s) => s.step !== step)
  return { ...bench, steps: [...steps, { step, state: 'skipped', at, reason, basis: {} }] }
}

/** The bench with an adjuster moved. */
export function withPosition(bench: Bench, end: End, adjusterId: string, value: number, known: Known): Bench {
  const positions = bench.positions.filter((p) => p.adjusterId !== adjusterId)
  return { ...bench, positions: [...positions, { end, adjusterId, value, known }] }
}

/**
 * The bench with a part set by hand. On another spring the rebound tests of that end no longer hold: they are dropped, so
 * that the bench test brackets anew.
 */
export function withPartAt(bench: Bench, end: End, part: Adjuster, value: number, known: Known): Bench {
  const was = benchPosition(bench, part.id)
  const moved = was === null || Math.abs(was - value) > (part.kind === 'pressure' ? 1 : 1e-6)
  const next = withPosition(bench, end, part.id, value, known)
  if (!moved || familyOf(part) !== 'spring') return next
  return { ...next, reboundTests: next.reboundTests.filter((t) => t.end !== end) }
}
