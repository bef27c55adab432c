import { and, asc, count, eq, inArray, isNull } from 'drizzle-orm'
import { v7 as uuid } from 'uuid'
import type { GivenPadLink, KeptPadReport, PadLink, PadView, SentPadReport, VoiceType } from '#contract/pad'
import type { Feel } from '#contract/run'
import { runBefore } from '#core/setup/runBefore'
import { joinedFeel } from '#core/tent/padFeel'
import { hashOf, randomToken } from '../access/codes.ts'
import type { Store } from '../db/open.ts'
import {
  days,
  feels,
  padReports,
  pads,
  riders,
  runs,
  tentRiders,
  tents,
  trails,
  voices,
} from '../db/schema.ts'
import { Refusal } from '../refusal.ts'
import { saveFeel } from './days.ts'

/** After the tent's day: a phone that was without signal for two days still delivers. */
const daysAfter = 4
const dayMs = 86_400_000
/** More than a day of practice has runs; a link in wrong hands fills no disk. */
const mostOfADay = 100

const ended = () =>
  new Refusal(
    'pad.ended',
    'This link has ended; ask in the tent for a new one. What you said is kept on this phone.',
  )

/** The link of a token, while it holds and its rider is in the tent. @throws Refusal 'pad.ended' */
export async function mustBePad(store: Store, token: string, now: string) {
  const [row] = await store.db
    .select({ pad: pads, tent: tents, day: days, rider: riders, trail: trails })
    .from(pads)
    .innerJoin(tents, and(eq(tents.id, pads.tentId), isNull(tents.deletedAt)))
    .innerJoin(days, and(eq(days.id, pads.dayId), isNull(days.deletedAt)))
    .innerJoin(
      tentRiders,
      and(eq(tentRiders.id, pads.dayId), eq(tentRiders.tentId, pads.tentId), isNull(tentRiders.deletedAt)),
    )
    .innerJoin(riders, eq(riders.id, days.riderId))
    .innerJoin(trails, eq(trails.id, days.trailId))
    .where(eq(pads.hash, hashOf(token)))
  if (!(row as typeof row | undefined) || row.pad.expiresAt <= now) throw ended()
  return row
}
type Pad = Awaited<ReturnType<typeof mustBePad>>

/** All that a rider's phone is shown. */
export async function readPad(store: Store, { pad, tent, rider, trail }: Pad): Promise<PadView> {
  const [ridden, reports] = await Promise.all([runsOf(store, pad.dayId), reportsOf(store, [pad.dayId])])
  const said = new Set(reports.map((r) => r.takenFor))
  return {
    dayId: pad.dayId,
    riderName: rider.body.name,
    tentName: tent.body.name,
    sections: trail.body.sections.map(({ id, name }) => ({ id, name })),
    runs: ridden.map((r, i) => ({
      id: r.id,
      number: i + 1,
      startedAt: r.startedAt,
      said: said.has(r.id) || reports.some((p) => p.report.runId === r.id),
    })),
    expiresAt: pad.expiresAt,
  }
}

export async function touchPad(store: Store, dayId: string, now: string): Promise<void> {
  await store.writes.run(() => store.db.update(pads).set({ lastUsedAt: now }).where(eq(pads.dayId, dayId)))
}

/** A new link for a rider of a tent; an earlier one ends. @throws Refusal 'record.not-found' */
export async function givePad(
  store: Store,
  dayId: string,
  now: string,
): Promise<GivenPadLink & { tentId: string }> {
  const [row] = await store.db
    .select({ tentId: tentRiders.tentId, tent: tents.body })
    .from(tentRiders)
    .innerJoin(tents, and(eq(tents.id, tentRiders.tentId), isNull(tents.deletedAt)))
    .where(and(eq(tentRiders.id, dayId), isNull(tentRiders.deletedAt)))
  if (!(row as typeof row | undefined))
    throw new Refusal('record.not-found', 'There is no such rider in a tent.')
  const token = randomToken()
  const end = Math.max(Date.parse(`${row.tent.date}T00:00:00Z`), Date.parse(now)) + daysAfter * dayMs
  const link: PadLink = {
    dayId,
    createdAt: now,
    expiresAt: new Date(end).toISOString(),
    lastUsedAt: null,
  }
  await store.writes.run(async () => {
    await store.db.batch([
      store.db.delete(pads).where(eq(pads.dayId, dayId)),
      store.db.insert(pads).values({ ...link, tentId: row.tentId, hash: hashOf(token) }),
    ])
  })
  return { link, token, tentId: row.tentId }
}

