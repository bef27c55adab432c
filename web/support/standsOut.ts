import type { Analysis, EndMetrics } from '#contract/recording'
import type { TrailSection } from '#contract/trail'

export interface Notable {
  title: string
  detail: string
  end: 'front' | 'rear' | null
  bad: boolean
}

const one = (x: number) => (Math.round(x * 10) / 10).toFixed(1)

/**
 * What a recording says loudest, in words; at most six lines, faults first.
 *
 * @param wrongDepths ends whose sensor's zero has moved: no depth of theirs says anything
 */
export function standsOut(
  a: Analysis,
  sections: readonly TrailSection[],
  sagTargets: Record<'front' | 'rear', number | null>,
  wrongDepths: readonly ('front' | 'rear')[],
): Notable[] {
  const out: Notable[] = []
  for (const end of ['front', 'rear'] as const) {
    const m = a.whole[end]
    if (!m) continue
    const name = end === 'front' ? 'Front' : 'Rear'
    if (m.valleyDriftPctPerHit !== null && m.valleyDriftPctPerHit > 0.4) {
      const where = worstSection(a, sections, end)
      const spread = m.valleyDriftSe === null ? '' : ` ± ${one(m.valleyDriftSe)}`
      out.push({
        title: `${name} sinks through ${where ?? 'hit trains'}`,
        detail: `valleys move +${one(m.valleyDriftPctPerHit)}${spread} % of travel per hit, ${m.trains} trains`,
        end,
        bad: true,
      })
    }
    const isDepthRight = !wrongDepths.includes(end)
    if (isDepthRight && m.hardBottomOuts > 0)
      out.push({
        title: `${m.hardBottomOuts} hard bottom-${m.hardBottomOuts === 1 ? 'out' : 'outs'}, ${end}`,
        detail: 'faster than 500 mm/s through 90 % of travel; once on the biggest hit is fine',
        end,
        bad: m.hardBottomOuts > 1,
      })
    const target = sagTargets[end]
    if (isDepthRight && target !== null && Math.abs(m.rideHeightPct - target) > 5) {
      const deep = m.rideHeightPct > target
      out.push({
        title: `${name} rides ${deep ? 'deep' : 'high'}`,
        detail: `${one(m.rideHeightPct)} % of travel on average; the sag target is ${one(target)} %${end === 'rear' && a.rearAt === 'axle' ? ' of wheel travel' : ''}`,
        end,
        bad: true,
      })
    }
    if (m.reboundDampingRatio !== null)
      out.push({ title: `${name} return`, detail: returnWords(m), end, bad: m.reboundDampingRatio < 0.25 })
  }
  if (a.whole.balancePct !== null && wrongDepths.length === 0) {
    const off = a.whole.balancePct
    out.push({
      title: 'Balance',
      detail: `the front uses ${one(Math.abs(off))} % of travel ${off > 0 ? 'more' : 'less'} than the rear`,
      end: null,
      bad: false,
    })
  }
  return out.sort((x, y) => Number(y.bad) - Number(x.bad)).slice(0, 6)
}

function returnWords(m: EndMetrics): string {
  const z = m.reboundDampingRatio!
  const returns = `${m.reboundDampingHits} quiet returns`
  const spread = m.reboundDampingSe === null ? '' : ` ± ${Math.max(0.01, m.reboundDampingSe).toFixed(2)}`
  return z >= 0.8
    ? `no overshoot, damping ratio 0.8 or above, ${returns}`
    : `damping ratio ${z.toFixed(2)}${spread}, ${returns}`
}

function worstSection(a: Analysis, sections: readonly TrailSection[], end: 'front' | 'rear'): string | null {
  const drift = (s: Analysis['sections'][number]) => s[end]?.valleyDriftPctPerHit ?? -Infinity
  const worst = a.sections.reduce<Analysis['sections'][number] | null>(
    (w, s) => (drift(s) > (w ? drift(w) : 0.3) ? s : w),
    null,
  )
  return sections.find((s) => s.id === worst?.sectionId)?.name ?? null
}
