import { randomBytes, scrypt, timingSafeEqual, type ScryptOptions } from 'node:crypto'

/** 32 MB and about 0.2 s a try (RFC 7914; costs as OWASP's password storage sheet has them in 2025). */
const cost = { N: 2 ** 15, r: 8, p: 3 }
const keyBytes = 32

const derive = (passphrase: string, salt: Buffer, { N, r, p }: typeof cost): Promise<Buffer> =>
  new Promise((resolve, reject) => {
    const options: ScryptOptions = { N, r, p, maxmem: 256 * N * r }
    // The same letters typed on two keyboards may be two byte strings.
    scrypt(passphrase.normalize('NFKC'), salt, keyBytes, options, (e, key) => (e ? reject(e) : resolve(key)))
  })

let tail: Promise<unknown> = Promise.resolve()
/** One at a time: many tries at once must not take the memory of everybody else. */
function inTurn<T>(work: () => Promise<T>): Promise<T> {
  const next = tail.then(work, work)
  tail = next.catch(() => undefined)
  return next
}

/** What is kept of a passphrase: costs, salt and key, so that costs can grow without locking anybody out. */
export const keptPassphrase = (passphrase: string): Promise<string> =>
  inTurn(async () => {
    const salt = randomBytes(16)
    const key = await derive(passphrase, salt, cost)
    return ['scrypt', cost.N, cost.r, cost.p, salt.toString('base64'), key.toString('base64')].join('$')
  })

/** Whether it is the passphrase that was kept; takes as long either way. */
export const isPassphrase = (typed: string, kept: string): Promise<boolean> =>
  inTurn(async () => {
    const [, N, r, p, salt, key] = kept.split('$')
    const was = Buffer.from(key, 'base64')
    const is = await derive(typed, Buffer.from(salt, 'base64'), { N: Number(N), r: Number(r), p: Number(p) })
    return timingSafeEqual(is, was)
  })
