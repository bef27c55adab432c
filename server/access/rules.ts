import type { Role } from '#contract/access'

/** Asked by everybody, signed in or not. A phone's link is a key of its own (routes/pads.ts). */
const free: readonly [method: string, path: RegExp][] = [
  ['GET', /^\/health$/],
  ['GET', /^\/access$/],
  ['PUT', /^\/access\/(lock|session|recovery|enter)$/],
  ['DELETE', /^\/access\/session$/],
  ['GET', /^\/pad$/],
  ['PUT', /^\/pad\/(reports|voices)\/[^/]+$/],
]

/** What a coach takes back: entries of a day or a tent. Riders, bikes, setups, whole days and tents are the owner's. */
const coachTakesBack =
  /^\/(runs\/[^/]+|recordings\/[^/]+(\/files\/[^/]+)?|tent-(notes|hours|riders)\/[^/]+(\/pad)?|loggers\/.*)$/

/** What a wall reads; which tent and which days is asked of the data (gate.ts). */
const wallReads = /^\/(tents\/[^/.]+|days\/[^/]+(\/earlier)?|events)$/

export const isFree = (method: string, path: string): boolean =>
  free.some(([m, p]) => m === method && p.test(path))

/** Whether a role may ask this, as far as the address says. @param path below /api/v1 */
export function mayAsk(role: Role, method: string, path: string): boolean {
  if (role === 'owner') return true
  if (role === 'wall') return method === 'GET' && wallReads.test(path)
  if (path.startsWith('/access/') || /^\/(data(\/|$)|riders\/[^/]+\/erasure)/.test(path)) return false
  return method !== 'DELETE' || coachTakesBack.test(path)
}
