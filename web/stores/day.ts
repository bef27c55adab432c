import { useQuery } from '@tanstack/vue-query'
import { defineStore } from 'pinia'
import { v7 as uuid } from 'uuid'
import { computed, ref, watch } from 'vue'
import type { End } from '#contract/common'
import type { TrailDay } from '#contract/day'
import type { DayBundle } from '#contract/endpoints'
import type { Proposal, ProposalRecord } from '#contract/proposal'
import type { Answer } from '#contract/question'
import { Feel, type Run } from '#contract/run'
import type { Position, Setup } from '#contract/setup'
import { airNow } from '#core/adviser/airNow'
import { currentSetupId, spaceOf, spaceOfDay } from '#core/adviser/history'
import { diffSetups, type Move } from '#core/setup/diff'
import { readBy, withTurns, type Hand } from '#core/setup/known'
import { rebased } from '#core/setup/rebase'
import { changesMade, undoable } from '#core/setup/undo'
import { cache, reads } from '../api/cache.ts'
import type { Letter } from '../api/letters.ts'
import { overlayDay } from '../api/overlay.ts'
import { useUnits } from '../composables/useUnits.ts'
import { useWho } from '../composables/useWho.ts'
import { keepDraft, readDraft } from '../support/drafts.ts'
import { useDayJudge } from './dayJudge.ts'
import { useOutbox } from './outbox.ts'

/** Typing pauses this long before feel is sent; it waits safely from the first letter on. */
const typingMs = 350

export const emptyFeel = (runId: string): Feel => ({
  runId,
  version: 0,
  rating: null,
  marks: [],
  verdicts: [],
  answers: [],
  note: '',
})

/** What was done to the bike: the settings before and after, and what moved. */
export interface Done {
  before: Setup
  after: Setup
  moves: Move[]
}

