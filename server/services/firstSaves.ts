import { eq, sql, type SQL } from 'drizzle-orm'
import type { Feel, Run } from '#contract/run'
import { prepared } from '../db/prepared.ts'
import type { Store } from '../db/open.ts'
import { days, feels, runs, setups } from '../db/schema.ts'
import { Together } from '../db/together.ts'

/*
 * What is logged on the trail all day: a new run, and what was felt on it. Whether what it refers to is there is asked by
 * the statement that writes it, of all that wait at once. What it does not write is looked at one by one.
 */

interface NewRun {
  id: string
  dayId: string
  setupId: string
  startedAt: string
  body: string
}

interface NewFeel {
  runId: string
  body: string
}

/** A field of one of the rows that a statement is given. */
const of = (field: string): SQL => sql.raw(`given.value ->> '${field}'`)
const given = sql`json_each(${sql.placeholder('rows')}) as given`

const newRuns = ({ db, writes }: Store) =>
  prepared(db, newRuns, () => {
    // In the order of the columns of the table.
    const query = db
      .insert(runs)
      .select(
        sql`select ${of('id')}, 1, null, ${days.id}, ${setups.id}, ${of('startedAt')}, ${of('body')} from ${given}
          join ${days} on ${days.id} = ${of('dayId')}
          join ${setups} on ${setups.id} = ${of('setupId')} and ${setups.bikeId} = ${days.bikeId}
          where true`,
      )
      .onConflictDoNothing({ target: runs.id })
      .returning({ id: runs.id })
      .prepare()
    return new Together(writes, async (rows: NewRun[]) => {
      const written = await query.all({ rows: JSON.stringify(rows) })
      return new Map(written.map(({ id }) => [id, true]))
    })
  })

/**
 * Writes a first version, where the day is there and the setup is of the bike of that day.
 * @returns the run as stored; null: it was not written
 */
export async function saveNewRun(store: Store, run: Run): Promise<Run | null> {
  const stored = { ...run, version: 1 }
  const { id, dayId, setupId, startedAt } = run
  const row = { id, dayId, setupId, startedAt, body: JSON.stringify(stored) }
  return (await newRuns(store).add(id, row)) ? stored : null
}

const newFeels = ({ db, writes }: Store) =>
  prepared(db, newFeels, () => {
    const query = db
      .insert(feels)
      .select(
        sql`select ${runs.id}, 1, ${of('body')} from ${given} join ${runs} on ${runs.id} = ${of('runId')} where true`,
      )
      .onConflictDoNothing({ target: feels.runId })
      .returning({
        runId: feels.runId,
        dayId: sql<string>`(select ${runs.dayId} from ${runs} where ${eq(runs.id, feels.runId)})`,
      })
      .prepare()
    return new Together(writes, async (rows: NewFeel[]) => {
      const written = await query.all({ rows: JSON.stringify(rows) })
      return new Map(written.map(({ runId, dayId }) => [runId, dayId]))
    })
  })

/**
 * Writes what was first felt on a run that is there.
 * @returns what is stored, and of which day it is; null: it was not written
 */
export async function saveNewFeel(store: Store, feel: Feel): Promise<{ feel: Feel; dayId: string } | null> {
  const stored = { ...feel, version: 1 }
  const { runId } = feel
  const dayId = await newFeels(store).add(runId, { runId, body: JSON.stringify(stored) })
  return dayId === null ? null : { feel: stored, dayId }
}