export async function endPad(store: Store, dayId: string): Promise<void> {
  await store.writes.run(() => store.db.delete(pads).where(eq(pads.dayId, dayId)))
}

/** Links and reports of the riders of a tent. */
export async function padsOf({ db }: Store, tentId: string): Promise<PadLink[]> {
  const rows = await db.select().from(pads).where(eq(pads.tentId, tentId))
  return rows.map(({ hash: _, tentId: __, ...link }) => link)
}

/** Reports of days, in the order they were said. */
export async function reportsOf({ db }: Store, dayIds: readonly string[]): Promise<KeptPadReport[]> {
  if (dayIds.length === 0) return []
  const rows = await db
    .select()
    .from(padReports)
    .where(inArray(padReports.dayId, [...dayIds]))
    .orderBy(asc(padReports.saidAt), asc(padReports.id))
  return rows.map(kept)
}

const kept = (r: typeof padReports.$inferSelect): KeptPadReport => ({
  dayId: r.dayId,
  report: r.body,
  saidAt: r.saidAt,
  takenFor: r.takenFor,
  droppedAt: r.droppedAt,
})

/**
 * Keeps what a rider said, once. Where the phone knew its run, and what is known of it does not contradict, it becomes the
 * run's feel at once; else it waits for somebody in the tent.
 *
 * @returns the report, and the feel it was laid into
 * @throws Refusal 'request.invalid' for more than a day has
 */
export async function keepReport(
  store: Store,
  dayId: string,
  { report, phoneNow }: SentPadReport,
  now: string,
): Promise<{ report: KeptPadReport; feel: Feel | null }> {
  // The phone's clock may be wrong; how long ago it was said is not.
  const agoMs = Math.max(0, Date.parse(phoneNow) - Date.parse(report.at))
  const saidAt = new Date(Date.parse(now) - agoMs).toISOString()
  const fresh = await store.writes.run(async () => {
    const [held] = await store.db.select().from(padReports).where(eq(padReports.id, report.id))
    if (held as typeof held | undefined) {
      if (held.dayId === dayId) return false
      throw new Refusal('request.invalid', 'That report is of another rider’s day.', { path: 'report.id' })
    }
    await mustHaveRoom(store, dayId)
    await store.db.insert(padReports).values({ id: report.id, dayId, saidAt, body: report })
    return true
  })
  if (fresh && report.runId !== null) {
    const others = await reportsOf(store, [dayId])
    if (!others.some((o) => o.takenFor === report.runId)) {
      const taken = await takenByItself(store, report.id, report.runId)
      if (taken) return taken
    }
  }
  return { report: await mustHaveReport(store, report.id), feel: null }
}

/** Others may write of the same run in the same moment; more often than this is no moment any more. */
const mostTries = 5

/** Lays a report into the run that the phone named; null: it is kept, and somebody in the tent says what it is for. */
async function takenByItself(store: Store, id: string, runId: string) {
  for (let tries = 1; ; tries++) {
    try {
      return await takeReport(store, id, runId)
    } catch (e) {
      if (!(e instanceof Refusal)) throw e
      // That somebody else wrote meanwhile contradicts nothing: what stands there now is looked at.
      if (e.code !== 'record.stale' || tries === mostTries) return null
    }
  }
}

/**
 * Lays a report into the feel of a run, or sets it aside (`runId` null).
 * @throws Refusal 'record.not-found', 'reference.missing' for a run of another day, 'pad.differs' where it contradicts
 *   what is known of the run, 'record.stale' where the run was changed in this very moment
 */
