import { InputError } from '../errors.ts'

/** Usual factor of damping per click closed. */
export const usualRatioPerClick = { low: 1.12, high: 1.1 }

/**
 * Factor per click from the damping at both stops: r = (c_closed/c_open)^(1/N).
 * @throws InputError 'damper.positive'
 */
export function ratioPerClick(closed: number, open: number, clicks: number): number {
  for (const [what, got] of Object.entries({
    'Closed damping': closed,
    'Open damping': open,
    'The click count': clicks,
  }))
    if (!(got > 0)) throw new InputError('damper.positive', { what, got })
  return Math.pow(closed / open, 1 / clicks)
}

/**
 * Damping ratio at the axle: ζ = c/(2·√(k·m)).
 * @param dampingNsPerM c, N·s/m  @param stiffnessNPerM k, N/m  @param massKg m
 */
export function dampingRatio(dampingNsPerM: number, stiffnessNPerM: number, massKg: number): number {
  return dampingNsPerM / (2 * Math.sqrt(stiffnessNPerM * massKg))
}

/**
 * Clicks that keep the damping ratio when spring or mass change: ln(√(k₂m₂)/√(k₁m₁))/ln r. Positive = close.
 * @throws InputError 'damper.ratio' for r ≤ 1, 'damper.positive'
 */
export function clicksForSameRatio(
  before: { stiffnessNPerM: number; massKg: number },
  after: { stiffnessNPerM: number; massKg: number },
  ratio: number,
): number {
  if (!(ratio > 1)) throw new InputError('damper.ratio', { got: ratio })
  const size = (s: typeof before) => {
    const got = s.stiffnessNPerM * s.massKg
    if (!(got > 0)) throw new InputError('damper.positive', { what: 'Stiffness times mass', got })
    return Math.sqrt(got)
  }
  return Math.log(size(after) / size(before)) / Math.log(ratio)
}
