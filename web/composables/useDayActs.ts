import { ref } from 'vue'
import { adjusterName, positionWords } from '#core/adjusters/words'
import type { ReadPart } from '#core/command/reading'
import { answerWords } from '#core/causes/questions'
import { moveWords } from '#core/setup/diff'
import { useDay } from '../stores/day.ts'
import type { Done } from '../stores/day/turns.ts'
import { useNotices } from '../stores/notices.ts'
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
  /** Says what the hands did, from the settings before and after; nothing else is known to be true. */
  function tell(done: Done, more = ''): void {
    // A reading may correct a number: that is no turn.
    const turned = done.after.reason.source === 'reading' ? [] : done.moves
    const words = turned.map((m) => moveWords(m, units.value)).join('; ')
    const text = words ? `On the bike: ${words}.` : 'Read; nothing was turned.'
    notices.show(more ? `${text} ${more}` : text, 'done', words ? undo : null, day.bundle?.day.id ?? null)
  }
  async function undo(): Promise<void> {
    const done = await day.undoLast()
    if (!done) return
    const words = done.moves.map((m) => moveWords(m, units.value)).join('; ')
    notices.show(`Taken back: ${words}.`, 'done', null, day.bundle?.day.id ?? null)
  }
  return {
    busy,
    tell,
    undo: () => act(undo),
    doIt: () =>
      act(async () => {
        if (day.proposal)
          tell(await day.doProposal(day.proposal), 'Ride the same section, same line, same speed.')
      }),
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
        if (!end) return
        const { after } = await day.readSag(end, sagPct)
        notices.show(
          `${end === 'front' ? 'Front' : 'Rear'} sag read: ${Math.round(sagPct)} %. Nothing was turned.`,
          'done',
          async () => void (await day.unreadSag(after)),
          day.bundle?.day.id ?? null,
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
        if (day.proposal) await day.decide(day.proposal, 'happy')
        await day.settle(day.currentSetup!.id)
        notices.show(
          'Settled. Nothing more will be proposed unless you open the day again.',
          'done',
          () => day.settle(null),
          day.bundle?.day.id ?? null,
        )
      }),
    reopen: () => act(() => day.settle(null)),
    async removeRun(runId: string): Promise<void> {
      const n = day.runNumber(runId)
      if (await act(() => day.removeRun(runId)))
        notices.show(`Run ${n} was removed.`, 'done', () => day.restoreRun(runId), day.bundle?.day.id ?? null)
    },
  }
}
