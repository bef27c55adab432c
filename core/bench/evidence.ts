import type { Bench, BenchStep } from '#contract/bench'
import type { End } from '#contract/common'
import type { Known } from '#contract/setup'
import type { SuspensionUnit } from '#contract/unit'
import { adjusterName } from '../adjusters/words.ts'
import type { FrontShares } from '../spring/load.ts'
import { sagWindowPct } from '../spring/sag.ts'
import { balanceNow } from './balance.ts'
import { judgeEndOfStroke } from './endOfStroke.ts'
import { preparationChecks } from './preparation.ts'
import { reboundAdvice } from './reboundBench.ts'
import { sagNow } from './sagNow.ts'

/** Who stands on the bench, as far as the steps need it. */
export interface BenchRider {
  /** Body, kit and water, kg; null without a body weight. */
  ridingMassKg: number | null
  /** Whether anybody said what the kit weighs; "nothing" is an answer, an empty field is none. */
  kitKnown: boolean
  shares: FrontShares
}

/**
 * What a step has to show for itself. enough: it is right · out: it was looked at and is not right · missing: not looked
 * at yet. Only what somebody ticked, read, turned or tested counts.
 */
export interface Evidence {
  state: 'enough' | 'out' | 'missing'
  /** What is missing, or what is out; empty when enough. */
  words: string[]
}

const enough: Evidence = { state: 'enough', words: [] }
const missing = (words: string[]): Evidence => (words.length ? { state: 'missing', words } : enough)

/** Key of the check "this end was cycled and topped up". */
export const equalisedKey = (end: End) => `equalised-${end}`

/** Set or read on this bench: what was known before it began is no evidence of it. */
const isFromHere = (bench: Bench, known: Known | undefined) =>
  known !== undefined && known.how !== 'assumed' && (known.at ?? '') >= bench.startedAt

/** Evidence of a step as the bench stands now. */
export function evidenceOf(
  step: BenchStep,
  bench: Bench,
  units: readonly SuspensionUnit[],
  rider: BenchRider,
): Evidence {
  const here = (id: string) => isFromHere(bench, bench.positions.find((p) => p.adjusterId === id)?.known)
  const partsMissing = (wanted: (a: SuspensionUnit['adjusters'][number]) => boolean) =>
    units.flatMap((u) =>
      u.adjusters
        .filter((a) => wanted(a) && !here(a.id))
        .map((a) => `${u.end} ${adjusterName(a).toLowerCase()}`),
    )
  switch (step) {
    case 'who':
      return missing([
        ...(rider.ridingMassKg === null ? ['the rider’s weight'] : []),
        ...(rider.kitKnown ? [] : ['the weight of the kit; 0 is an answer']),
      ])
    case 'prepare': {
      const checks = preparationChecks(units)
      const out = checks.filter((c) => bench.checksOut.includes(c.key))
      if (out.length) return { state: 'out', words: out.map((c) => c.words) }
      return missing(checks.filter((c) => !bench.checks.includes(c.key)).map((c) => c.words))
    }
    case 'start':
      return missing(
        partsMissing((a) => a.role === 'main-pressure' || a.kind === 'spring-rate').map((w) => `${w} set`),
      )
    case 'equalise':
      return missing(
        units
          .filter((u) => u.spring === 'air' && !bench.checks.includes(equalisedKey(u.end)))
          .map((u) => `${u.end} cycled and topped up`),
      )
    case 'sag-rear':
    case 'sag-front':
      return sagEvidence(bench, units, step === 'sag-rear' ? 'rear' : 'front')
    case 'sag-both': {
      const balance = balanceNow(bench, units, rider.shares)
      if (!balance) return missing(['a reading of both ends together, at the pressures they have now'])
      return balance.verdict === 'balanced' ? enough : { state: 'out', words: [balance.words] }
    }
    case 'rebound':
      return reboundEvidence(bench, units)
    case 'compression':
      return missing(partsMissing((a) => a.role.includes('compression') || a.kind === 'lever'))
    case 'end-of-stroke':
      return endEvidence(bench, units)
    case 'save':
      return bench.finishedSetupId ? enough : missing(['the baseline, saved'])
  }
}

function sagEvidence(bench: Bench, units: readonly SuspensionUnit[], end: End): Evidence {
  const unit = units.find((u) => u.end === end)
  if (!unit) return enough
  const { pct, judged } = sagNow(bench, unit)
  if (pct === null)
    return missing([
      judged ? 'one more reading: the two disagree' : `a ${end} reading at the pressure it has now`,
    ])
  const off = pct - unit.sagTargetPct
  return Math.abs(off) <= sagWindowPct(unit.strokeMm)
    ? enough
    : { state: 'out', words: [`${end} sag is ${pct.toFixed(1)} %, its target ${unit.sagTargetPct} %`] }
}

function reboundEvidence(bench: Bench, units: readonly SuspensionUnit[]): Evidence {
  const words: string[] = []
  const out: string[] = []
  for (const u of units)
    for (const dial of u.adjusters) {
      if (dial.kind !== 'click' && dial.kind !== 'turn') continue
      // High-speed rebound shows on the trail, not in a push.
      if (!dial.role.includes('rebound') || dial.role === 'high-speed-rebound') continue
      const at = bench.positions.find((p) => p.adjusterId === dial.id)?.value
      const tests = bench.reboundTests.filter((t) => t.adjusterId === dial.id)
      const name = `${u.end} ${adjusterName(dial).toLowerCase()}`
      if (at === undefined || !tests.some((t) => Math.abs(t.value - at) < 1e-6))
        words.push(`a push test of ${name} where it stands`)
      else if (reboundAdvice(tests, dial, at, 'race').kind !== 'good') out.push(`${name} does not settle`)
    }
  return out.length ? { state: 'out', words: [...out, ...words] } : missing(words)
}

function endEvidence(bench: Bench, units: readonly SuspensionUnit[]): Evidence {
  const words: string[] = []
  const out: string[] = []
  for (const u of units) {
    const last = bench.travelReadings.filter((r) => r.end === u.end).at(-1)
    if (!last) {
      words.push(`the ${u.end} ring after a bounce, a drop or a ride`)
      continue
    }
    const spacer = u.adjusters.find((a) => a.kind === 'spacer')
    const pieces = bench.positions.find((p) => p.adjusterId === spacer?.id)?.value ?? null
    const sag = sagNow(bench, u).pct
    const judged = judgeEndOfStroke(
      last.ringMm,
      u.strokeMm,
      last.effort,
      sag === null ? null : sag - u.sagTargetPct,
      pieces,
      spacer?.kind === 'spacer' ? spacer.maxCount : null,
    )
    if (judged.verdict !== 'good') out.push(`${u.end}: ${judged.words}`)
  }
  return out.length ? { state: 'out', words: [...out, ...words] } : missing(words)
}

/**
 * Whether a bench has anything to keep: a baseline holds what somebody set or read on it, never what was there before
 * and never an estimate.
 */
export function hasAnythingRead(bench: Bench): boolean {
  return (
    bench.positions.some((p) => isFromHere(bench, p.known)) ||
    bench.readings.some((r) => !r.leftOut) ||
    bench.reboundTests.length > 0
  )
}
