import { asc, eq, isNull } from 'drizzle-orm'
import Papa from 'papaparse'
import { BikeSetups } from '#contract/bikeSetups'
import { DayBundle } from '#contract/endpoints'
import { changeColumns, changeRows } from '#core/plain/changes'
import type { Cell } from '#core/plain/parts'
import { runColumns, runRows } from '#core/plain/runs'
import { setupColumns, setupRows } from '#core/plain/setups'
import type { Store } from '../db/open.ts'
import { bikes, days, riders } from '../db/schema.ts'
import { Refusal } from '../refusal.ts'
import { readBikeSetups } from './bikeSetups.ts'
import { readDay } from './days.ts'

/** What goes out as rows. */
export const plainKinds = ['runs', 'changes', 'setups'] as const
type PlainKind = (typeof plainKinds)[number]

const columns: Record<PlainKind, readonly string[]> = {
  runs: runColumns,
  changes: changeColumns,
  setups: setupColumns,
}
/** Spreadsheets take a file without it for their own code page, and break every name that is not plain English. */
const byteOrderMark = '\uFEFF'

type Row = Record<string, Cell>
const header = (kind: PlainKind) => byteOrderMark + Papa.unparse([[...columns[kind]]]) + '\r\n'
/** Names and notes that people gave are never a formula to the spreadsheet that opens them. */
function lines(kind: PlainKind, rows: readonly Row[]): string {
  if (rows.length === 0) return ''
  const data = rows.map((r) => columns[kind].map((c) => r[c]))
  return Papa.unparse(data, { escapeFormulae: true }) + '\r\n'
}

/** Records of older shapes get their usual values. */
const dayOf = async (store: Store, id: string) => DayBundle.parse(await readDay(store, id))

/** A day's runs or changes as CSV. @throws Refusal 'record.not-found' */
export async function dayCsv(store: Store, dayId: string, kind: 'runs' | 'changes'): Promise<string> {
  const day = await dayOf(store, dayId)
  return header(kind) + lines(kind, kind === 'runs' ? runRows(day) : changeRows(day))
}

/** A day as it is kept, without what follows from a weight. @throws Refusal 'record.not-found' */
export async function dayJson(store: Store, dayId: string): Promise<string> {
  const { ownCharts: _byWeight, ...day } = await dayOf(store, dayId)
  return JSON.stringify({ format: 'wild-spring-day', version: 1, ...day }, null, 2)
}

/** Setups of a bike as CSV. @throws Refusal 'record.not-found' */
export async function bikeSetupsCsv(store: Store, bikeId: string): Promise<string> {
  return header('setups') + lines('setups', await rowsOfBike(store, bikeId))
}
async function rowsOfBike(store: Store, bikeId: string): Promise<Row[]> {
  const [found] = await store.db
    .select({ bike: bikes.body, rider: riders.body, currentSetupId: bikes.currentSetupId })
    .from(bikes)
    .innerJoin(riders, eq(bikes.riderId, riders.id))
    .where(eq(bikes.id, bikeId))
  if (!found) throw new Refusal('record.not-found', 'There is no such bike.')
  const of = { rider: found.rider.name, bike: found.bike.name, currentSetupId: found.currentSetupId }
  return setupRows(BikeSetups.parse(await readBikeSetups(store, bikeId)), of)
}

/** Everything of a kind as CSV, day by day or bike by bike: years of it never stand in memory as text. */
export async function* everythingCsv(store: Store, kind: PlainKind): AsyncGenerator<string> {
  yield header(kind)
  const rowsOf = async (id: string): Promise<Row[]> => {
    if (kind === 'setups') return rowsOfBike(store, id)
    const day = await dayOf(store, id)
    return kind === 'runs' ? runRows(day) : changeRows(day)
  }
  const from = kind === 'setups' ? bikes : days
  const ids = await store.db
    .select({ id: from.id })
    .from(from)
    .where(isNull(from.deletedAt))
    .orderBy(asc(kind === 'setups' ? bikes.id : days.date), asc(from.id))
  for (const { id } of ids) {
    // Removed while this goes out: it is simply not among them.
    const rows = await rowsOf(id).catch((e: unknown) => {
      if (e instanceof Refusal) return []
      throw e
    })
    if (rows.length > 0) yield lines(kind, rows)
  }
}
