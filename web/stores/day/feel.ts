import { computed, type Ref } from 'vue'
import type { DayBundle } from '#contract/endpoints'
import type { Answer } from '#contract/question'
import { Feel, type Run } from '#contract/run'
import { withAnswered, withTakenBack } from '#core/causes/answered'
import { runBefore } from '#core/setup/runBefore'
import { emptyFeel } from '#core/setup/nothingNoted'
import { feelTogether } from '../../support/feelTogether.ts'
import { useOutbox } from '../outbox.ts'

/** Typing pauses this long before feel is sent; it waits safely from the first letter on. */
const typingMs = 350

/** How the runs of a day were, and what was answered of them. */
export function useFeels(bundle: Ref<DayBundle | null>, selectedRun: Ref<Run | null>) {
  const outbox = useOutbox()
  const feelOf = (runId: string): Feel =>
    bundle.value?.feels.find((f) => f.runId === runId) ?? emptyFeel(runId)
  const feelKey = (runId: string) => `feel:${runId}`

  /** Shown at once, kept on this device at once, sent a moment later; what others say of the run meanwhile goes with it. */
  const editFeel = (feel: Feel) =>
    void outbox.write({
      kind: 'feel',
      key: feelKey(feel.runId),
      params: { id: feel.runId },
      body: feel,
      opened: feelOf(feel.runId),
      file: null,
      holdMs: typingMs,
    })
  const before = (runId: string) => runBefore(bundle.value?.runs ?? [], runId)?.id ?? null
  const answer = (runId: string, given: Answer) => editFeel(withAnswered(feelOf(runId), given, before(runId)))
  const unanswer = (runId: string, given: Answer) =>
    editFeel(withTakenBack(feelOf(runId), given, before(runId)))
  /** The selected run's feel, changed here and elsewhere: a person chooses. */
  const conflict = computed(() => {
    const letter = selectedRun.value && outbox.conflictOf(feelKey(selectedRun.value.id))
    const theirs = letter && Feel.safeParse(letter.problem?.current)
    if (!letter || !theirs?.success) return null
    const mine = letter.body as Feel
    const { differences } = feelTogether((letter.opened as Feel | undefined) ?? null, mine, theirs.data)
    return { id: letter.id, mine, theirs: theirs.data, differences }
  })
  const settleConflict = (which: 'mine' | 'theirs') =>
    conflict.value ? outbox.settle(conflict.value.id, which) : Promise.resolve()
  return { feelOf, editFeel, answer, unanswer, conflict, settleConflict }
}
