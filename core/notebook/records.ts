import type { Bike } from '#contract/bike'
import type { NotedSetups } from '#contract/bikeSetups'
import type { Known } from '#contract/setup'
import type { NotedRow } from './read.ts'

const mostLetters = (text: string, most: number) =>
  text.length > most ? `${text.slice(0, most - 1)}…` : text

/**
 * Rows of a table as setups that a bike had, oldest first, each kept by its name. Nobody here has read or turned them: all
 * they hold is assumed.
 * @param from  what the table is called
 * @param newId makes an id
 * @param now   UTC, ISO 8601
 */
export function recordsOf(
  rows: readonly NotedRow[],
  bike: Pick<Bike, 'id' | 'frontUnitId' | 'rearUnitId'>,
  from: string,
  newId: () => string,
  now: string,
): NotedSetups {
  const inOrder = rows
    .filter((r): r is NotedRow & { date: string } => r.date !== null && r.faults.length === 0)
    .sort((a, b) => a.date.localeCompare(b.date) || a.line - b.line)
  const noted: NotedSetups = { setups: [], kept: [] }
  for (const row of inOrder) {
    const id = newId()
    // A day is no moment: noon, so that no zone makes another day of it.
    const madeAt = `${row.date}T12:00:00.000Z`
    const name = mostLetters(row.name || row.place || row.date, 80)
    const known: Known = {
      how: 'assumed',
      at: madeAt,
      by: '',
      source: mostLetters(`noted in ${from}, line ${row.line}`, 160),
      gaugeId: null,
      airTempC: null,
      altitudeM: null,
      place: mostLetters(row.place, 80),
    }
    noted.setups.push({
      id,
      bikeId: bike.id,
      parentId: noted.setups.at(-1)?.id ?? null,
      dayId: null,
      madeAt,
      name,
      frontUnitId: bike.frontUnitId,
      rearUnitId: bike.rearUnitId,
      positions: row.positions.map((p) => ({ ...p, known })),
      reason: {
        text: mostLetters(row.note, 2000),
        source: 'noted',
        linked: true,
        proposalId: null,
        undoes: null,
        fromSetupId: null,
      },
      foundIn: null,
      wanted: false,
    })
    noted.kept.push({
      id,
      version: 0,
      bikeId: bike.id,
      name,
      purposes: [],
      found: {
        place: known.place,
        airTempC: null,
        altitudeM: null,
        surface: null,
        pace: null,
        kitMassKg: null,
      },
      tyreFrontPsi: null,
      tyreRearPsi: null,
      geometry: '',
      words: mostLetters(row.note, 2000),
      by: '',
      keptAt: now,
    })
  }
  return noted
}
