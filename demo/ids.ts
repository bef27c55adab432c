import { createHash } from 'node:crypto'

/** The same name always gives the same id, so that filling twice changes nothing. Version-8 UUID form. */
export function idOf(name: string): string {
  const h = createHash('sha256').update(`demo:${name}`).digest('hex')
  return `${h.slice(0, 8)}-${h.slice(8, 12)}-8${h.slice(13, 16)}-a${h.slice(17, 20)}-${h.slice(20, 32)}`
}
