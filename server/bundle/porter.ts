import { existsSync } from 'node:fs'
import { rm } from 'node:fs/promises'
import { join } from 'node:path'
import type { Client } from '@libsql/client'
import type { BundleChoices, BundleHead, BundleLook, BundleOrder, Import, MadeBundle } from '#contract/bundle'
import type { Store } from '../db/open.ts'
import { uploadedFile } from '../ingest/spool.ts'
import { mustBeHere } from '../libsql/mustBeHere.ts'
import { Refusal } from '../refusal.ts'
import type { Bundled, Bundler, BundlerJob } from './bundler.ts'
import { meet, type Meeting } from './meet.ts'
import { takeIn } from './take.ts'
import { forgetStaged } from './unpack.ts'

/** Where a porter works, and with what. */
interface Ground {
  store: Store
  /** Emptied at every start: what lies there is of this process. */
  incomingDir: string
  migrations: string
  bundler: Bundler
  now: () => string
  version: string
}

/** Carries data out of the house and in, one bundle at a time. */
export class Porter {
  work: { doing: string; share: number } | null = null
  private given = new AbortController()
  private under: BundlerJob['do'] | null = null
  private current: Promise<unknown> = Promise.resolve()
  private made: MadeBundle | null = null
  private staged: { id: string; head: BundleHead; digest: string } | null = null

  constructor(private readonly ground: Ground) {}

  private pathOf = (id: string) => join(this.ground.incomingDir, `bundle-${id}.zip`)
  private stagedPathOf = (id: string) => join(this.ground.incomingDir, `came-${id}.sqlite`)

  /** Writes a bundle, to be fetched; the one before it is forgotten. @throws Refusal 'storage.busy', 'record.not-found' */
  async make(id: string, order: BundleOrder): Promise<MadeBundle> {
    const { store, migrations, now, version } = this.ground
    if (order.scope.kind !== 'everything') await mustBeThere(store, order.scope)
    this.mustBeFree()
    await this.forgetMade()
    const at = now()
    const { head, bytes } = await this.working({
      do: 'pack',
      file: store.file,
      to: this.pathOf(id),
      order,
      migrations,
      by: version,
      at,
    })
    this.made = { id, fileName: fileNameOf(head), bytes, head }
    return this.made
  }

  /** @throws Refusal 'record.not-found' */
  fetch(id: string): { path: string; made: MadeBundle } {
    if (this.made?.id !== id || !existsSync(this.pathOf(id)))
      throw new Refusal('record.not-found', 'That bundle is not here any more; make it again.')
    return { path: this.pathOf(id), made: this.made }
  }

  /** Unpacks what arrived and says what it would do; nothing is done. @throws Refusal 'upload.missing', 'bundle.unsound', 'bundle.newer' */
  async look(id: string): Promise<BundleLook> {
    // The bundle is laid beside the data file and compared with it there.
    mustBeHere(this.ground.store, 'Nothing was brought in')
    const bundle = uploadedFile(this.ground.incomingDir, id)
    if (!existsSync(bundle))
      throw new Refusal('upload.missing', 'The bytes of the bundle have not arrived; send them again.')
    this.mustBeFree()
    await this.forgetStaged()
    const { migrations } = this.ground
    const { head } = await this.working({ do: 'unpack', bundle, to: this.stagedPathOf(id), migrations })
    const { look, digest } = await this.attached(id, (meeting) => Promise.resolve(meeting), head)
    this.staged = { id, head, digest }
    return { id, ...look }
  }

  /**
   * Brings in what was looked at.
   * @throws Refusal 'upload.missing' when nobody looked, 'bundle.overtaken' when something of it changed here meanwhile
   */
  async take(id: string, choices: BundleChoices): Promise<Import> {
    const { staged } = this
    if (staged?.id !== id || !existsSync(this.stagedPathOf(id)))
      throw new Refusal('upload.missing', 'That bundle is not here any more; open it again.')
    const done = await this.attached(
      id,
      (meeting) => {
        if (meeting.digest !== staged.digest)
          throw new Refusal(
            'bundle.overtaken',
            'Something that the bundle is about was changed here since you looked. Look again, then choose.',
          )
        const { store, now } = this.ground
        return takeIn(store.client, staged.head, meeting, choices, id, now())
      },
      staged.head,
    )
    await this.drop(id)
    return done
  }

  /** Lets go of what arrived and was not brought in, and gives up what is under way. */
  async drop(id: string): Promise<void> {
    if (this.under === 'unpack') this.given.abort()
    if (this.staged?.id === id) await this.forgetStaged()
    await rm(uploadedFile(this.ground.incomingDir, id), { force: true })
  }

  cancel(): void {
    this.given.abort()
  }

  /** Nothing that was packed or unpacked stays, and nobody reads the data file for it any more. */
  async forget(): Promise<void> {
    this.given.abort()
    await this.current
    const id = this.staged?.id
    await this.forgetMade()
    await this.forgetStaged()
    if (id) await rm(uploadedFile(this.ground.incomingDir, id), { force: true })
  }

  private async forgetMade(): Promise<void> {
    const { made } = this
    this.made = null
    if (made) await rm(this.pathOf(made.id), { force: true })
  }

  private async forgetStaged(): Promise<void> {
    const { staged } = this
    this.staged = null
    if (staged) await forgetStaged(this.stagedPathOf(staged.id))
  }

  /** @throws Refusal 'storage.busy' */
  private mustBeFree(): void {
    if (this.work)
      throw new Refusal(
        'storage.busy',
        'A bundle is being written or read just now; wait for it, or cancel it.',
      )
  }

  private async working(job: BundlerJob): Promise<Bundled> {
    this.mustBeFree()
    this.work = { doing: job.do === 'pack' ? 'Writing the bundle' : 'Unpacking', share: 0 }
    this.given = new AbortController()
    this.under = job.do
    const bundled = this.ground.bundler(
      job,
      (share, doing) => (this.work = { doing, share: Math.min(1, share) }),
      this.given.signal,
    )
    this.current = bundled.catch(() => undefined)
    try {
      return await bundled
    } finally {
      this.work = null
      this.under = null
    }
  }

  /** With what was unpacked beside the data, while nobody writes. */
  private attached<T>(id: string, act: (meeting: Meeting) => Promise<T>, head: BundleHead): Promise<T> {
    const { client, writes } = this.ground.store
    return writes.run(async () => {
      // One that stayed because of a full disk.
      await detach(client)
      await client.execute({ sql: 'ATTACH DATABASE ? AS came', args: [this.stagedPathOf(id)] })
      try {
        return await act(await meet(client, head))
      } finally {
        await detach(client)
      }
    })
  }
}

/** Never stands in front of what went wrong before it. */
const detach = (client: Client) => client.execute('DETACH DATABASE came').catch(() => undefined)

async function mustBeThere(
  { client }: Store,
  { kind, id }: Exclude<BundleOrder['scope'], { kind: 'everything' }>,
): Promise<void> {
  const { rows } = await client.execute({ sql: `SELECT 1 FROM ${kind}s WHERE id = ?`, args: [id] })
  if (rows.length === 0) throw new Refusal('record.not-found', `There is no such ${kind}.`)
}

/** "wild-spring-ilka-2031-05-02.zip"; letters that any disk knows. */
function fileNameOf({ scope, madeAt }: BundleHead): string {
  const plain = scope.name
    .normalize('NFKD')
    .replace(/[^a-zA-Z0-9]+/g, '-')
    .replace(/^-|-$/g, '')
    .toLowerCase()
    .slice(0, 40)
  return `wild-spring-${plain || scope.kind}-${madeAt.slice(0, 10)}.zip`
}
