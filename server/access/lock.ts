import { timingSafeEqual } from 'node:crypto'
import { desc, eq, lt } from 'drizzle-orm'
import type { AccessBook, Attempt, DoorState, GivenPass, NewPass, Role } from '#contract/access'
import type { Store } from '../db/open.ts'
import { attempts, locks, passes, tents } from '../db/schema.ts'
import type { Log } from '../problem.ts'
import { Refusal } from '../refusal.ts'
import { mustExist } from '../services/records.ts'
import { asPrinted, hashOf, personCode, randomToken } from './codes.ts'
import type { Door } from './door.ts'
import { Limiter } from './limiter.ts'
import { isPassphrase, keptPassphrase } from './passphrase.ts'
import { Sessions } from './sessions.ts'

/** A pass is handed over at once, not kept for later. */
const passMinutes = 60
const keptAttempts = 300
const shownAttempts = 30

/** A device that was let in. */
export interface LetIn {
  token: string
  role: Role
  tentId: string | null
}

const equal = (a: string, b: string) => timingSafeEqual(Buffer.from(hashOf(a)), Buffer.from(hashOf(b)))

/** One household has all addresses of an IPv6 network of 64 bits. */
const neighbourhood = (from: string) =>
  /^[0-9a-f]*:[0-9a-f:]+$/i.test(from) ? from.split(':').slice(0, 4).join(':') : from

/** The owner's lock, those it lets in, and who tried. */
export class Lock {
  readonly sessions: Sessions
  /** By where the try came from, and over all: many addresses are one attacker too. */
  private readonly each = new Limiter(5, 5)
  private readonly all = new Limiter(40, 30)
  private isSet: boolean | null = null

  constructor(
    private readonly store: Store,
    private readonly now: () => string,
    private readonly log: Log,
    private readonly door: Door,
    /** Told where the server was started; whoever can read that is the owner. */
    private readonly setupCode: string,
  ) {
    this.sessions = new Sessions(store, now)
  }

  async state(): Promise<DoorState> {
    if (!this.door.beyond) return 'open'
    this.isSet ??= (await this.kept()) !== null
    return this.isSet ? 'locked' : 'unset'
  }

  /** @throws Refusal 'access.denied' where it is locked already, 'access.wrong', 'access.slow-down' */
  async setFirst(from: string, code: string, passphrase: string, device: string) {
    return this.tried('setup', from, async () => {
      if ((await this.state()) !== 'unset')
        throw new Refusal('access.denied', 'The door has its lock already; sign in instead.')
      if (!equal(asPrinted(code), asPrinted(this.setupCode)))
        throw new Refusal(
          'access.wrong',
          'That is not the code. It stands where the server was started, and is new at every start.',
        )
      return this.newLock(passphrase, device)
    })
  }

  /** @throws Refusal 'access.wrong', 'access.unset', 'access.slow-down' */
  async signIn(from: string, passphrase: string, device: string): Promise<LetIn> {
    return this.tried('passphrase', from, async () => {
      if (!(await isPassphrase(passphrase, (await this.mustKept()).passphrase)))
        throw new Refusal('access.wrong', 'That is not the passphrase.')
      return this.letIn('owner', device, null)
    })
  }

  /** @throws Refusal 'access.wrong', 'access.unset', 'access.slow-down' */
  async recover(from: string, code: string, passphrase: string, device: string) {
    return this.tried('recovery', from, async () => {
      if (!equal(hashOf(asPrinted(code)), (await this.mustKept()).recovery))
        throw new Refusal('access.wrong', 'That is not the recovery code.')
      return this.newLock(passphrase, device)
    })
  }

  /** Another passphrase; every device but this one is signed out. @throws Refusal 'access.wrong', 'access.slow-down' */
  async change(from: string, before: string, passphrase: string, hereId: string | null): Promise<string> {
    return this.tried('passphrase', from, async () => {
      if (!(await isPassphrase(before, (await this.mustKept()).passphrase)))
        throw new Refusal('access.wrong', 'That is not the passphrase as it is now.', { path: 'before' })
      const recoveryCode = await this.keep(passphrase)
      await this.sessions.end((s) => s.id !== hereId)
      await this.endPasses()
      return recoveryCode
    })
  }

