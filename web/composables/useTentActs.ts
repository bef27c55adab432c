import { until } from '@vueuse/core'
import { v7 as uuid } from 'uuid'
import type { Run } from '#contract/run'
import type { TrailDay } from '#contract/day'
import type { DayPlan } from '#contract/dayPlan'
import type { TentBundle, TentNote, TentNoteKind, TentRider, Whereabouts } from '#contract/tent'
import type { ReadPart } from '#core/command/reading'
import { withVerdicts } from '#core/causes/answered'
import { wordRules } from '#core/causes/words'
import type { LineFeel } from '#core/tent/line'
import { notedLast } from '#core/conditions/at'
import { logOf } from '#core/conditions/log'
import { nothingNoted } from '#core/setup/nothingNoted'
import { runBefore } from '#core/setup/runBefore'
import { useDay } from '../stores/day.ts'
import { editList } from '../stores/day/lists.ts'
import { useNotices } from '../stores/notices.ts'
import { useOutbox } from '../stores/outbox.ts'
import { oneAtATime, runAgainMs } from '../support/oneAtATime.ts'
import { noteWords } from '../support/tentWords.ts'
import { useDayActs } from './useDayActs.ts'
import type { TentRow } from './useTent.ts'

/** Longer than this nobody waits beside a bike. */
const patienceMs = 8000
/** What is put off or planned for a rider, and the day that it is for; what stands on a day has one. */
export interface KeptFor {
  kept: TentNote | DayPlan
  day: TrailDay | null
}

const nothingSaid: LineFeel = { rating: null, marks: [], verdict: null }
const isNothing = (f: LineFeel) => f.rating === null && f.marks.length === 0 && f.verdict === null

/**
 * What a mechanic does for the rider that is chosen in a tent; each act says what was done, with the way back. The day of
 * that rider is the open one.
 */
