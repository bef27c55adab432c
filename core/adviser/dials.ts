import type { Adjuster } from '#contract/adjuster'
import type { End } from '#contract/common'
import type { SuspensionUnit } from '#contract/unit'
import { adjusterRange } from '../adjusters/range.ts'
import { netPressurePsi, pressureForLoadPsi } from '../spring/air.ts'
import { unitAir } from '../spring/unitSpring.ts'
import type { SetupSpace } from './dayHistory.ts'
import { fittedUnits } from './history.ts'

/**
 * An adjuster that can be tuned between runs, on a common scale: one "click" of a dial, 2 % of a pressure, a third of
 * a spacer move the bike about equally far. Constants: docs/models.md, "Next change".
 */
export interface Dial {
  end: End
  adjuster: Adjuster
  /** Ends of the part's own range, click-equivalents. */
  low: number
  high: number
  toClicks: (value: number) => number
  /** The canonical value at a place on the common scale; between positions, for spans. */
  fromClicks: (clicks: number) => number
  /** For spacers of an air unit: the pressure, psi, that keeps the sag when their number changes. */
  sameSagPsi: ((spacers: { from: number; to: number }, psi: number) => number) | null
}

/** Share of pressure or spring rate that counts as one click. */
export const shareOfClick = 0.02
const clicksPerSpacer = 3
/** A usual dial has about this many clicks; a dial with fewer moves further with each. */
const usualClicks = 16

type Scale = Pick<Dial, 'toClicks' | 'fromClicks'>

const linear = (per: number): Scale => ({
  toClicks: (v) => v * per,
  fromClicks: (z) => z / per,
})

/** null for parts that are not tuned click by click between runs: levers. */
function scaleOf(a: Adjuster): Scale | null {
  switch (a.kind) {
    case 'click': {
      const per = Math.min(3, Math.max(0.7, usualClicks / a.clicks))
      return linear(per)
    }
    case 'turn':
      return linear(usualClicks / a.turns)
    case 'pressure':
    case 'spring-rate':
      return {
        toClicks: (v) => Math.log(Math.max(1, v)) / shareOfClick,
        fromClicks: (z) => Math.exp(z * shareOfClick),
      }
    case 'spacer':
      return linear(clicksPerSpacer)
    case 'custom':
      return linear(usualClicks / (a.max - a.min))
    case 'lever':
      return null
  }
}

/** Every adjuster of both ends that can be tuned between runs, front first. */
export function dialsOf(space: SetupSpace): Dial[] {
  return fittedUnits(space).flatMap((u) =>
    u.adjusters.flatMap((adjuster): Dial[] => {
      const scale = scaleOf(adjuster)
      if (!scale) return []
      const r = adjusterRange(adjuster)
      return [
        {
          end: u.end,
          adjuster,
          low: scale.toClicks(r.min),
          high: scale.toClicks(r.max),
          sameSagPsi: adjuster.kind === 'spacer' ? sameSagOf(u) : null,
          ...scale,
        },
      ]
    }),
  )
}

function sameSagOf(u: SuspensionUnit): Dial['sameSagPsi'] {
  if (!u.adjusters.some((a) => a.role === 'main-pressure')) return null
  const { shape } = unitAir(u)
  const depth = u.sagTargetPct / 100
  return ({ from, to }, psi) =>
    pressureForLoadPsi(netPressurePsi(depth, psi, shape, { spacers: from }), depth, shape, { spacers: to })
}
