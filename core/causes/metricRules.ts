import type { End } from '#contract/common'
import type { CauseKind } from '#contract/proposal'
import type { EndMetrics, SpanMetrics } from '#contract/recording'

export interface MetricFinding {
  kind: CauseKind
  end: End | null
  weight: number
  text: string
}

const one = (x: number) => (Math.round(x * 10) / 10).toFixed(1)
const signed = (x: number) => (x >= 0 ? '+' : '−') + one(Math.abs(x))
const cap = (x: number, most: number) => Math.min(most, x)

/** Ride height may stray this far from the sag target before the spring is blamed, % points. */
export const springBandPct = 5

/** What one end's figures of a whole run say about causes. Thresholds and weights: docs/models.md, "Causes". */
function endFindings(m: EndMetrics, end: End, sagTargetPct: number): MetricFinding[] {
  const out: MetricFinding[] = []
  const say = (kind: CauseKind, weight: number, text: string) => out.push({ kind, end, weight, text })
  if (m.valleyDriftPctPerHit !== null) {
    const text = `${end} valleys move ${signed(m.valleyDriftPctPerHit)} % of travel per hit, ${m.trains} ${m.trains === 1 ? 'train' : 'trains'}`
    const trust = m.trains >= 2 ? 1 : 0.6
    if (m.valleyDriftPctPerHit > 0.6) {
      say('rebound-slow', trust * cap(1.1 * m.valleyDriftPctPerHit, 2.2), text)
      say('rebound-fast', -trust * cap(0.8 * m.valleyDriftPctPerHit, 1.5), text)
    } else if (m.valleyDriftPctPerHit < 0.25) say('rebound-slow', -0.7 * trust, text)
  }
  if (m.reboundDampingRatio !== null && m.reboundDampingHits >= 3) {
    const z = m.reboundDampingRatio
    const text = `${end} returns with a damping ratio of ${z >= 0.8 ? '0.8 or above' : z.toFixed(2)}, ${m.reboundDampingHits} single hits`
    if (z < 0.3) {
      say('rebound-fast', cap((0.3 - z) * 10, 1.8), text)
      say('rebound-slow', -0.8, text)
    } else if (z >= 0.75) say('rebound-fast', -0.6, text)
  }
  const off = m.rideHeightPct - sagTargetPct
  if (Math.abs(off) > springBandPct) {
    say(off > 0 ? 'spring-soft' : 'spring-firm', cap(0.6 + Math.abs(off) / 8, 2), `${end} rides at ${one(m.rideHeightPct)} % of travel, ${one(Math.abs(off))} points ${off > 0 ? 'deeper' : 'higher'} than the sag target of ${sagTargetPct} %`)
  }
  if (m.hardBottomOuts >= 2) {
    const text = `${m.hardBottomOuts} hard bottom-outs at the ${end}`
    say('ramp-low', 0.8, text)
    say('spring-soft', off > 2 ? 0.7 : 0.2, text)
    say('hsc-open', 0.4, text)
  } else if (m.bigHits >= 3 && m.depthMaxPct < 82) {
    const text = `${end} used ${Math.round(m.depthMaxPct)} % of its travel over ${m.bigHits} big hits`
    say('ramp-high', 0.6, text)
    say('spring-firm', off < -2 ? 0.7 : 0.2, text)
  }
  return out
}

/** Everything the figures of a run say, per end and about the balance. */
export function metricFindings(whole: SpanMetrics, sagTargets: Record<End, number | null>): MetricFinding[] {
  const out: MetricFinding[] = []
  for (const end of ['front', 'rear'] as const) {
    const m = whole[end]
    const target = sagTargets[end]
    if (m && target !== null) out.push(...endFindings(m, end, target))
  }
  if (whole.balancePct !== null && sagTargets.front !== null && sagTargets.rear !== null) {
    const off = whole.balancePct - (sagTargets.front - sagTargets.rear)
    if (Math.abs(off) > 6) {
      const low = off > 0
      out.push({
        kind: low ? 'nose-low' : 'nose-high',
        end: null,
        weight: cap(0.3 + Math.abs(off) / 10, 1.4),
        text: `the front rides ${one(Math.abs(off))} points ${low ? 'deeper' : 'higher'} against the rear than the sag targets ask`,
      })
    }
  }
  return out
}
