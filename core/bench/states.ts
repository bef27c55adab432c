import type { Bench, BenchStep } from '#contract/bench'
import type { SuspensionUnit } from '#contract/unit'
import { evidenceOf, type BenchRider, type Evidence } from './evidence.ts'
import { benchFacts, slack, stepsFor } from './steps.ts'

export interface FactChange {
  fact: string
  was: number | string | null
  is: number | string | null
}

export interface StepState {
  step: BenchStep
  state: 'open' | 'done' | 'skipped' | 'out' | 'stale'
  /** Why it is stale. */
  changed: FactChange[]
  /** Why it was skipped, or left out of line. */
  reason: string
  /** What it has to show for itself now. */
  evidence: Evidence
}

/**
 * Where every step stands. Done is stale once a fact it rests on has moved by more than a gauge can tell, or once its
 * evidence is not there (any more).
 */
export function stepStates(bench: Bench, units: readonly SuspensionUnit[], rider: BenchRider): StepState[] {
  const facts = benchFacts(bench, units, rider.ridingMassKg)
  return stepsFor(bench, units).map((step) => {
    const evidence = evidenceOf(step, bench, units, rider)
    const record = bench.steps.find((s) => s.step === step)
    const is = (state: StepState['state'], changed: FactChange[] = []): StepState => ({
      step,
      state,
      changed,
      reason: record?.reason ?? '',
      evidence,
    })
    // Out of line once, and right since: to be closed again.
    if (!record || (record.state === 'out' && evidence.state === 'enough')) return is('open')
    if (record.state === 'skipped') return is('skipped')
    const changed = Object.entries(record.basis).flatMap(([fact, was]) => {
      const now = facts[fact] ?? null
      const same =
        typeof was === 'number' && typeof now === 'number'
          ? Math.abs(was - now) <= slack(step, fact)
          : was === now
      return same ? [] : [{ fact, was, is: now }]
    })
    const held = record.state === 'done' ? evidence.state === 'enough' : evidence.state === 'out'
    return changed.length > 0 || !held ? is('stale', changed) : is(record.state)
  })
}
