import { hostname, networkInterfaces } from 'node:os'
import { isIP } from 'node:net'

/** How the server can be reached, from its settings. */
export interface Door {
  /** Whether anybody but this machine can come: then everybody is asked who they are. */
  beyond: boolean
  /** Between whoever comes and us, or the proxy in front of us. */
  encrypted: boolean
  /** The address people type where a proxy stands in front, as "https://tent.example"; null: none does. */
  origin: string | null
  /** Where other devices find us; filled once the port is known. */
  addresses: string[]
}

const local = ['127.0.0.1', 'localhost', '::1']
/** Names of this machine in a Host header. */
const localNames = new Set(['127.0.0.1', 'localhost', '[::1]'])

/**
 * @param host   address that is listened on
 * @param origin address people type where a proxy stands in front; '' for none
 * @param tls    whether we hold the certificate ourselves
 * @throws Error where the settings do not go together
 */
export function doorFrom(host: string, origin: string, tls: boolean): Door {
  if (origin !== '' && !/^https?:\/\/[^/]+$/.test(origin))
    throw new Error(
      `WILD_SPRING_ORIGIN: "${origin}" is no address; write what people type, as https://tent.example, without a path.`,
    )
  return {
    beyond: !local.includes(host) || origin !== '',
    encrypted: tls || origin.startsWith('https:'),
    origin: origin === '' ? null : origin.toLowerCase(),
    addresses: [],
  }
}

/** Addresses of a listening server that another device may type. @param host as listened on */
export function addressesOf(door: Door, host: string, port: number): string[] {
  if (!door.beyond) return []
  if (door.origin !== null) return [door.origin]
  const scheme = door.encrypted ? 'https' : 'http'
  const every = host === '0.0.0.0' || host === '::'
  const hosts = every
    ? Object.values(networkInterfaces())
        .flatMap((list) => list ?? [])
        .filter((i) => !i.internal && i.family === 'IPv4')
        .map((i) => i.address)
    : [isIP(host) === 6 ? `[${host}]` : host]
  return hosts.map((h) => `${scheme}://${h}:${port}`)
}

/**
 * Whether a Host header means this server. A number cannot be bound to another machine's pages the way a name can, so
 * beyond this machine every number is taken, and of names only its own.
 */
export function meansUs(door: Door, hostHeader: string): boolean {
  const name = nameIn(hostHeader)
  if (localNames.has(name)) return true
  if (!door.beyond) return false
  if (door.origin !== null && new URL(door.origin).host === hostHeader.toLowerCase()) return true
  const own = hostname().toLowerCase()
  return isIP(name.replace(/^\[|\]$/g, '')) !== 0 || name === own || name === `${own.split('.')[0]}.local`
}

/** Whether a page of that origin is ours. */
export function isOwnOrigin(door: Door, origin: string, hostHeader: string | undefined): boolean {
  if (door.origin !== null && origin === door.origin) return true
  // Behind a proxy the page may still be opened on this very machine.
  if (door.origin !== null && !localNames.has(nameIn(hostHeader ?? ''))) return false
  const scheme = door.encrypted && door.origin === null ? 'https' : 'http'
  return origin === `${scheme}://${hostHeader}`
}

const nameIn = (hostHeader: string) => hostHeader.replace(/:\d+$/, '').toLowerCase()
