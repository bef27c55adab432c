import type { Body } from './privacy.ts'

/** Looks a record up by table and key: in the bundle first, else here. */
export type Lookup = (table: string, key: string) => Promise<Body | null>

/** What a person calls a record, and whose it is. */
export async function namesOf(
  table: string,
  body: Body,
  look: Lookup,
): Promise<{ name: string; about: string }> {
  const named = async (of: string, id: unknown) =>
    typeof id === 'string' ? String((await look(of, id))?.name ?? '?') : '?'
  const bike = async (id: unknown) => {
    const b = typeof id === 'string' ? await look('bikes', id) : null
    return b ? `${String(b.name)} of ${await named('riders', b.riderId)}` : '?'
  }
  const day = async (id: unknown) => {
    const d = typeof id === 'string' ? await look('days', id) : null
    return d
      ? `${await named('riders', d.riderId)} at ${await named('trails', d.trailId)}, ${String(d.date)}`
      : '?'
  }
  const at = (v: unknown) => `${String(v).slice(0, 16).replace('T', ' ')} UTC`
  switch (table) {
    case 'days':
      return { name: String(body.date), about: await day(body.id) }
    case 'runs':
      return { name: at(body.startedAt), about: await day(body.dayId) }
    case 'feels': {
      const run = await look('runs', String(body.runId))
      return { name: at(run?.startedAt), about: await day(run?.dayId) }
    }
    case 'proposals':
      return { name: at(body.shownAt), about: await day(body.dayId) }
    case 'recordings':
      return {
        name: String(body.fileName),
        about: await day((await look('runs', String(body.runId)))?.dayId),
      }
    case 'setups':
      return { name: String(body.name ?? at(body.madeAt)), about: await bike(body.bikeId) }
    case 'services':
      return { name: `${String(body.kind)}, ${String(body.date)}`, about: await bike(body.bikeId) }
    case 'benches':
      return { name: at(body.startedAt), about: await bike(body.bikeId) }
    case 'bikes':
      return { name: String(body.name), about: await named('riders', body.riderId) }
    case 'tent_riders':
      return { name: `number ${String(body.number)}`, about: await named('tents', body.tentId) }
    case 'tent_hours':
    case 'tent_notes':
      return { name: at(body.at), about: await named('tents', body.tentId) }
    case 'pad_reports':
      return { name: at(body.at), about: '' }
    case 'trails':
      return { name: String(body.name), about: String(body.place) }
    case 'units':
      return { name: String(body.name), about: `${String(body.end)}, ${String(body.strokeMm)} mm` }
    case 'letterheads':
      return { name: 'Head of the card', about: String(body.line) }
    default:
      return {
        name: typeof body.name === 'string' ? body.name : table,
        about: 'bikeId' in body ? await bike(body.bikeId) : '',
      }
  }
}
