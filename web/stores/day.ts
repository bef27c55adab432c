import { wrap } from 'comlink'
import { defineStore } from 'pinia'
import { v7 as uuid } from 'uuid'
import { computed, ref, shallowRef, watch } from 'vue'
import type { End } from '#contract/common'
import type { TrailDay } from '#contract/day'
import { endpoints, type DayBundle } from '#contract/endpoints'
import type { Proposal, ProposalRecord } from '#contract/proposal'
import { Feel, type Run } from '#contract/run'
import type { ChangeReason, Setup } from '#contract/setup'
import { currentSetupId, spaceOf } from '#core/adviser/history'
import type { DayKnowledge } from '#core/adviser/summary'
import { diffSetups, type Move } from '#core/setup/diff'
import type { UnitChoice } from '#core/units/choice'
import { ApiError, call } from '../api/client.ts'
import { useUnits } from '../composables/useUnits.ts'
import { forgetDraft, keepDraft, readDraft } from '../support/drafts.ts'
import type { JudgeDay } from '../workers/judge.worker.ts'

let judge: ReturnType<typeof wrap<JudgeDay>> | null = null
const judgeDay = (bundle: DayBundle, units: UnitChoice) => {
  judge ??= wrap<JudgeDay>(
    new Worker(new URL('../workers/judge.worker.ts', import.meta.url), { type: 'module' }),
  )
  // A plain copy: a reactive proxy cannot cross to a worker.
  return judge(bundle, { ...units })
}

const sameFeel = (a: Feel, b: Feel) =>
  JSON.stringify({ ...a, version: 0 }) === JSON.stringify({ ...b, version: 0 })

/** What could not be sent is tried again this much later. */
const retryMs = 10_000

export const emptyFeel = (runId: string): Feel => ({
  runId,
  version: 0,
  rating: null,
  marks: [],
  verdicts: [],
  note: '',
})