  /** @throws Refusal 'access.wrong', 'access.slow-down' */
  async enter(from: string, token: string, device: string): Promise<LetIn> {
    return this.tried('pass', from, async () => {
      const hash = hashOf(token)
      const [pass] = await this.store.db.select().from(passes).where(eq(passes.hash, hash))
      // Whoever comes first has it, even of two at once.
      const gone = (pass as typeof pass | undefined)
        ? await this.store.writes.run(() => this.store.db.delete(passes).where(eq(passes.hash, hash)))
        : null
      if (!gone?.rowsAffected || pass.expiresAt <= this.now())
        throw new Refusal(
          'access.wrong',
          `This way in was used or has ended; ask for another. It opens for ${passMinutes} minutes, once.`,
        )
      return this.letIn(pass.role, device, pass.tentId)
    })
  }

  /** @throws Refusal 'reference.missing' for a tent that is not there */
  async givePass({ id, role, name, tentId }: NewPass): Promise<GivenPass> {
    if (tentId !== null) await mustExist(this.store, tents, tentId, 'tentId', 'tent')
    const token = randomToken()
    const expiresAt = new Date(Date.parse(this.now()) + passMinutes * 60_000).toISOString()
    const pass = { id, role, name, tentId, expiresAt }
    await this.store.writes.run(async () => {
      await this.store.db.delete(passes).where(eq(passes.id, id))
      await this.store.db.insert(passes).values({ ...pass, hash: hashOf(token) })
    })
    return { pass, token }
  }

  async takeBackPass(id: string): Promise<void> {
    await this.store.writes.run(() => this.store.db.delete(passes).where(eq(passes.id, id)))
  }

  /** Everybody out. */
  async endAll(): Promise<void> {
    await this.sessions.end(() => true)
    await this.endPasses()
  }

  async book(hereId: string | null): Promise<AccessBook> {
    const now = this.now()
    const [waiting, tries] = await Promise.all([
      this.store.db.select().from(passes),
      this.store.db.select().from(attempts).orderBy(desc(attempts.seq)).limit(shownAttempts),
    ])
    return {
      sessions: await this.sessions.list(hereId),
      passes: waiting.filter((p) => p.expiresAt > now).map(({ hash: _, ...p }) => p),
      attempts: tries.map(({ seq: _, ...a }) => a),
    }
  }

  /** Takes the lock off: for whoever has the machine and lost both passphrase and code. */
  async takeOff(): Promise<void> {
    await this.endAll()
    await this.store.writes.run(() => this.store.db.delete(locks))
    this.isSet = false
  }

  private async letIn(role: Role, device: string, tentId: string | null): Promise<LetIn> {
    return { token: await this.sessions.open(role, device, tentId), role, tentId }
  }

  private async newLock(passphrase: string, device: string) {
    const recoveryCode = await this.keep(passphrase)
    await this.endAll()
    return { recoveryCode, letIn: await this.letIn('owner', device, null) }
  }

  private async keep(passphrase: string): Promise<string> {
    const recoveryCode = personCode(30)
    const row = {
      id: 1,
      passphrase: await keptPassphrase(passphrase),
      recovery: hashOf(asPrinted(recoveryCode)),
      setAt: this.now(),
    }
    await this.store.writes.run(() =>
      this.store.db.insert(locks).values(row).onConflictDoUpdate({ target: locks.id, set: row }),
    )
    this.isSet = true
    return recoveryCode
  }

  private async kept() {
    const [row] = await this.store.db.select().from(locks)
    return (row as typeof row | undefined) ?? null
  }

  private async mustKept() {
    const kept = await this.kept()
    if (!kept) throw new Refusal('access.unset', 'Nobody has locked this door yet.')
    return kept
  }

  private endPasses = () => this.store.writes.run(() => this.store.db.delete(passes))

  /** Every try is counted before it costs anything, and written down. */
  private async tried<T>(what: Attempt['what'], from: string, act: () => Promise<T>): Promise<T> {
    const nowMs = Date.parse(this.now())
    const key = neighbourhood(from)
    const wait = this.each.take(key, nowMs) || this.all.take('', nowMs)
    if (wait > 0)
      throw new Refusal('access.slow-down', `Too many tries; wait ${wait} seconds and try once more.`)
    try {
      const result = await act()
      this.each.giveBack(key)
      this.all.giveBack('')
      await this.note(what, from, true)
      return result
    } catch (e) {
      if (e instanceof Refusal && e.code === 'access.wrong') {
        await this.note(what, from, false)
        this.log.error(`A try at the door from ${from} failed (${what}).`, null)
      }
      throw e
    }
  }

  private async note(what: Attempt['what'], from: string, opened: boolean): Promise<void> {
    await this.store.writes.run(async () => {
      const [row] = await this.store.db
        .insert(attempts)
        .values({ at: this.now(), from, what, opened })
        .returning({ seq: attempts.seq })
      await this.store.db.delete(attempts).where(lt(attempts.seq, row.seq - keptAttempts))
    })
  }
}
