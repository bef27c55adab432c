import type { Store } from '../db/open.ts'
import { mustBeHere } from '../libsql/mustBeHere.ts'
import type { Place } from './withoutName.ts'

/**
 * What belongs to a rider, as tables of ids that live as long as the connection: `?` is the rider. What others have part
 * in stays: a bike that somebody else has ridden goes to the last of them.
 */
const belonging = [
  `rider: SELECT id FROM riders WHERE id = ?1`,
  `days: SELECT id FROM days WHERE rider_id = ?1`,
  `shared: SELECT b.id FROM bikes b WHERE b.rider_id = ?1
     AND EXISTS (SELECT 1 FROM days d WHERE d.bike_id = b.id AND d.rider_id <> ?1)`,
  `bikes: SELECT id FROM bikes WHERE rider_id = ?1 AND id NOT IN (SELECT id FROM temp.gone_shared)`,
  `runs: SELECT id FROM runs WHERE day_id IN (SELECT id FROM temp.gone_days)`,
  `recordings: SELECT id FROM recordings WHERE run_id IN (SELECT id FROM temp.gone_runs)`,
  `setups: SELECT id FROM setups WHERE bike_id IN (SELECT id FROM temp.gone_bikes)`,
  `units: SELECT id FROM units u
     WHERE coalesce(json_extract(body, '$.ownerId'), ?1) = ?1
       AND (json_extract(body, '$.ownerId') = ?1
         OR EXISTS (SELECT 1 FROM bikes b WHERE b.id IN (SELECT id FROM temp.gone_bikes) AND u.id IN (b.front_unit_id, b.rear_unit_id))
         OR EXISTS (SELECT 1 FROM setups s WHERE s.id IN (SELECT id FROM temp.gone_setups)
           AND u.id IN (json_extract(s.body, '$.frontUnitId'), json_extract(s.body, '$.rearUnitId'))))
       AND NOT EXISTS (SELECT 1 FROM bikes b WHERE b.id NOT IN (SELECT id FROM temp.gone_bikes) AND u.id IN (b.front_unit_id, b.rear_unit_id))
       AND NOT EXISTS (SELECT 1 FROM setups s WHERE s.id NOT IN (SELECT id FROM temp.gone_setups)
         AND u.id IN (json_extract(s.body, '$.frontUnitId'), json_extract(s.body, '$.rearUnitId')))`,
] as const

export const goneIn = (kind: string) => `(SELECT id FROM temp.gone_${kind})`

/** Makes the tables of what is a rider's, as long as the connection lives. */
export async function gatherRider(store: Store, riderId: string): Promise<void> {
  mustBeHere(store, 'Nothing was done')
  const { client } = store
  for (const line of belonging) {
    const [kind, select] = [line.slice(0, line.indexOf(':')), line.slice(line.indexOf(':') + 1)]
    await client.execute(`DROP TABLE IF EXISTS temp.gone_${kind}`)
    await client.execute(`CREATE TEMP TABLE gone_${kind} (id TEXT PRIMARY KEY)`)
    await client.execute({ sql: `INSERT INTO temp.gone_${kind} ${select}`, args: [riderId] })
  }
}

const onTheirBikes = `bike_id IN ${goneIn('bikes')} OR bike_id IN ${goneIn('shared')}`
export const ofTheirDays = `day_id IN ${goneIn('days')}`

/** Where a rider's own records lie, in which the name may stand. */
export const own: readonly Place[] = [
  ['bikes', 'id', `id IN ${goneIn('bikes')} OR id IN ${goneIn('shared')}`],
  ['units', 'id', `id IN ${goneIn('units')}`],
  ['setups', 'id', `id IN ${goneIn('setups')} OR ${ofTheirDays}`],
  ['days', 'id', `id IN ${goneIn('days')}`],
  ['runs', 'id', `id IN ${goneIn('runs')}`],
  ['feels', 'run_id', `run_id IN ${goneIn('runs')}`],
  ['proposals', 'id', ofTheirDays],
  ['recordings', 'id', `id IN ${goneIn('recordings')}`],
  ['services', 'id', onTheirBikes],
  ['benches', 'id', onTheirBikes],
  ['baselines', 'id', onTheirBikes],
  ['kept', 'id', onTheirBikes],
  ['stock', 'id', `json_extract(body, '$.ownerId') = (SELECT id FROM temp.gone_rider)`],
  ['tent_riders', 'id', `id IN ${goneIn('days')}`],
  ['tent_notes', 'id', `json_extract(body, '$.dayId') IN ${goneIn('days')}`],
  ['pad_reports', 'id', ofTheirDays],
]

/** What others have part in stays, and the name may stand in it: "Ada's bike", who turned a dial, whose part it was. */
export const leftToOthers: readonly Place[] = [
  ['bikes', 'id', `id IN ${goneIn('shared')}`],
  ['setups', 'id', `bike_id IN ${goneIn('shared')}`],
  ['services', 'id', `bike_id IN ${goneIn('shared')}`],
  ['kept', 'id', `bike_id IN ${goneIn('shared')}`],
  [
    'units',
    'id',
    `id NOT IN ${goneIn('units')} AND (json_extract(body, '$.ownerId') IN ${goneIn('rider')}
       OR EXISTS (SELECT 1 FROM bikes b WHERE b.id IN ${goneIn('shared')} AND units.id IN (b.front_unit_id, b.rear_unit_id)))`,
  ],
  ['stock', 'id', `json_extract(body, '$.ownerId') IN ${goneIn('rider')}`],
]

/** The same, without what is a rider's own, too. */
export const onlyLeftToOthers: readonly Place[] = leftToOthers.map(([table, key, where]) => {
  const theirs = own.filter(([t]) => t === table).map((p) => `AND NOT coalesce((${p[2]}), 0)`)
  return [table, key, `(${where}) ${theirs.join(' ')}`]
})
