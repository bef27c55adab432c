import type { End } from '#contract/common'
import type { Posture } from '#contract/bench'
import type { Rider } from '#contract/rider'
import { InputError } from '../errors.ts'
import { standardGravity } from '../units/convert.ts'

/** Share of the weight on the front wheel, still, on flat ground: usual values. */
export const usualFrontShare: Record<Posture, number> = { seated: 0.4, ready: 0.47 }
/** Sprung part of a bike whose weight is not known, kg: frame and bars without wheels. */
export const usualSprungBikeKg = { plain: 10, electric: 18 }
/** Part of a bike's weight that its springs carry: the wheels stand on the ground by themselves. */
const sprungShare = 0.7

/** Rider with everything worn and carried, kg. @throws InputError 'mass.missing' */
export function ridingMassKg(rider: Pick<Rider, 'bodyMassKg' | 'kitMassKg' | 'waterL'>): number {
  if (rider.bodyMassKg === null) throw new InputError('mass.missing')
  return rider.bodyMassKg + (rider.kitMassKg ?? 0) + rider.waterL
}

/** The same where body and kit were both said, 0 kg of kit too; null: body alone is no riding weight. */
export const saidRidingMassKg = (rider: Pick<Rider, 'bodyMassKg' | 'kitMassKg' | 'waterL'>): number | null =>
  rider.bodyMassKg === null || rider.kitMassKg === null ? null : ridingMassKg(rider)

export interface LoadCase {
  ridingMassKg: number
  bikeMassKg: number | null
  eBike: boolean
  /** Measured on two scales, %; null = the usual share. */
  frontSharePct: number | null
  posture: Posture
}

/** Weight on the front wheel measured on two scales, %; null = the usual share. */
export interface FrontShares {
  seatedPct: number | null
  readyPct: number | null
}

/** Share of the weight on the front wheel in a posture, 0…1. */
export function frontShare(shares: FrontShares, posture: Posture): number {
  const measured = posture === 'seated' ? shares.seatedPct : shares.readyPct
  return measured === null ? usualFrontShare[posture] : measured / 100
}

/** Mass that one end's spring holds, still on flat ground, kg. Ignores the slope of the fork and of the ground. */
export function sprungMassKg(end: End, c: LoadCase): number {
  const bike =
    c.bikeMassKg === null ? usualSprungBikeKg[c.eBike ? 'electric' : 'plain'] : c.bikeMassKg * sprungShare
  const front = c.frontSharePct === null ? usualFrontShare[c.posture] : c.frontSharePct / 100
  return (c.ridingMassKg + bike) * (end === 'front' ? front : 1 - front)
}

/** Still load at the axle, N. */
export const axleLoadN = (end: End, c: LoadCase) => sprungMassKg(end, c) * standardGravity
