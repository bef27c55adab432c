import { ref } from 'vue'
import { adjusterName, positionWords } from '#core/adjusters/words'
import type { ReadPart } from '#core/command/reading'
import { answerWords } from '#core/causes/questions'
import { moveWords } from '#core/setup/diff'
import { useDay } from '../stores/day.ts'
import type { Done } from '../stores/day/turns.ts'
import { useNotices } from '../stores/notices.ts'
import { oneAtATime, twiceMs } from '../support/oneAtATime.ts'
import { useUnits } from './useUnits.ts'

/** What a person does on a day's screen: each act says what was done, with the way back. */
export function useDayActs() {
  const day = useDay()
  const notices = useNotices()
  const { units } = useUnits()
  const busy = ref(false)

  async function act(action: () => Promise<unknown>): Promise<boolean> {
    busy.value = true
    const ok = await notices.attempt(action)
    busy.value = false
    return ok
  }
  const openId = () => day.bundle?.day.id ?? null
  /**
   * Told of the day it was done on. The way back acts on the open day: where another was opened before the answer came,
   * there is none.
   */
  function toldOf(dayId: string | null, text: string, undo: () => Promise<void>): void {
    notices.show(text, 'done', openId() === dayId ? undo : null, dayId)
  }
  /** Says what the hands did, from the settings before and after; nothing else is known to be true. */
  function tell(done: Done, more = ''): void {
    // A reading may correct a number: that is no turn.
    const turned = done.after.reason.source === 'reading' ? [] : done.moves
    const words = turned.map((m) => moveWords(m, units.value)).join('; ')
    const lost = done.before.positions.length > done.after.positions.length
    const nothing = `${lost ? 'Unread from now on' : 'Read'}; nothing was turned.`
    const text = words ? `On the bike: ${words}.` : nothing
    const told = more ? `${text} ${more}` : text
    if (words) toldOf(done.after.dayId, told, undo)
    else notices.show(told, 'done', null, done.after.dayId)
  }
  async function undo(): Promise<void> {
    const done = await day.undoLast()
    if (!done) return
    const words = done.moves.map((m) => moveWords(m, units.value)).join('; ')
    notices.show(`Taken back: ${words}.`, 'done', null, done.after.dayId)
  }
  return {
    busy,
    tell,
    // The button stays, and stands for the change before.
    undo: oneAtATime(() => act(undo), { restMs: twiceMs }),
    doIt: oneAtATime(() =>
      act(async () => {
        const { proposal } = day
        // What was gone back to may not have to be ridden first: the next card says so.
        const more = proposal?.setupId ? '' : 'Ride the same section, same line, same speed.'
        if (proposal) tell(await day.doProposal(proposal), more)
      }),
    ),
    /** A tap on the card: evidence at once, with the way back. */
    answer: (answer: string) =>
      act(async () => {
        const q = day.proposal?.question
        if (!q) return
        const given = { question: q.id, end: q.end, answer }
        day.answer(q.runId, given)
        notices.show(
          `Kept on run ${day.runNumber(q.runId)}: ${answerWords(q.id, answer)}.`,
          'done',
          async () => day.unanswer(q.runId, given),
          day.bundle?.day.id ?? null,
        )
      }),
    readSag: (sagPct: number) =>
      act(async () => {
        const end = day.proposal?.readEnd
        const of = openId()
        if (!end) return
        const { after } = await day.readSag(end, sagPct)
        toldOf(
          of,
          `${end === 'front' ? 'Front' : 'Rear'} sag read: ${Math.round(sagPct)} %. Nothing was turned.`,
          async () => void (await day.unreadSag(after)),
        )
      }),
    /** Where parts were found to stand; a number that differs is kept as what is true now. */
    found: (parts: readonly ReadPart[], gaugeId: string | null) =>
      act(async () => {
        await day.readParts(parts, { gaugeId })
        const words = parts.map(({ end, adjuster, value }) => {
          const at = value === null ? 'not sure' : positionWords(adjuster, value, units.value)
          return `${end} ${adjusterName(adjuster).toLowerCase()} ${at}`
        })
        notices.show(`Read: ${words.join(', ')}. Nothing was turned.`, 'done')
      }),
    decideOther: () =>
      act(async () => {
        if (day.proposal) await day.decide(day.proposal, 'something-else')
      }),
    decideRepeat: () =>
      act(async () => {
        if (day.proposal) await day.decide(day.proposal, 'repeat')
      }),
    happy: () =>
      act(async () => {
        const of = openId()
        // Both are of the day that is open now.
        const decided = day.proposal ? day.decide(day.proposal, 'happy') : null
        await Promise.all([day.settle(day.currentSetup!.id), decided])
        toldOf(of, 'Settled. Nothing more will be proposed unless you open the day again.', () =>
          day.settle(null),
        )
      }),
    reopen: () => act(() => day.settle(null)),
    async removeRun(runId: string): Promise<void> {
      const [n, of] = [day.runNumber(runId), openId()]
      if (await act(() => day.removeRun(runId)))
        notices.show(`Run ${n} was removed.`, 'done', () => day.restoreRun(runId), of)
    },
  }
}
