import type { DayBundle } from '#contract/endpoints'
import { wordRules } from '../causes/words.ts'
import { conditionsAt } from '../conditions/at.ts'
import { logOf } from '../conditions/log.ts'
import { settingsCell, type Cell } from './parts.ts'

/** Columns of runs as a plain file, in their order; the unit is part of the name. */
export const runColumns = [
  'date',
  'rider',
  'bike',
  'trail',
  'place',
  'run',
  'started_at',
  'kind',
  'void_reason',
  'rating',
  'words',
  'against',
  'settings',
  'mind',
  'effort',
  'duration_s',
  'ring_front_mm',
  'ring_rear_mm',
  'bottoms_heard_front',
  'bottoms_heard_rear',
  'tyre_front_psi',
  'tyre_rear_psi',
  'air_temp_c',
  'altitude_m',
  'surface',
  'note',
  'feel_note',
] as const
export type RunRow = Record<(typeof runColumns)[number], Cell>

const strengths = { 1: ', a little', 2: '', 3: ', strong' } as const
const verdicts = {
  '-2': 'much worse than',
  '-1': 'worse than',
  0: 'the same as',
  1: 'better than',
  2: 'much better than',
}

/** Runs of a day, one row each, in their order. What nobody noted is an empty cell, never a nought. */
export function runRows(b: DayBundle): RunRow[] {
  const numberOf = new Map(b.runs.map((r, i) => [r.id, i + 1]))
  return b.runs.map((run) => {
    const feel = b.feels.find((f) => f.runId === run.id)
    const setup = b.setups.find((s) => s.id === run.setupId)
    const fitted = b.units.filter((u) => u.id === setup?.frontUnitId || u.id === setup?.rearUnitId)
    const here = conditionsAt(logOf(b), run)
    const sectionOf = (id: string | null) => b.trail.sections.find((s) => s.id === id)?.name ?? 'whole run'
    return {
      date: b.day.date,
      rider: b.rider.name,
      bike: b.bike.name,
      trail: b.trail.name,
      place: b.trail.place,
      run: numberOf.get(run.id)!,
      started_at: run.startedAt,
      kind: run.kind,
      void_reason: run.voidReason ?? '',
      rating: feel?.rating ?? '',
      words: (feel?.marks ?? [])
        .map(
          (m) => `${wordRules[m.word].label} (${m.end}, ${sectionOf(m.sectionId)}${strengths[m.strength]})`,
        )
        .join('; '),
      against: (feel?.verdicts ?? [])
        .flatMap((v) => {
          const other = numberOf.get(v.againstRunId)
          return other === undefined ? [] : [`${verdicts[v.value]} run ${other}`]
        })
        .join('; '),
      settings: setup ? settingsCell(setup.positions, fitted) : '',
      mind: run.mind,
      effort: run.effort ?? '',
      duration_s: run.durationS ?? '',
      ring_front_mm: run.ringFrontMm ?? '',
      ring_rear_mm: run.ringRearMm ?? '',
      bottoms_heard_front: run.heardBottomsFront ?? '',
      bottoms_heard_rear: run.heardBottomsRear ?? '',
      tyre_front_psi: run.tyreFrontPsi ?? '',
      tyre_rear_psi: run.tyreRearPsi ?? '',
      air_temp_c: here.airTempC ?? '',
      altitude_m: here.altitudeM ?? '',
      surface: here.surface ?? '',
      note: run.note,
      feel_note: feel?.note ?? '',
    }
  })
}
