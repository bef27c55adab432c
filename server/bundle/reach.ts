import type { Client } from '@libsql/client'
import type { BundleScope } from '#contract/bundle'
import { kinds } from './kinds.ts'

/** Whoever answers a question: a connection, or one moment of it. */
export type Asker = Pick<Client, 'execute'>

/** Keys of what goes along, by table. */
export interface Reach {
  keys: Map<string, Set<string>>
  /** Riders who are there only because a bike is theirs: their name, and nothing of their body. */
  guests: Set<string>
  /** What it is of, as a person would say it. */
  name: string
}

/** Kinds of a data file, which may be of an earlier version and lack some. */
async function kindsThere(ask: Asker) {
  const tables = await ask.execute("SELECT name FROM sqlite_master WHERE type = 'table'")
  const there = new Set(tables.rows.map((r) => String(r.name)))
  return kinds.filter((k) => there.has(k.table))
}

/**
 * What belongs to a bundle, so that nothing in it refers to what is not in it.
 * @throws Error when what it is to be of is not there
 */
export async function reachOf(ask: Asker, scope: BundleScope): Promise<Reach> {
  const column = async (sql: string, ...args: string[]) =>
    (await ask.execute({ sql, args })).rows.map((r) => r[0]).filter((v) => v !== null) as string[]
  if (scope.kind === 'everything') {
    const keys = new Map<string, Set<string>>()
    for (const { table, key } of await kindsThere(ask))
      keys.set(table, new Set(await column(`SELECT ${key} FROM ${table}`)))
    return { keys, guests: new Set(), name: 'everything' }
  }
  const table = { rider: 'riders', bike: 'bikes', day: 'days', tent: 'tents' }[scope.kind]
  const [start] = await column(`SELECT id FROM ${table} WHERE id = ?1`, scope.id)
  if (start === undefined) throw new Error(`There is no such ${scope.kind}.`)

  const keys = new Map(kinds.map((k) => [k.table, new Set<string>()]))
  const of = (t: string) => keys.get(t)!
  const add = (t: string, ids: readonly string[]) => ids.forEach((id) => of(t).add(id))
  /** For each of a set: `?1` is one of them. */
  const along = async (from: ReadonlySet<string>, to: string, sql: string) => {
    for (const id of [...from]) add(to, await column(sql, id))
  }
  const live = 'deleted_at IS NULL'

  add(table, [scope.id])
  if (scope.kind === 'tent')
    add('days', await column(`SELECT id FROM tent_riders WHERE tent_id = ?1 AND ${live}`, scope.id))
  if (scope.kind === 'rider' || scope.kind === 'bike')
    add('days', await column(`SELECT id FROM days WHERE ${scope.kind}_id = ?1 AND ${live}`, scope.id))
  if (scope.kind === 'rider')
    add('bikes', await column(`SELECT id FROM bikes WHERE rider_id = ?1 AND ${live}`, scope.id))
  /** Bikes with all that was ever set, read and done on them; of others, what their days need. */
  const whole = new Set(of('bikes'))

  const days = of('days')
  await along(days, 'bikes', 'SELECT bike_id FROM days WHERE id = ?1')
  await along(days, 'riders', 'SELECT rider_id FROM days WHERE id = ?1')
  await along(days, 'trails', 'SELECT trail_id FROM days WHERE id = ?1')
  await along(days, 'runs', `SELECT id FROM runs WHERE day_id = ?1 AND ${live}`)
  await along(days, 'proposals', `SELECT id FROM proposals WHERE day_id = ?1 AND ${live}`)
  await along(of('runs'), 'feels', 'SELECT run_id FROM feels WHERE run_id = ?1')
  await along(of('runs'), 'recordings', `SELECT id FROM recordings WHERE run_id = ?1 AND ${live}`)
  await along(
    days,
    'pad_reports',
    `SELECT id FROM pad_reports p WHERE day_id = ?1
       AND (taken_for IS NULL OR taken_for IN (SELECT id FROM runs r WHERE r.day_id = p.day_id AND ${live}))`,
  )
  await along(days, 'voices', 'SELECT id FROM voices WHERE day_id = ?1')

  await along(whole, 'setups', `SELECT id FROM setups WHERE bike_id = ?1 AND ${live}`)
  await along(days, 'setups', `SELECT id FROM setups WHERE day_id = ?1 AND ${live}`)
  await along(days, 'setups', 'SELECT start_setup_id FROM days WHERE id = ?1')
  await along(days, 'setups', `SELECT json_extract(body, '$.settledSetupId') FROM days WHERE id = ?1`)
  await along(of('runs'), 'setups', 'SELECT setup_id FROM runs WHERE id = ?1')
  await along(of('bikes'), 'setups', 'SELECT current_setup_id FROM bikes WHERE id = ?1')
  for (const t of ['services', 'baselines', 'benches', 'kept'])
    await along(whole, t, `SELECT id FROM ${t} WHERE bike_id = ?1 AND ${live}`)

  // The setup of a name that is kept, whatever became of it.
  await along(of('kept'), 'setups', 'SELECT id FROM setups WHERE id = ?1')

  for (const end of ['front', 'rear']) {
    await along(of('bikes'), 'units', `SELECT ${end}_unit_id FROM bikes WHERE id = ?1`)
    await along(
      of('setups'),
      'units',
      `SELECT json_extract(body, '$.${end}UnitId') FROM setups WHERE id = ?1`,
    )
  }
  await along(of('services'), 'units', `SELECT json_extract(body, '$.unitId') FROM services WHERE id = ?1`)
  if (scope.kind === 'rider')
    for (const t of ['units', 'stock'])
      add(
        t,
        await column(`SELECT id FROM ${t} WHERE json_extract(body, '$.ownerId') = ?1 AND ${live}`, scope.id),
      )
  if (scope.kind === 'tent') {
    add('trails', await column(`SELECT json_extract(body, '$.trailId') FROM tents WHERE id = ?1`, scope.id))
    add('tent_riders', [...days])
    for (const t of ['tent_hours', 'tent_notes'])
      add(t, await column(`SELECT id FROM ${t} WHERE tent_id = ?1 AND ${live}`, scope.id))
  }
  const gauges = await column('SELECT id FROM gauges')
  for (const t of ['benches', 'setups', 'baselines'])
    for (const id of of(t)) {
      const [body = ''] = await column(`SELECT body FROM ${t} WHERE id = ?1`, id)
      add(
        'gauges',
        gauges.filter((g) => body.includes(g)),
      )
    }

  const ridden = new Set(of('riders'))
  await along(of('bikes'), 'riders', 'SELECT rider_id FROM bikes WHERE id = ?1')
  const guests = new Set([...of('riders')].filter((id) => !ridden.has(id)))
  return { keys, guests, name: await nameOf(column, scope) }
}

async function nameOf(
  column: (sql: string, ...args: string[]) => Promise<string[]>,
  { kind, id }: Exclude<BundleScope, { kind: 'everything' }>,
): Promise<string> {
  const one = async (sql: string) => (await column(sql, id))[0] ?? '?'
  const named = (table: string) => one(`SELECT json_extract(body, '$.name') FROM ${table} WHERE id = ?1`)
  if (kind === 'rider') return named('riders')
  if (kind === 'tent') return named('tents')
  const of = (from: string, riderId: string) =>
    one(
      `SELECT json_extract(r.body, '$.name') FROM ${from} x JOIN riders r ON r.id = x.${riderId} WHERE x.id = ?1`,
    )
  if (kind === 'bike') return `${await named('bikes')} of ${await of('bikes', 'rider_id')}`
  return `${await of('days', 'rider_id')}, ${await one('SELECT date FROM days WHERE id = ?1')}`
}
