import { useQuery } from '@tanstack/vue-query'
import { defineStore } from 'pinia'
import { computed, ref, watch } from 'vue'
import type { End } from '#contract/common'
import type { TrailDay } from '#contract/day'
import type { DayPlan } from '#contract/dayPlan'
import type { DayBundle } from '#contract/endpoints'
import type { HourLine } from '#contract/hour'
import type { Proposal } from '#contract/proposal'
import type { Run } from '#contract/run'
import { cache, readAfresh, reads } from '../api/cache.ts'
import { overlayDay } from '../api/overlay.ts'
import { useUnits } from '../composables/useUnits.ts'
import { keepDraft, readDraft } from '../support/drafts.ts'
import { actsOn, useDecisions } from './day/decisions.ts'
import { useEarlier } from './day/earlier.ts'
import { useFeels } from './day/feel.ts'
import { useDayJudge } from './day/judge.ts'
import { editList } from './day/lists.ts'
import { useLooking } from './day/looking.ts'
import { useOnBike } from './day/onBike.ts'
import { useOvertaken } from './day/overtaken.ts'
import { useTurns, type Done } from './day/turns.ts'
import { useOutbox } from './outbox.ts'

/** The trail day on the screen: what is held, what is pending, and every act on it. */
export const useDay = defineStore('day', () => {
  const outbox = useOutbox()
  const { units } = useUnits()
  const id = ref<string | null>(null)
  const { data } = useQuery(
    computed(() => ({ ...reads.day(id.value ?? ''), enabled: id.value !== null, shallow: true })),
    cache,
  )
  const bundle = computed<DayBundle | null>(() =>
    data.value && data.value.day.id === id.value ? overlayDay(data.value, outbox.letters) : null,
  )
  const { earlier, earlierFailed } = useEarlier(id, bundle)
  const { proposal, knowledge, judging, fault: judgeFault, forget } = useDayJudge(bundle, earlier, units)
  const { selectedRunId, selectedRun, arrived } = useLooking(bundle)
  const onBike = useOnBike(bundle)
  const { pending, clearPending, chosen, currentSetup, setupOf, space } = onBike
  const turns = useTurns(bundle, onBike)
  const feels = useFeels(bundle, selectedRun)
  const { decided, decide } = useDecisions(bundle)
  const overtaken = useOvertaken(bundle, setupOf)
  /** Uncovered by hand, for this one run: a coach's look. */
  const uncovered = ref<string | null>(null)
  /** The run whose feel is still out while the rider judges blind; settings and data stay covered until it is in. */
  const covered = computed<Run | null>(() => {
    const b = bundle.value
    const last = b?.runs.at(-1)
    if (!b?.day.blind || last?.kind !== 'counted' || last.id === uncovered.value) return null
    const feel = b.feels.find((f) => f.runId === last.id)
    return feel && (feel.rating !== null || feel.marks.length > 0) ? null : last
  })
  const runNumber = (runId: string) => (bundle.value?.runs.findIndex((r) => r.id === runId) ?? -1) + 1

  async function load(dayId: string): Promise<void> {
    if (id.value !== dayId) {
      selectedRunId.value = null
      forget()
      pending.value = readDraft<Record<string, number>>(`pending:${dayId}`) ?? {}
    }
    await readAfresh(reads.day(dayId))
    id.value = dayId
  }
  watch(pending, (p) => {
    if (id.value) keepDraft(`pending:${id.value}`, Object.keys(p).length ? p : null)
  })

  async function saveRun(run: Run): Promise<Run> {
    const p = proposal.value
    const isNew = !bundle.value?.runs.some((r) => r.id === run.id)
    // Ridden as it stood although a change was proposed: that, too, is a decision worth keeping.
    const decision = isNew && p && actsOn(p) && !decided(p) ? decide(p, 'repeat') : null
    const saving = outbox.save('run', run)
    // It is there from now on: whatever is tapped next is meant for it, however long its answer takes.
    const before = selectedRunId.value
    selectedRunId.value = run.id
    try {
      const [done] = await Promise.all([saving, decision])
      return done.state === 'saved' ? done.saved : run
    } catch (e) {
      if (isNew && selectedRunId.value === run.id) selectedRunId.value = before
      throw e
    }
  }
  async function removeRun(runId: string): Promise<void> {
    const removing = outbox.remove('run', runId)
    if (selectedRunId.value === runId) selectedRunId.value = null
    await removing
  }
  const restoreRun = (runId: string) => outbox.restore('run', runId)

  /** What the hands chosen: dials that were unread are read first, then the turns; the card they answer is kept with it. */
  async function applyPending(text: string, linked: boolean): Promise<Done> {
    const p = proposal.value
    const to = chosen(false)
    const asProposed =
      p !== null &&
      p.moves.length > 0 &&
      to.size === p.moves.length &&
      p.moves.every((m) => to.get(m.adjusterId) === m.to)
    let done = await turns.readPending()
    if (to.size > 0) {
      const kept = p && actsOn(p) ? await decide(p, asProposed ? 'done' : 'something-else') : null
      const source = asProposed ? 'proposal' : 'own-idea'
      done = await turns.putSetup(turns.turnsTo(to), { text, linked, source, proposalId: kept })
    }
    return done ?? { before: currentSetup.value!, after: currentSetup.value!, moves: [] }
  }
  async function doProposal(p: Proposal): Promise<Done> {
    const proposalId = await decide(p, 'done')
    if (p.setupId) return turns.backTo(p.setupId, p.headline, proposalId)
    return turns.putSetup(turns.turnsTo(new Map(p.moves.map((m) => [m.adjusterId, m.to]))), {
      text: p.headline,
      linked: p.moves.length > 1,
      source: 'proposal',
      proposalId,
    })
  }
  const settle = (setupId: string | null) => editDay({ settledSetupId: setupId })
  async function editDay(change: Partial<TrailDay>): Promise<void> {
    await outbox.save('day', { ...bundle.value!.day, ...change })
  }
  /** Changes the log by the hour. @throws ApiError */
  const editHours = (change: (hours: readonly HourLine[]) => HourLine[]) =>
    editList(outbox, bundle.value!.day, 'hours', change)
  /** Changes what is planned for the next runs. @throws ApiError */
  const editPlans = (change: (plans: readonly DayPlan[]) => DayPlan[]) =>
    editList(outbox, bundle.value!.day, 'plans', change)

  return {
    bundle,
    proposal,
    knowledge,
    judging,
    judgeFault,
    earlierFailed,
    selectedRunId,
    selectedRun,
    arrived,
    pending,
    pendingMoves: onBike.pendingMoves,
    pendingReadings: onBike.pendingReadings,
    choose: onBike.choose,
    clearPending,
    applyPending,
    air: onBike.air,
    positions: onBike.positions,
    held: onBike.held,
    currentSetup,
    present: onBike.present,
    past: onBike.past,
    space,
    changes: onBike.changes,
    undo: onBike.undo,
    readParts: turns.readParts,
    readSag: turns.readSag,
    unreadSag: turns.unreadSag,
    backTo: turns.backTo,
    undoLast: turns.undoLast,
    ...feels,
    ...overtaken,
    load,
    runNumber,
    saveRun,
    removeRun,
    restoreRun,
    doProposal,
    decide,
    settle,
    editDay,
    editHours,
    editPlans,
    covered,
    uncover: (runId: string) => void (uncovered.value = runId),
    unitAt: (end: End) => space.value[end],
  }
})