/** The trail day on the screen: what is held, what is pending, and every act on it. */
export const useDay = defineStore('day', () => {
  const outbox = useOutbox()
  const { units } = useUnits()
  const { who } = useWho()
  const id = ref<string | null>(null)
  const { data } = useQuery(
    computed(() => ({ ...reads.day(id.value ?? ''), enabled: id.value !== null, shallow: true })),
    cache,
  )
  const bundle = computed<DayBundle | null>(() =>
    data.value && data.value.day.id === id.value ? overlayDay(data.value, outbox.letters) : null,
  )
  const { data: before, status: beforeStatus } = useQuery(
    computed(() => ({
      ...reads.earlier(id.value ?? ''),
      enabled: bundle.value !== null && !bundle.value.day.judgedAlone,
      shallow: true,
    })),
    cache,
  )
  const none: readonly DayBundle[] = []
  /** Days this one starts from; none when it is judged on its own, or when they cannot be had. */
  const earlier = computed<readonly DayBundle[] | null>(() => {
    if (bundle.value?.day.judgedAlone) return none
    return beforeStatus.value === 'pending' ? null : (before.value ?? none)
  })
  const earlierFailed = computed(() => !bundle.value?.day.judgedAlone && beforeStatus.value === 'error')
  const { proposal, knowledge, judging, fault: judgeFault, forget } = useDayJudge(bundle, earlier, units)
  const selectedRunId = ref<string | null>(null)
  /** Positions that were dialled on screen but not yet said to be on the bike. */
  const pending = ref<Record<string, number>>({})

  const space = computed(() =>
    bundle.value ? spaceOfDay(bundle.value, units.value) : spaceOf([], undefined, units.value),
  )
  const parts = computed(
    () =>
      new Map(
        (bundle.value?.units ?? []).flatMap((u) =>
          u.adjusters.map((part) => [part.id, { part, end: u.end }] as const),
        ),
      ),
  )
  const setupOf = (setupId: string | null) => bundle.value?.setups.find((s) => s.id === setupId) ?? null
  /** On the last day: what is on the bike now. On a past day: what was on it at its end. */
  const currentSetup = computed<Setup | null>(() =>
    bundle.value ? setupOf(currentSetupId(bundle.value)) : null,
  )
  /** What is on the bike now, whichever day is shown. */
  const present = computed<Setup | null>(() => setupOf(bundle.value?.bike.currentSetupId ?? null))
  /** A past day never writes the present. */
  const past = computed(() => bundle.value?.latest === false)
  const held = computed(() => new Map(currentSetup.value?.positions.map((p) => [p.adjusterId, p] as const)))
  const positions = computed(() => new Map([...held.value].map(([key, p]) => [key, p.value] as const)))
  const pendingSetup = computed<Setup | null>(() => {
    const now = currentSetup.value
    return now && { ...now, positions: withTurns(now.positions, dialled(false), parts.value, hand()) }
  })
  const pendingMoves = computed<Move[]>(() =>
    currentSetup.value && pendingSetup.value
      ? diffSetups(currentSetup.value, pendingSetup.value, bundle.value!.units)
      : [],
  )
  /** Dials nobody had read, and where they are said to stand. */
  const pendingReadings = computed(() =>
    [...dialled(true)].flatMap(([key, value]) => {
      const x = parts.value.get(key)
      return x ? [{ ...x, value }] : []
    }),
  )
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
  const changes = computed(() => (bundle.value ? changesMade(bundle.value.setups, bundle.value.day.id) : 0))
  /** The change an undo would take back, with what it would do; null when there is none, or on a past day. */
  const undo = computed(() => {
    const b = bundle.value
    const u = b && !past.value ? undoable(b.setups, b.day.id) : null
    return u && { ...u, moves: diffSetups(u.change, u.before, b!.units) }
  })
  const runNumber = (runId: string) => (bundle.value?.runs.findIndex((r) => r.id === runId) ?? -1) + 1

  /** Air and height as they were noted last on this day. */
  const air = computed(() => {
    const b = bundle.value
    return b
      ? airNow({ conditions: b.day.conditions, runs: b.runs.map((run) => ({ run })) })
      : { airTempC: null, altitudeM: null }
  })

  /** What is dialled: on dials that were unread, or on those that stand somewhere. */
  function dialled(unread: boolean): Map<string, number> {
    return new Map(Object.entries(pending.value).filter(([key]) => held.value.has(key) !== unread))
  }
  function hand(): Hand {
    return {
      at: new Date().toISOString(),
      by: who.value,
      ...air.value,
      place: bundle.value?.trail.place ?? '',
    }
  }

  async function load(dayId: string): Promise<void> {
    if (id.value !== dayId) {
      selectedRunId.value = null
      forget()
      pending.value = readDraft<Record<string, number>>(`pending:${dayId}`) ?? {}
    }
    await cache.fetchQuery({ ...reads.day(dayId), staleTime: 0 })
    id.value = dayId
  }
  watch(pending, (p) => {
    if (id.value) keepDraft(`pending:${id.value}`, Object.keys(p).length ? p : null)
  })

  async function saveRun(run: Run): Promise<Run> {
    const p = proposal.value
    const isNew = !bundle.value?.runs.some((r) => r.id === run.id)
    // Ridden as it stood although a change was proposed: that, too, is a decision worth keeping.
    if (isNew && p && actsOn(p) && !decided(p)) await decide(p, 'repeat')
    const done = await outbox.save('run', run)
    selectedRunId.value = run.id
    return done.state === 'saved' ? done.saved : run
  }
  async function removeRun(runId: string): Promise<void> {
    await outbox.remove('run', runId)
    selectedRunId.value = null
  }
  const restoreRun = (runId: string) => outbox.restore('run', runId)

  const feelOf = (runId: string): Feel =>
    bundle.value?.feels.find((f) => f.runId === runId) ?? emptyFeel(runId)
  const feelKey = (runId: string) => `feel:${runId}`

  /** Shown at once, kept on this device at once, sent a moment later. */
  const editFeel = (feel: Feel) =>
    void outbox.write({
      kind: 'feel',
      key: feelKey(feel.runId),
      params: { id: feel.runId },
      body: feel,
      file: null,
      holdMs: typingMs,
    })
  const isSame = (a: Answer, b: Answer) => a.question === b.question && a.end === b.end
  function answer(runId: string, given: Answer): void {
    const feel = feelOf(runId)
    editFeel({ ...feel, answers: [...feel.answers.filter((a) => !isSame(a, given)), given] })
  }
  function unanswer(runId: string, given: Answer): void {
    const feel = feelOf(runId)
    editFeel({ ...feel, answers: feel.answers.filter((a) => !isSame(a, given)) })
  }
  /** The selected run's feel, changed here and elsewhere: a person chooses. */
  const conflict = computed(() => {
    const letter = selectedRun.value && outbox.conflictOf(feelKey(selectedRun.value.id))
    const theirs = letter && Feel.safeParse(letter.problem?.current)
    return letter && theirs?.success
      ? { id: letter.id, mine: letter.body as Feel, theirs: theirs.data }
      : null
  })
  const settleConflict = (which: 'mine' | 'theirs') =>
    conflict.value ? outbox.settle(conflict.value.id, which) : Promise.resolve()

  function dial(adjusterId: string, value: number): void {
    const rest = Object.fromEntries(Object.entries(pending.value).filter(([key]) => key !== adjusterId))
    pending.value = positions.value.get(adjusterId) === value ? rest : { ...rest, [adjusterId]: value }
  }
  const clearPending = () => (pending.value = {})

  const setupKey = () => `setups:${bundle.value!.bike.id}`
  /** Turns of this page that met a bike that was changed elsewhere meanwhile. */
  const overtaken = computed(() => {
    const b = bundle.value
    const letter = b && outbox.conflictOf(`setups:${b.bike.id}`)
    const mine = letter ? (letter.body as Setup) : null
    const theirs = (letter?.problem?.current ?? null) as Setup | null
    const seen = mine && setupOf(mine.parentId)
    return letter && mine && theirs && seen
      ? { letter, mine, theirs, moves: diffSetups(seen, mine, b!.units) }
      : null
  })
  /** Lays the turns of this page on what is on the bike now, or gives them up. */
  async function settleOvertaken(which: 'mine' | 'theirs'): Promise<void> {
    const o = overtaken.value
    if (!o) return
    await cache.fetchQuery({ ...reads.day(bundle.value!.day.id), staleTime: 0 })
    const row = outbox.letters.filter((l) => l.key === o.letter.key)
    if (which === 'theirs') return outbox.drop(row.map((l) => l.id))
    let onto = o.theirs
    for (const l of row) {
      const mine = l.body as Setup
      const seen =
        setupOf(mine.parentId) ?? (row.find((x) => (x.body as Setup).id === mine.parentId)?.body as Setup)
      const next: Setup = { ...mine, parentId: onto.id, positions: rebased(seen ?? onto, mine, onto) }
      await outbox.again(l.id, next)
      onto = next
    }
  }

  /** Writes a new setup: what the hands did. */
  async function putSetup(
    newPositions: Position[],
    reason: Partial<Setup['reason']>,
    foundIn: Setup['foundIn'] = null,
  ): Promise<Done> {
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
      reason: {
        text: '',
        source: 'own-idea',
        linked: false,
        proposalId: null,
        undoes: null,
        fromSetupId: null,
        ...reason,
      },
      foundIn,
      wanted: false,
    }
    const letter = await outbox.write({
      kind: 'setup',
      key: setupKey(),
      params: { id: setup.id },
      body: setup,
      file: null,
    })
    clearPending()
    await answered(letter)
    return { before: now, after: setup, moves: diffSetups(now, setup, b.units) }
  }
  /** Waits for the server while it is in reach; what it refuses is told by the outbox. */
  async function answered(letter: Letter): Promise<void> {
    if (outbox.state.unreachableSince !== null) return
    await Promise.race([
      outbox.confirmed(letter.id).catch(() => undefined),
      new Promise((resolve) => {
        const stop = watch(
          () => outbox.state.unreachableSince,
          (since) => since !== null && (stop(), resolve(undefined)),
        )
      }),
    ])
  }
  const turnsTo = (to: ReadonlyMap<string, number>) =>
    withTurns(currentSetup.value!.positions, to, parts.value, hand())

  /** What the hands dialled: dials that were unread are read first, then the turns; the card they answer is kept with it. */
  async function applyPending(text: string, linked: boolean): Promise<Done> {
    const p = proposal.value
    const turns = dialled(false)
    const asProposed =
      p !== null &&
      p.moves.length > 0 &&
      turns.size === p.moves.length &&
      p.moves.every((m) => turns.get(m.adjusterId) === m.to)
    let done = await readPending()
    if (turns.size > 0) {
      const kept = p && actsOn(p) ? await decide(p, asProposed ? 'done' : 'something-else') : null
      const source = asProposed ? 'proposal' : 'own-idea'
      done = await putSetup(turnsTo(turns), { text, linked, source, proposalId: kept })
    }
    return done ?? { before: currentSetup.value!, after: currentSetup.value!, moves: [] }
  }
  async function readPending(): Promise<Done | null> {
    const readings = pendingReadings.value
    if (readings.length === 0) return null
    const turns = dialled(false)
    const known = readBy(hand(), 'read on the trail day')
    const read = readings.map(({ part, end, value }) => ({ end, adjusterId: part.id, value, known }))
    const done = await putSetup([...currentSetup.value!.positions, ...read], {
      text: 'Read, nothing turned',
      source: 'reading',
      linked: true,
    })
    pending.value = Object.fromEntries(turns)
    return done
  }
  /** Sag that was read on the trail, on the settings that are on the bike now; nothing is turned. */
  function readSag(end: End, sagPct: number): Promise<Done> {
    const by = hand()
    return putSetup(
      currentSetup.value!.positions,
      {
        text: `${end === 'front' ? 'Front' : 'Rear'} sag read on the trail`,
        source: 'reading',
        linked: true,
      },
      {
        airTempC: by.airTempC ?? null,
        altitudeM: by.altitudeM ?? null,
        place: by.place ?? '',
        sagFrontPct: end === 'front' ? sagPct : null,
        sagRearPct: end === 'rear' ? sagPct : null,
        postureFront: end === 'front' ? 'ready' : null,
        postureRear: end === 'rear' ? 'seated' : null,
      },
    )
  }
  /** A reading that was a slip says nothing from now on; nothing is turned. */
  const unreadSag = (reading: Setup) =>
    putSetup(currentSetup.value!.positions, {
      text: 'Sag reading taken back',
      linked: true,
      source: 'undo',
      undoes: reading.id,
    })
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

  /** Goes back to settings that were ridden. */
  const backTo = (setupId: string, text: string, proposalId: string | null = null) =>
    putSetup(turnsTo(new Map(setupOf(setupId)!.positions.map((p) => [p.adjusterId, p.value]))), {
      text,
      linked: true,
      source: 'revert',
      proposalId,
      fromSetupId: setupId,
    })
  /** Takes the last standing change of the day back: its turns only, whatever was read since. */
  async function undoLast(): Promise<Done | null> {
    const u = undo.value
    if (!u) return null
    const was = new Map(u.before.positions.map((p) => [p.adjusterId, p]))
    const turned = new Set(u.moves.map((m) => m.adjuster.id))
    const back = currentSetup.value!.positions.map((p) =>
      turned.has(p.adjusterId)
        ? { ...was.get(p.adjusterId)!, known: { ...was.get(p.adjusterId)!.known } }
        : p,
    )
    return putSetup(back, { text: 'Taken back', linked: true, source: 'undo', undoes: u.change.id })
  }

  /** Keeps what was proposed and what was done with it. */
  async function decide(p: Proposal, decision: ProposalRecord['decision']): Promise<string> {
    const b = bundle.value!
    const before = decided(p)
    if (before) {
      // The same card, decided again: "something else", then what it was.
      if (before.decision !== decision) await writeProposal({ ...before, decision })
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
    await writeProposal(record)
    return record.id
  }
  const writeProposal = (record: ProposalRecord) =>
    outbox.write({
      kind: 'proposal',
      key: `proposal:${record.id}`,
      params: { id: record.id },
      body: record,
      file: null,
    })
  async function doProposal(p: Proposal): Promise<Done> {
    const proposalId = await decide(p, 'done')
    if (p.setupId) return backTo(p.setupId, p.headline, proposalId)
    return putSetup(turnsTo(new Map(p.moves.map((m) => [m.adjusterId, m.to]))), {
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

  return {
    bundle,
    proposal,
    knowledge,
    judging,
    judgeFault,
    earlierFailed,
    air,
    selectedRunId,
    selectedRun,
    pending,
    pendingMoves,
    pendingReadings,
    positions,
    held,
    currentSetup,
    present,
    past,
    space,
    changes,
    undo,
    conflict,
    settleConflict,
    overtaken,
    settleOvertaken,
    load,
    runNumber,
    saveRun,
    removeRun,
    restoreRun,
    feelOf,
    editFeel,
    answer,
    unanswer,
    readSag,
    unreadSag,
    dial,
    clearPending,
    applyPending,
    backTo,
    undoLast,
    doProposal,
    decide,
    settle,
    editDay,
    covered,
    uncover: (runId: string) => void (uncovered.value = runId),
    unitAt: (end: End) => space.value[end],
  }
})
