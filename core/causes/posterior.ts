import type { End } from '#contract/common'
import type { Cause, CauseKind, Evidence } from '#contract/proposal'

/** A cause at a place, with what speaks for and against it. */
export interface Finding {
  kind: CauseKind
  end: End | null
  evidence: Evidence
}

/** Log-odds before anything is said. "Nothing wrong" starts ahead: a complaint has to be made. */
const prior: Partial<Record<CauseKind, number>> = {
  none: 0.8,
  'line-or-rider': 0.2,
  stiction: -0.6,
  tyres: -0.2,
  heat: -0.8,
  cold: -0.8,
  'nose-low': -0.3,
  'nose-high': -0.3,
}

/** The same topic seen in several runs is one line that weighs what they weigh together. */
function join(lines: Evidence[], e: Evidence): void {
  const held = lines.findIndex((x) => x.topic === e.topic)
  if (held < 0) lines.push(e)
  else {
    const old = lines[held]
    lines[held] = {
      ...e,
      weight: old.weight + e.weight,
      runNumbers: [...new Set([...old.runNumbers, ...e.runNumbers])].sort((a, b) => a - b),
    }
  }
}

/** Causes less likely than this are not kept. */
export const keepAbove = 0.05

/**
 * Normalised probabilities over all causes that were named, softmax of prior + evidence.
 * @returns causes above 5 %, likely first, each with all its evidence
 */
export function posterior(findings: readonly Finding[]): Cause[] {
  const byPlace = new Map<string, { kind: CauseKind; end: End | null; evidence: Evidence[] }>()
  const seat = (kind: CauseKind, end: End | null) => {
    const key = `${kind}@${end}`
    let c = byPlace.get(key)
    if (!c) byPlace.set(key, (c = { kind, end, evidence: [] }))
    return c
  }
  seat('none', null)
  seat('line-or-rider', null)
  for (const f of findings) join(seat(f.kind, f.end).evidence, f.evidence)
  const causes = [...byPlace.values()]
  const scores = causes.map((c) => (prior[c.kind] ?? 0) + c.evidence.reduce((s, e) => s + e.weight, 0))
  const top = Math.max(...scores)
  const weights = scores.map((s) => Math.exp(s - top))
  const total = weights.reduce((s, w) => s + w, 0)
  return causes
    .map((c, i) => ({ ...c, probability: weights[i] / total }))
    .filter((c) => c.probability > keepAbove)
    .sort((a, b) => b.probability - a.probability)
}