export async function takeReport(
  store: Store,
  id: string,
  runId: string | null,
  now = '',
  phoneIsRight = false,
): Promise<{ report: KeptPadReport; feel: Feel | null }> {
  const held = await mustHaveReport(store, id)
  if (runId === null) {
    await mark(store, id, { droppedAt: now, takenFor: null })
    return { report: await mustHaveReport(store, id), feel: null }
  }
  const ridden = await runsOf(store, held.dayId)
  if (!ridden.some((r) => r.id === runId))
    throw new Refusal('reference.missing', 'That run is not one of this rider’s day.', { path: 'runId' })
  const [row] = await store.db.select({ body: feels.body }).from(feels).where(eq(feels.runId, runId))
  const before = (row as typeof row | undefined)?.body ?? null
  const report = { ...held.report, sectionIds: await knownSections(store, held) }
  const joined = joinedFeel(before, report, runId, runBefore(ridden, runId)?.id ?? null, uuid, phoneIsRight)
  if ('differs' in joined)
    throw new Refusal(
      'pad.differs',
      'The tent and the phone say the opposite of this run; somebody chooses.',
      {
        current: before,
        sent: held.report,
      },
    )
  const { feel } = await saveFeel(store, joined.feel)
  await mark(store, id, { takenFor: runId, droppedAt: null })
  return { report: await mustHaveReport(store, id), feel }
}

/** Sections that the trail still has: a word about one that is gone is about the whole run. */
async function knownSections({ db }: Store, { dayId, report }: KeptPadReport): Promise<string[]> {
  const [row] = await db
    .select({ trail: trails.body })
    .from(days)
    .innerJoin(trails, eq(trails.id, days.trailId))
    .where(eq(days.id, dayId))
  return report.sectionIds.filter((id) => row.trail.sections.some((s) => s.id === id))
}

const mark = (store: Store, id: string, to: { takenFor: string | null; droppedAt: string | null }) =>
  store.writes.run(() => store.db.update(padReports).set(to).where(eq(padReports.id, id)))

async function mustHaveReport({ db }: Store, id: string): Promise<KeptPadReport> {
  const [row] = await db.select().from(padReports).where(eq(padReports.id, id))
  if (!(row as typeof row | undefined)) throw new Refusal('record.not-found', 'There is no such report.')
  return kept(row)
}

async function runsOf({ db }: Store, dayId: string) {
  const rows = await db
    .select({ body: runs.body })
    .from(runs)
    .where(and(eq(runs.dayId, dayId), isNull(runs.deletedAt)))
    .orderBy(asc(runs.startedAt), asc(runs.id))
  return rows.map((r) => r.body)
}

async function mustHaveRoom(
  { db }: Store,
  dayId: string,
  table: typeof padReports | typeof voices = padReports,
) {
  const [{ held }] = await db.select({ held: count() }).from(table).where(eq(table.dayId, dayId))
  if (held >= mostOfADay)
    throw new Refusal('request.invalid', `A phone may send at most ${mostOfADay} of these in a day.`)
}

/** Keeps a spoken note, once. @throws Refusal 'request.invalid' for bytes that are no voice */
export async function keepVoice(
  store: Store,
  dayId: string,
  id: string,
  bytes: Buffer,
  now: string,
): Promise<void> {
  if (voiceTypeOf(bytes) === null)
    throw new Refusal('request.invalid', 'A spoken note is WebM, Ogg or MP4 audio, as a phone records it.')
  await store.writes.run(async () => {
    const [held] = await store.db.select({ id: voices.id }).from(voices).where(eq(voices.id, id))
    if (held as typeof held | undefined) return
    await mustHaveRoom(store, dayId, voices)
    await store.db.insert(voices).values({ id, dayId, cameAt: now, bytes })
  })
}

/** @throws Refusal 'record.not-found' */
export async function readVoice({ db }: Store, id: string): Promise<{ bytes: Buffer; type: VoiceType }> {
  const [row] = await db.select().from(voices).where(eq(voices.id, id))
  const type = (row as typeof row | undefined) ? voiceTypeOf(row.bytes) : null
  if (type === null) throw new Refusal('record.not-found', 'There is no such note.')
  return { bytes: row.bytes, type }
}

/** By the bytes themselves: what a phone says of them would be believed by a browser. */
function voiceTypeOf(bytes: Buffer): VoiceType | null {
  if (bytes.subarray(0, 4).equals(Buffer.from([0x1a, 0x45, 0xdf, 0xa3]))) return 'audio/webm'
  if (bytes.subarray(0, 4).toString('latin1') === 'OggS') return 'audio/ogg'
  return bytes.subarray(4, 8).toString('latin1') === 'ftyp' ? 'audio/mp4' : null
}
