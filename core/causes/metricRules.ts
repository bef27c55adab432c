import type { End } from '#contract/common'
import type { CauseKind } from '#contract/proposal'
import type { EndMetrics, SpanMetrics } from '#contract/recording'

export interface MetricFinding {
  kind: CauseKind
  end: End | null
  weight: number
  text: string
  /** Which figure it is, for joining the same finding of several runs. */
  topic: string
}

const one = (x: number) => (Math.round(x * 10) / 10).toFixed(1)
const signed = (x: number) => (x >= 0 ? '+' : '−') + one(Math.abs(x))
const cap = (x: number, most: number) => Math.min(most, x)

/** Ride height may stray this far from the sag target before the spring is blamed, % points. */
export const springBandPct = 5

/** Depth that a train of hits adds, in valley drifts: a stated guess, trains are four to eight hits. */
const hitsInTrain = 4

/** What one end's figures of a whole run say about causes. Thresholds and weights: docs/models.md, "Causes". */
function endFindings(m: EndMetrics, end: End, sagTargetPct: number): MetricFinding[] {
  const out: MetricFinding[] = []
  const say = (topic: string, kind: CauseKind, weight: number, text: string) =>
    out.push({ kind, end, weight, text, topic: `${topic} ${end}` })
  if (m.valleyDriftPctPerHit !== null) {
    const text = `${end} valleys move ${signed(m.valleyDriftPctPerHit)} % of travel per hit, ${m.trains} ${m.trains === 1 ? 'train' : 'trains'}`
    const trust = m.trains >= 2 ? 1 : 0.6
    if (m.valleyDriftPctPerHit > 0.6) {
      say('drift', 'rebound-slow', trust * cap(1.1 * m.valleyDriftPctPerHit, 2.2), text)
      say('drift', 'rebound-fast', -trust * cap(0.8 * m.valleyDriftPctPerHit, 1.5), text)
    } else if (m.valleyDriftPctPerHit < 0.25) say('drift', 'rebound-slow', -0.7 * trust, text)
  }
  if (m.reboundDampingRatio !== null && m.reboundDampingHits >= 3) {
    const z = m.reboundDampingRatio
    const text = `${end} returns with a damping ratio of ${z >= 0.8 ? '0.8 or above' : z.toFixed(2)}, ${m.reboundDampingHits} single hits`
    if (z < 0.3) {
      say('return', 'rebound-fast', cap((0.3 - z) * 10, 1.8), text)
      say('return', 'rebound-slow', -0.8, text)
    } else if (z >= 0.75) say('return', 'rebound-fast', -0.6, text)
  }
  // A rear that packs down rides deep because of its damper: what the sinking explains is not the spring's fault.
  const packed = hitsInTrain * Math.max(0, m.valleyDriftPctPerHit ?? 0)
  const raw = m.rideHeightPct - sagTargetPct
  const off = raw > 0 ? Math.max(0, raw - packed) : raw
  if (Math.abs(off) > springBandPct) {
    say(
      'ride height',
      off > 0 ? 'spring-soft' : 'spring-firm',
      cap(0.6 + Math.abs(off) / 8, 2),
      `${end} rides at ${one(m.rideHeightPct)} % of travel, ${one(Math.abs(raw))} points ${off > 0 ? 'deeper' : 'higher'} than the sag target of ${one(sagTargetPct)} %`,
    )
  }
  if (m.hardBottomOuts >= 2) {
    const text = `${m.hardBottomOuts} hard bottom-outs at the ${end}`
    say('bottom-outs', 'ramp-low', 0.8, text)
    say('bottom-outs', 'spring-soft', off > 2 ? 0.7 : 0.2, text)
    say('bottom-outs', 'hsc-open', 0.4, text)
  } else if (m.bigHits >= 3 && m.depthMaxPct < 82) {
    const text = `${end} used ${Math.round(m.depthMaxPct)} % of its travel over ${m.bigHits} big hits`
    say('travel use', 'ramp-high', 0.6, text)
    say('travel use', 'spring-firm', off < -2 ? 0.7 : 0.2, text)
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
        topic: 'balance',
        weight: cap(0.3 + Math.abs(off) / 10, 1.4),
        text: `the front rides ${one(Math.abs(off))} points ${low ? 'deeper' : 'higher'} against the rear than the sag targets ask`,
      })
    }
  }
  return out
}
