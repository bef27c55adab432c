import type { EndMetrics } from '#contract/recording'

/** How a figure grows with pace: figure ∝ pace^power, with what the power varies by from ground to ground. */
export interface PaceScaling {
  power: number
  sd: number
}
type Scaled = Partial<Record<keyof EndMetrics, { whole: PaceScaling; section: PaceScaling }>>

/**
 * Powers of the half-car on eight kinds of ground at 95 and 105 % of the pace, both ends, three grounds: of the whole run,
 * and from section to section, which differ. `paceScaling.test.ts` rides them again and holds this table to it.
 */
export const simulatedScaling: Scaled = {
  rideHeightPct: { whole: { power: 0.23, sd: 0.1 }, section: { power: 0.22, sd: 0.25 } },
  depthP95Pct: { whole: { power: 0.56, sd: 0.15 }, section: { power: 0.43, sd: 0.48 } },
  supportPct: { whole: { power: 1.94, sd: 0.4 }, section: { power: 1.03, sd: 0.9 } },
  smallBumpPct: { whole: { power: 1.27, sd: 0.3 }, section: { power: 1.36, sd: 1.13 } },
  reboundP95MmS: { whole: { power: 0.45, sd: 0.15 }, section: { power: 0.93, sd: 0.81 } },
}

/** A figure of one run of some settings, and how long the same way took; null where pace is not known. */
export interface PacedValue {
  value: number
  durationS: number | null
}

/** Repeats must differ so much in pace, and be so many, before they say how a figure grows with it. */
const leastSpread = 0.02
const leastDegrees = 3

/**
 * How a figure grows with pace: by this bike's own repeats, where they were ridden at different paces (log on log within
 * each setting, least squares), else by the simulator's table.
 *
 * @param groups repeats of each setting
 * @returns null where neither tells
 */
export function paceScaling(
  groups: readonly (readonly PacedValue[])[],
  simulated: PaceScaling | null,
): (PaceScaling & { from: 'repeats' | 'simulator' }) | null {
  let [xx, xy, yy, degrees] = [0, 0, 0, 0]
  for (const g of groups) {
    const known = g.flatMap((v) =>
      v.durationS && v.value > 0 ? [{ x: -Math.log(v.durationS), y: Math.log(v.value) }] : [],
    )
    if (known.length < 2) continue
    const mean = (of: (k: (typeof known)[0]) => number) => known.reduce((s, k) => s + of(k), 0) / known.length
    const [mx, my] = [mean((k) => k.x), mean((k) => k.y)]
    for (const k of known) {
      xx += (k.x - mx) ** 2
      xy += (k.x - mx) * (k.y - my)
      yy += (k.y - my) ** 2
    }
    degrees += known.length - 1
  }
  if (degrees >= leastDegrees && xx / degrees >= leastSpread ** 2) {
    const power = xy / xx
    const sd = Math.sqrt(Math.max(0, yy - power * xy) / (degrees - 1) / xx)
    if (!simulated || sd < simulated.sd) return { power, sd, from: 'repeats' }
  }
  return simulated && { ...simulated, from: 'simulator' }
}

/** What pace makes of a value, and how unsure that is: from one duration of the way to another. */
export function explainedByPace(
  value: number,
  scaling: PaceScaling,
  fromS: number,
  toS: number,
): { explained: number; sd: number } {
  const faster = Math.log(fromS / toS)
  return {
    explained: value * (Math.exp(scaling.power * faster) - 1),
    sd: Math.abs(value * faster * scaling.sd),
  }
}