export function useTentActs(tent: () => TentBundle | null, chosen: () => TentRow | null) {
  const day = useDay()
  const notices = useNotices()
  const outbox = useOutbox()
  const acts = useDayActs()
  const name = () => chosen()?.day?.rider.name ?? 'The rider'

  /**
   * The day of the chosen rider is the open one. On a slow line it takes a moment: what a hand did meanwhile waits for it,
   * and nothing is done on another rider's day.
   */
  async function theirs(): Promise<TentRow | null> {
    const row = chosen()
    if (!row) return null
    const isOpen = () => day.bundle?.day.id === row.rider.id
    if (!isOpen()) await until(isOpen).toBe(true, { timeout: patienceMs })
    if (isOpen()) return row
    notices.show('That rider’s day could not be read yet; nothing was done. Try again.', 'error')
    return null
  }
  const saveRider = (rider: TentRider) => outbox.save('tentRider', rider)
  const place = (row: TentRow, whereabouts: Whereabouts, since = new Date().toISOString()) =>
    saveRider({ ...(heldRider(row) ?? row.rider), whereabouts, since })
  /** As it is held now: between a key and its deed somebody may have said something of the same rider. */
  const heldRider = (row: TentRow) => tent()?.riders.find((r) => r.id === row.rider.id)
  async function goes(to: Whereabouts): Promise<void> {
    const row = to === 'settled' ? await theirs() : chosen()
    if (!row || row.rider.whereabouts === to) return
    if (to === 'settled') {
      const counted = row.lane.runs.some((r) => r.kind === 'counted')
      if (!counted) return void notices.show('No run counts yet: nobody can be settled on it.', 'error')
      // Not kept as settled: then nobody is told that it is.
      if (!(await acts.happy())) return
    }
    await notices.attempt(() => place(row, to))
  }

  /** A run is logged with the air that was noted last; who was out rode since then. @returns its id; null: it was not */
  async function comesIn(feel: LineFeel = nothingSaid): Promise<string | null> {
    const row = await theirs()
    const b = day.bundle
    if (!row || !b) return null
    const held = tent()
    const last = b.runs.at(-1)
    const now = new Date().toISOString()
    const out = row.rider.whereabouts === 'out' ? row.rider.since : now
    const run: Run = {
      id: uuid(),
      version: 0,
      dayId: b.day.id,
      setupId: day.currentSetup?.id ?? b.day.startSetupId,
      startedAt: last && out <= last.startedAt ? now : out,
      kind: b.runs.length === 0 ? 'warm-up' : 'counted',
      ...nothingNoted,
      // The tent as it is held now: the day hears of a line a moment later.
      ...notedLast(logOf({ day: b.day, tent: held && { id: held.tent.id, hours: held.hours } }).hours),
    }
    const number = b.runs.length + 1
    const before = row.rider
    // The answers may come when somebody else is chosen already: whose run it is stands now.
    const who = name()
    const saving = day.saveRun(run)
    if (!isNothing(feel)) say(feel, run.id)
    const ok = await notices.attempt(async () => {
      await saving
      await place(row, 'here')
    })
    if (!ok) return null
    notices.show(
      `${who} is in: run ${number} is logged${run.kind === 'warm-up' ? ' as a warm-up; nobody judges it' : ''}.`,
      'done',
      async () => {
        await day.removeRun(run.id)
        await saveRider({
          ...(heldRider(row) ?? before),
          whereabouts: before.whereabouts,
          since: before.since,
        })
      },
    )
    return run.id
  }

  /** By a tap or a key, which a hand may hit twice. */
  const tapIn = oneAtATime(() => comesIn(), { restMs: runAgainMs, by: () => chosen()?.rider.id ?? '' })

  /** What is said of a run, added to what was said of it before. */
  function say(said: LineFeel, runId = day.bundle?.runs.at(-1)?.id): void {
    const b = day.bundle
    if (!b || !runId) return void notices.show('There is no run yet to say that of.', 'error')
    const feel = day.feelOf(runId)
    const marks = said.marks
      .filter((m) => !feel.marks.some((x) => x.word === m.word && x.end === m.end && x.sectionId === null))
      .map((m) => ({ id: uuid(), ...m, sectionId: null, strength: 2 as const }))
    const before = runBefore(b.runs, runId)
    const verdicts =
      said.verdict === null || !before
        ? feel.verdicts
        : [
            ...feel.verdicts.filter((v) => v.againstRunId !== before.id),
            { againstRunId: before.id, value: said.verdict },
          ]
    if (said.verdict !== null && !before)
      notices.show('There is no earlier run that counts; better or worse than what?', 'error')
    const told = { ...feel, rating: said.rating ?? feel.rating, marks: [...feel.marks, ...marks] }
    day.editFeel(withVerdicts(told, verdicts, before?.id ?? null))
  }

  /** Puts down what was decided. @param runId of a plan: the run it is made after */
  async function note(kind: TentNoteKind, text: string, runId: string | null = null): Promise<boolean> {
    const row = chosen()
    const t = tent()
    if (!row || !t) return false
    if (kind !== 'no-time' && text === '') {
      notices.show(
        kind === 'later' ? 'Say what is to be done after the next run.' : 'Say why it is left alone.',
        'error',
      )
      return false
    }
    const record: TentNote = {
      id: uuid(),
      version: 0,
      tentId: t.tent.id,
      dayId: row.rider.id,
      at: new Date().toISOString(),
      kind,
      text,
      closedAt: null,
      afterRunId: runId,
    }
    const who = name()
    const ok = await notices.attempt(() => outbox.save('tentNote', record))
    if (ok)
      notices.show(`${who}: ${noteWords[kind].toLowerCase()}${text ? `, ${text}` : ''}.`, 'done', () =>
        outbox.remove('tentNote', record.id),
      )
    return ok
  }
  /** What the rider's phone said belongs to that run, or to none. */
  const takeReport = (id: string, runId: string | null, phoneIsRight = false) =>
    notices.attempt(() => outbox.save('takenReport', { id, runId, phoneIsRight }))
  /** Done, dropped, or open again: a note of the tent, or a plan that stands on a rider's day. */
  const closeAt = ({ kept, day: of }: KeptFor, closedAt: string | null) =>
    notices.attempt(async () => {
      if (!('tentId' in kept))
        return (
          of &&
          editList(outbox, of, 'plans', (plans) =>
            plans.map((p) => (p.id === kept.id ? { ...p, closedAt } : p)),
          )
        )
      const held = tent()?.notes.find((x) => x.id === kept.id)
      await outbox.save('tentNote', { ...(held ?? kept), closedAt })
    })
  const close = (n: KeptFor) => closeAt(n, new Date().toISOString())
  /** What was put off or planned is not done. */
  async function drop(n: KeptFor): Promise<void> {
    if (await close(n))
      notices.show(`Dropped: ${n.kept.text}.`, 'done', async () => {
        await closeAt(n, null)
      })
  }
  /** Where the chosen rider's parts were found to stand before the first run; nothing is turned. */
  async function keepCheck(parts: readonly ReadPart[], gaugeId: string | null): Promise<boolean> {
    if (!(await theirs())) return false
    return notices.attempt(async () => {
      await day.readParts(parts, { gaugeId, text: 'Morning check, nothing turned' })
    })
  }
  /** Turns what worked for another rider, translated. */
  const takeOffer = oneAtATime(async (): Promise<void> => {
    const row = await theirs()
    const offer = row?.offer
    if (!row || !offer) return
    await notices.attempt(async () => {
      for (const m of offer.moves) day.choose(m.adjuster.id, m.to)
      const word = wordRules[offer.word].label
      acts.tell(await day.applyPending(`worked for another rider: ${word}`, offer.moves.length > 1))
    })
  })

  return { theirs, goes, comesIn, tapIn, say, note, close, drop, keepCheck, takeOffer, takeReport, acts }
}
