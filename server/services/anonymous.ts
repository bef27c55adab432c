import type { Erasure } from '#contract/erasure'
import { saysWithoutVoice, withoutSecrets, type Body } from '../bundle/privacy.ts'
import type { Store } from '../db/open.ts'
import { Refusal } from '../refusal.ts'
import { forgetImports, riderOf, writtenOver } from './erasure.ts'
import { gatherRider, goneIn, leftToOthers, ofTheirDays, onlyLeftToOthers, own } from './gathered.ts'
import { authored } from './nameElsewhere.ts'
import { renamedAt, renaming, saved } from './withoutName.ts'

const nobody = 'Rider without a name'
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
    await gatherRider(store, riderId)
    const called = await freeName(store)
    const rename = renaming(rider.name, called)
    const changes = await renamedAt(client, own, rename, (table, body) => {
      const left = withoutSecrets(table, body, { weights: false, voices: false, inside: true })
      if (table === 'pad_reports' && !saysWithoutVoice(left)) return null
      return table === 'tent_riders' ? { ...left, named: false } : left
    })
    // What others have part in is theirs: the name goes from it, and nothing else.
    changes.push(...(await renamedAt(client, onlyLeftToOthers, rename)))
    const bare = withoutSecrets('riders', rider as Body, { weights: false, voices: false, inside: true })
    changes.push(saved('riders', 'id', riderId, { ...bare, name: called, note: '' }, rider.version))
    await writtenOver(store, [
      ...forgetImports,
      `DELETE FROM damaged WHERE id IN (SELECT id FROM temp.gone_rider) OR id IN ${goneIn('runs')} OR id IN ${goneIn('days')}`,
      `DELETE FROM voices WHERE ${ofTheirDays}`,
      `DELETE FROM pads WHERE ${ofTheirDays}`,
      ...changes,
      ...(await authored(client, rider.name, [...own, ...leftToOthers])),
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
