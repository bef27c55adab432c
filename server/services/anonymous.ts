import type { Erasure } from '#contract/erasure'
import { saysWithoutVoice, withoutSecrets, type Body } from '../bundle/privacy.ts'
import type { Store } from '../db/open.ts'
import { Refusal } from '../refusal.ts'
import { forgetImports, gatherRider, goneIn, riderOf, writtenOver } from './erasure.ts'
import { renamedAt, renaming, saved, type Place } from './withoutName.ts'

const nobody = 'Rider without a name'
const onTheirBikes = `bike_id IN ${goneIn('bikes')} OR bike_id IN ${goneIn('shared')}`
const ofTheirDays = `day_id IN ${goneIn('days')}`

/** Where a rider's own records lie, in which the name may stand. */
const own: readonly Place[] = [
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

/**
 * Takes away who a rider is and leaves what was ridden: the name in all of their own records, every weight, what was spoken,
 * links of their phone. Free space and the -wal file are written over.
 * @returns what they are called now
 * @throws Refusal 'record.not-found'; 'request.invalid' when the name typed is another
 */
export async function makeNameless(store: Store, riderId: string, { name }: Erasure): Promise<string> {
  const rider = await riderOf(store, riderId)
  if (name.trim() !== rider.name)
    throw new Refusal('request.invalid', `Type the name as it stands: ${rider.name}.`, { path: 'name' })
  return store.writes.run(async () => {
    const { client } = store
    await gatherRider(client, riderId)
    const called = await freeName(store)
    const rename = renaming(rider.name, called)
    const changes = await renamedAt(client, own, rename, (table, body) => {
      const left = withoutSecrets(table, body, { weights: false, voices: false, inside: true })
      if (table === 'pad_reports' && !saysWithoutVoice(left)) return null
      return table === 'tent_riders' ? { ...left, named: false } : left
    })
    const bare = withoutSecrets('riders', rider as Body, { weights: false, voices: false, inside: true })
    changes.push(saved('riders', 'id', riderId, { ...bare, name: called, note: '' }, rider.version))
    await writtenOver(client, [
      ...forgetImports,
      `DELETE FROM damaged WHERE id IN (SELECT id FROM temp.gone_rider) OR id IN ${goneIn('runs')} OR id IN ${goneIn('days')}`,
      `DELETE FROM voices WHERE ${ofTheirDays}`,
      `DELETE FROM pads WHERE ${ofTheirDays}`,
      ...changes,
    ])
    return called
  })
}

async function freeName({ client }: Store): Promise<string> {
  const { rows } = await client.execute(`SELECT json_extract(body, '$.name') AS name FROM riders`)
  const taken = new Set(rows.map((r) => String(r.name)))
  let name = nobody
  for (let n = 2; taken.has(name); n++) name = `${nobody} ${n}`
  return name
}
