import type { Adjuster, DamperRole } from '#contract/adjuster'

/** A dial with clicks, counted from closed. */
export const click = (id: string, role: DamperRole, clicks: number): Adjuster => ({
  id,
  alias: null,
  tool: 'hand',
  kind: 'click',
  role,
  clicks,
  step: 1,
  countBase: 'closed-0',
})
/** The main pressure of an air unit, psi by psi. */
export const air = (id: string, minPsi: number, maxPsi: number): Adjuster => ({
  id,
  alias: null,
  tool: 'shock-pump',
  kind: 'pressure',
  role: 'main-pressure',
  minPsi,
  maxPsi,
  stepPsi: 1,
})
/** Spacers of an air unit. */
export const spacers = (id: string, maxCount: number): Adjuster => ({
  id,
  alias: null,
  tool: 'workshop',
  kind: 'spacer',
  role: 'spacers',
  maxCount,
})
