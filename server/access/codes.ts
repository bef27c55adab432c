import { createHash, randomBytes } from 'node:crypto'

/** Without I, L, O and U: read out loud and typed from paper (Crockford's base 32). */
const letters = '0123456789ABCDEFGHJKMNPQRSTVWXYZ'

/** A code for people: five bits a letter, in groups of five. @param count letters, a multiple of five */
export function personCode(count: number): string {
  const all = [...randomBytes(count)].map((b) => letters[b & 31]).join('')
  return all.match(/.{5}/g)!.join('-')
}

/** A typed code as it was printed: small letters, O for 0 and I for 1 are taken, gaps are not looked at. */
export const asPrinted = (typed: string): string =>
  typed
    .toUpperCase()
    .replace(/O/g, '0')
    .replace(/[IL]/g, '1')
    .replace(/[^0-9A-Z]/g, '')

/** 128 random bits for an address. */
export const randomToken = (): string => randomBytes(16).toString('base64url')

/** What is kept of a token. Random tokens need no slow hash: there is nothing to guess them by. */
export const hashOf = (token: string): string => createHash('sha256').update(token).digest('base64url')
