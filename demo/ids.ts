import { createHash } from 'node:crypto'

/** New Year 2020 in ms, as UUIDs of version 7 begin: what is made after the demo was filled comes after it. */
const madeAt = '016f5e66e800'

/** The same name always gives the same id, so that filling twice changes nothing. */
export function idOf(name: string): string {
  const h = createHash('sha256').update(`demo:${name}`).digest('hex')
  return `${madeAt.slice(0, 8)}-${madeAt.slice(8)}-7${h.slice(0, 3)}-a${h.slice(3, 6)}-${h.slice(6, 18)}`
}
