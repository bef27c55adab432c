import type { Bench, ReadingMark, SagReading } from '#contract/bench'
import type { SuspensionUnit } from '#contract/unit'
import { judgeRepeats, type RepeatJudgement } from '../spring/reading.ts'
import { benchPosition } from './steps.ts'
import { strokePct } from '../spring/sag.ts'

/** What a sag reading rests on; two are repeats of each other when it is the same. */
export type SagConditions = Pick<
  SagReading,
  'posture' | 'together' | 'pressurePsi' | 'springRateNPerMm' | 'preloadTurns' | 'spacers' | 'gaugeId'
>

/** Two pressures closer than this are one to a gauge, psi. */
export const samePressurePsi = 0.5

const near = (a: number | null, b: number | null, within: number) =>
  a === null || b === null ? a === b : Math.abs(a - b) <= within

/**
 * Whether two readings are repeats: same posture, both ends alike, one pressure on one gauge, same spring, preload and
 * spacers. The one rule for it.
 */
export function belongTogether(a: SagConditions, b: SagConditions): boolean {
  return (
    a.posture === b.posture &&
    a.together === b.together &&
    near(a.pressurePsi, b.pressurePsi, samePressurePsi) &&
    (a.pressurePsi === null || a.gaugeId === b.gaugeId) &&
    near(a.springRateNPerMm, b.springRateNPerMm, 1e-6) &&
    near(a.preloadTurns, b.preloadTurns, 1e-6) &&
    // A unit without spacers may say none or nothing.
    (a.spacers ?? 0) === (b.spacers ?? 0)
  )
}

/** What a reading taken now would rest on. */
export function sagConditions(bench: Bench, unit: SuspensionUnit, together: boolean): SagConditions {
  const at = (find: (a: SuspensionUnit['adjusters'][number]) => boolean) => {
    const a = unit.adjusters.find(find)
    return a ? { a, value: benchPosition(bench, a.id) } : null
  }
  const preload = at((a) => a.kind === 'turn' && a.role === 'preload')
  return {
    posture: together ? 'ready' : bench.posture[unit.end],
    together,
    pressurePsi: at((a) => a.kind === 'pressure' && a.role === 'main-pressure')?.value ?? null,
    springRateNPerMm: at((a) => a.kind === 'spring-rate')?.value ?? null,
    preloadTurns:
      preload?.a.kind === 'turn' && preload.value !== null ? preload.a.turns - preload.value : null,
    spacers: at((a) => a.kind === 'spacer')?.value ?? null,
    gaugeId: bench.gaugeId[unit.end],
  }
}

export const readingMarkWords: Record<ReadingMark, string> = {
  'compression-closed': 'compression was not open',
  'lever-closed': 'the lever was not open',
  'brakes-held': 'brakes held',
  'kit-missing': 'without the kit',
  'not-confirmed-open': 'nobody said that levers and compression were open',
}

/** Why a reading does not count for the bench as it stands; null when it does. */
export function whyNotCounted(r: SagReading, now: SagConditions): string | null {
  if (r.leftOut) return 'left out'
  if (r.marks.length > 0) return r.marks.map((m) => readingMarkWords[m]).join(', ')
  if (r.posture !== now.posture) return 'another posture'
  if (r.pressurePsi !== null && r.gaugeId !== now.gaugeId) return 'another gauge'
  if (!near(r.pressurePsi, now.pressurePsi, samePressurePsi)) return 'at another pressure'
  return belongTogether(r, now) ? null : 'on another spring'
}

export interface SagNow {
  /** Readings that count for the bench as it stands. */
  counted: SagReading[]
  /** null before the first. */
  judged: RepeatJudgement | null
  /** Sag, %; null when unread, or while two readings disagree. */
  pct: number | null
}

/**
 * Sag of an end as the bench stands now. Read at another pressure, on another gauge or spring, in another posture, with
 * something closed: unread.
 */
export function sagNow(bench: Bench, unit: SuspensionUnit, together = false): SagNow {
  const now = sagConditions(bench, unit, together)
  const counted = bench.readings.filter(
    (r) => r.end === unit.end && r.together === together && whyNotCounted(r, now) === null,
  )
  const judged = counted.length
    ? judgeRepeats(
        counted.map((r) => strokePct(r.sagMm, unit.strokeMm)),
        unit.strokeMm,
      )
    : null
  return { counted, judged, pct: judged?.meanPct ?? null }
}
