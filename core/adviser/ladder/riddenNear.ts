import { setupOf } from '../history.ts'
import type { Climb } from './climb.ts'

/** A target this near to what was ridden is the same, psi. */
const targetGivePsi = 2

/** The target was ridden today and left again: what the rider made of it counts, not the rule. */
export const wasRiddenNear = (c: Climb, adjusterId: string, target: number, give = targetGivePsi) =>
  c.counted.some((r) => {
    const at = setupOf(c.h, r.run.setupId)?.positions.find((p) => p.adjusterId === adjusterId)?.value
    return at !== undefined && Math.abs(at - target) <= give
  })