/** The trail day on the screen: what is held, what is pending, and every act on it. */
export const useDay = defineStore('day', () => {
  const bundle = shallowRef<DayBundle | null>(null)
  const proposal = shallowRef<Proposal | null>(null)
  const knowledge = shallowRef<DayKnowledge | null>(null)
  const selectedRunId = ref<string | null>(null)
  /** Positions that were dialled on screen but not yet said to be on the bike. */
  const pending = ref<Record<string, number>>({})
  const saving = ref<'saved' | 'saving' | 'kept-here'>('saved')
  /** The same run's feel, changed here and elsewhere: a person chooses. */
  const conflict = shallowRef<{ mine: Feel; theirs: Feel } | null>(null)
  const judging = ref(false)
  let feelTimer: ReturnType<typeof setTimeout> | undefined
  const waiting = new Map<string, Feel>()

  const { units } = useUnits()

  const space = computed(() => spaceOf(bundle.value?.units ?? [], bundle.value?.bike, units.value))
  const currentSetup = computed<Setup | null>(() => {
    const b = bundle.value
    return b ? (b.setups.find((s) => s.id === currentSetupId(b)) ?? null) : null
  })
  const positions = computed(
    () => new Map(currentSetup.value?.positions.map((p) => [p.adjusterId, p.value] as const)),
  )
  const pendingMoves = computed<Move[]>(() => {
    const now = currentSetup.value
    if (!now || !bundle.value) return []
    return diffSetups(now, { ...now, positions: withPending(now) }, bundle.value.units)
  })
  const selectedRun = computed<Run | null>(
    () => bundle.value?.runs.find((r) => r.id === selectedRunId.value) ?? bundle.value?.runs.at(-1) ?? null,
  )
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
  const runNumber = (id: string) => (bundle.value?.runs.findIndex((r) => r.id === id) ?? -1) + 1

  function withPending(now: Setup): Setup['positions'] {
    return now.positions.map((p) => ({ ...p, value: pending.value[p.adjusterId] ?? p.value }))
  }

  async function load(id: string): Promise<void> {
    const fresh = await call(endpoints.getDay, { id })
    if (bundle.value?.day.id !== id) {
      pending.value = readDraft<Record<string, number>>(`pending:${id}`) ?? {}
      selectedRunId.value = null
      proposal.value = null
      knowledge.value = null
    }
    bundle.value = withFeelDrafts(fresh)
  }

  /** Feel that was typed but never confirmed comes back; where the server has moved on, a person is asked. */
  function withFeelDrafts(b: DayBundle): DayBundle {
    const drafts = b.runs.flatMap((r) => readDraft<Feel>(`feel:${r.id}`) ?? [])
    const heldOf = (d: Feel) => b.feels.find((f) => f.runId === d.runId)
    const usable = drafts.filter((d) => d.version === (heldOf(d)?.version ?? 0))
    for (const d of usable) waiting.set(d.runId, d)
    if (usable.length > 0) void flushFeel()
    for (const mine of drafts) {
      const theirs = heldOf(mine)
      if (usable.includes(mine) || !theirs) continue
      // The answer to this very save was lost: nothing to ask.
      if (sameFeel(mine, theirs)) forgetDraft(`feel:${mine.runId}`)
      else conflict.value = { mine, theirs }
    }
    return { ...b, feels: [...b.feels.filter((f) => !usable.some((d) => d.runId === f.runId)), ...usable] }
  }

  watch([bundle, units], async ([b, choice]) => {
    if (!b) return
    judging.value = true
    const result = await judgeDay(b, choice)
    if (bundle.value === b) {
      proposal.value = result.proposal
      knowledge.value = result.knowledge
      judging.value = false
    }
  })
  watch(pending, (p) => {
    const id = bundle.value?.day.id
    if (id) keepDraft(`pending:${id}`, Object.keys(p).length ? p : null)
  })

  function patch(change: (b: DayBundle) => Partial<DayBundle>): void {
    if (bundle.value) bundle.value = { ...bundle.value, ...change(bundle.value) }
  }
  const put = <T>(list: readonly T[], item: T, same: (x: T) => boolean) =>
    list.some(same) ? list.map((x) => (same(x) ? item : x)) : [...list, item]

  async function saveRun(run: Run): Promise<Run> {
    const p = proposal.value
    const isNew = !bundle.value?.runs.some((r) => r.id === run.id)
    // Ridden as it stood although a change was proposed: that, too, is a decision worth keeping.
    if (isNew && p && actsOn(p) && !decided(p)) await decide(p, 'repeat')
    const saved = await call(endpoints.putRun, { id: run.id }, run)
    patch((b) => ({ runs: put(b.runs, saved, (r) => r.id === saved.id) }))
    selectedRunId.value = saved.id
    return saved
  }
  async function removeRun(id: string): Promise<void> {
    await call(endpoints.deleteRun, { id })
    patch((b) => ({ runs: b.runs.filter((r) => r.id !== id) }))
    selectedRunId.value = null
  }
  async function restoreRun(id: string): Promise<void> {
    await call(endpoints.restoreRun, { id })
    if (bundle.value) await load(bundle.value.day.id)
  }

  const feelOf = (runId: string): Feel =>
    bundle.value?.feels.find((f) => f.runId === runId) ?? emptyFeel(runId)

  /** Shown at once, kept on this device at once, sent a moment later. */
  function editFeel(feel: Feel): void {
    keepDraft(`feel:${feel.runId}`, feel)
    waiting.set(feel.runId, feel)
    patch((b) => ({ feels: put(b.feels, feel, (f) => f.runId === feel.runId) }))
    saving.value = 'saving'
    clearTimeout(feelTimer)
    feelTimer = setTimeout(() => void flushFeel(), 350)
  }
  let flushing: Promise<void> = Promise.resolve()
  function flushFeel(): Promise<void> {
    flushing = flushing.then(async () => {
      for (const runId of [...waiting.keys()]) await sendFeel(waiting.get(runId)!)
    })
    return flushing
  }
  async function sendFeel(feel: Feel): Promise<void> {
    try {
      const saved = await call(endpoints.putFeel, { id: feel.runId }, feel)
      const newer = waiting.get(feel.runId)
      if (newer && newer !== feel) {
        // Typed on while it was under way: the newer text goes on from the saved version.
        editFeel({ ...newer, version: saved.version })
        return
      }
      waiting.delete(feel.runId)
      forgetDraft(`feel:${feel.runId}`)
      patch((b) => ({ feels: put(b.feels, saved, (f) => f.runId === saved.runId) }))
      saving.value = 'saved'
    } catch (e) {
      saving.value = 'kept-here'
      const stale = e instanceof ApiError && e.problem?.code === 'record.stale'
      if (stale) conflict.value = { mine: feel, theirs: Feel.parse(e.problem!.current) }
      else setTimeout(() => void flushFeel(), retryMs)
    }
  }

  /** Ends a conflict: mine goes on from their version, or theirs is taken. */
  function settleConflict(keep: 'mine' | 'theirs'): void {
    const c = conflict.value
    conflict.value = null
    if (!c) return
    if (keep === 'mine') return editFeel({ ...c.mine, version: c.theirs.version })
    waiting.delete(c.mine.runId)
    forgetDraft(`feel:${c.mine.runId}`)
    patch((b) => ({ feels: put(b.feels, c.theirs, (f) => f.runId === c.theirs.runId) }))
    saving.value = 'saved'
  }

  function dial(adjusterId: string, value: number): void {
    const rest = Object.fromEntries(Object.entries(pending.value).filter(([id]) => id !== adjusterId))
    pending.value = positions.value.get(adjusterId) === value ? rest : { ...rest, [adjusterId]: value }
  }
  const clearPending = () => (pending.value = {})

  /** Writes a new setup: what the hands did. */
  async function putSetup(newPositions: Setup['positions'], reason: ChangeReason): Promise<Setup> {
    const b = bundle.value!
    const now = currentSetup.value!
    const setup: Setup = {
      ...now,
      id: uuid(),
      parentId: now.id,
      dayId: b.day.id,
      madeAt: new Date().toISOString(),
      name: null,
      positions: newPositions,
      reason,
    }
    const saved = await call(endpoints.putSetup, { id: setup.id }, setup)
    patch((x) => ({ setups: [...x.setups, saved] }))
    clearPending()
    return saved
  }
  /** What the hands dialled; what had been proposed instead is kept with it. */
  async function applyPending(text: string, linked: boolean): Promise<Setup> {
    const p = proposal.value
    const next = withPending(currentSetup.value!)
    const asked = p && p.moves.length > 0 && pendingMoves.value.length === p.moves.length
    const asProposed =
      asked && p.moves.every((m) => next.some((x) => x.adjusterId === m.adjusterId && x.value === m.to))
    const kept = p && actsOn(p) ? await decide(p, asProposed ? 'done' : 'something-else') : null
    return putSetup(next, {
      text,
      linked,
      source: asProposed ? 'proposal' : 'own-idea',
      proposalId: kept,
    })
  }
  /** Whether a card asked for something to be done to the bike. */
  const actsOn = (p: Proposal) => p.moves.length > 0 || p.setupId !== null
  /** The record of the card as it stands, if it was decided already. */
  function decided(p: Proposal): ProposalRecord | undefined {
    const last = bundle.value?.proposals.at(-1)
    const same = last?.afterRunId === (bundle.value?.runs.at(-1)?.id ?? null)
    return same &&
      JSON.stringify(last?.proposal.moves) === JSON.stringify(p.moves) &&
      last?.proposal.kind === p.kind
      ? last
      : undefined
  }

  function positionsOf(setupId: string): Setup['positions'] {
    return bundle.value!.setups.find((s) => s.id === setupId)!.positions
  }
  const backTo = (setupId: string, text: string, proposalId: string | null = null) =>
    putSetup(positionsOf(setupId), { text, linked: true, source: 'revert', proposalId })

  /** Keeps what was proposed and what was done with it. */
  async function decide(p: Proposal, decision: ProposalRecord['decision']): Promise<string> {
    const b = bundle.value!
    const before = decided(p)
    if (before) {
      // The same card, decided again: "something else", then what it was.
      if (before.decision !== decision) {
        const saved = await call(endpoints.putProposal, { id: before.id }, { ...before, decision })
        patch((x) => ({ proposals: put(x.proposals, saved, (q) => q.id === saved.id) }))
      }
      return before.id
    }
    const record: ProposalRecord = {
      id: uuid(),
      version: 0,
      dayId: b.day.id,
      afterRunId: b.runs.at(-1)?.id ?? null,
      shownAt: new Date().toISOString(),
      proposal: p,
      decision,
      note: '',
    }
    const saved = await call(endpoints.putProposal, { id: record.id }, record)
    patch((x) => ({ proposals: [...x.proposals, saved] }))
    return saved.id
  }
  async function doProposal(p: Proposal): Promise<void> {
    const id = await decide(p, 'done')
    if (p.setupId) {
      await backTo(p.setupId, p.headline, id)
      return
    }
    const now = currentSetup.value!
    const to = new Map(p.moves.map((m) => [m.adjusterId, m.to]))
    await putSetup(
      now.positions.map((x) => ({ ...x, value: to.get(x.adjusterId) ?? x.value })),
      { text: p.headline, linked: p.moves.length > 1, source: 'proposal', proposalId: id },
    )
  }
  const settle = (setupId: string | null) => editDay({ settledSetupId: setupId })
  async function editDay(change: Partial<TrailDay>): Promise<void> {
    const b = bundle.value!
    const saved = await call(endpoints.putDay, { id: b.day.id }, { ...b.day, ...change })
    patch(() => ({ day: saved }))
  }

  return {
    bundle,
    proposal,
    knowledge,
    selectedRunId,
    selectedRun,
    pending,
    pendingMoves,
    positions,
    currentSetup,
    space,
    saving,
    conflict,
    settleConflict,
    judging,
    load,
    runNumber,
    saveRun,
    removeRun,
    restoreRun,
    feelOf,
    editFeel,
    flushFeel,
    dial,
    clearPending,
    applyPending,
    backTo,
    doProposal,
    decide,
    settle,
    editDay,
    covered,
    uncover: (runId: string) => void (uncovered.value = runId),
    unitAt: (end: End) => space.value[end],
  }
})
