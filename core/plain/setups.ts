import type { BikeSetups } from '#contract/bikeSetups'
import { adjusterName } from '../adjusters/words.ts'
import { cellOf, unitOf, type Cell } from './parts.ts'

/** Columns of setups as a plain file, in their order: long form, a row for every part of every setup. */
export const setupColumns = [
  'rider',
  'bike',
  'setup',
  'made_at',
  'source',
  'state',
  'settled_on',
  'ridden_at',
  'end',
  'unit_name',
  'adjuster',
  'value',
  'unit',
  'known',
  'known_at',
  'why',
] as const
export type SetupRow = Record<(typeof setupColumns)[number], Cell>

/** Setups of a bike, in the order they were made. A part that nobody has read has a row without a value. */
export function setupRows(
  all: BikeSetups,
  of: { rider: string; bike: string; currentSetupId: string | null },
): SetupRow[] {
  return all.setups.flatMap((s, i) => {
    const fitted = all.units.filter((u) => u.id === s.frontUnitId || u.id === s.rearUnitId)
    const ridden = all.ridden.filter((r) => r.setupId === s.id)
    const name = all.kept.find((k) => k.id === s.id)?.name ?? s.name ?? ''
    return fitted.flatMap((u) =>
      u.adjusters.map((a) => {
        const p = s.positions.find((x) => x.adjusterId === a.id)
        return {
          rider: of.rider,
          bike: of.bike,
          setup: name || `setup ${i + 1}`,
          made_at: s.madeAt,
          source: s.reason.source,
          state: s.id === of.currentSetupId ? 'on the bike now' : s.wanted ? 'wanted, not turned' : '',
          settled_on: ridden
            .filter((r) => r.settled)
            .map((r) => r.date)
            .join('; '),
          ridden_at: ridden.map((r) => `${r.date} ${r.trailName}`).join('; '),
          end: u.end,
          unit_name: u.name,
          adjuster: adjusterName(a),
          value: p ? cellOf(a, p.value) : '',
          unit: unitOf(a),
          known: p?.known.how ?? 'not read',
          known_at: p?.known.at ?? '',
          why: s.reason.text,
        }
      }),
    )
  })
}
