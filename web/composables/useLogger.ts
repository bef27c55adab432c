import { useIntervalFn } from '@vueuse/core'
import { useKept } from './useKept.ts'
import { computed, onScopeDispose, ref, shallowRef } from 'vue'
import type { End } from '#contract/common'
import { endpoints } from '#contract/endpoints'
import {
  LiveSample,
  type Hold,
  type LoggerAtHand,
  type LoggerFaults,
  type LoggerIdentity,
  type LoggerState,
  type StandInWorld,
  type StoredRecording,
} from '#contract/logger'
import { judgeHold, stepsFor, type CalibrationWay } from '#core/devices/calibration'
import type { CalibrationStep, HeldSteps, HoldVerdict } from '#core/devices/calibrationStep'
import type { FaultName } from '#core/devices/faults'
import { freshWatch, watchFaults, watchSample } from '#core/devices/liveWatch'
import { call } from '../api/client.ts'
import { loggerAddress, loggerCalls } from '../api/logger.ts'
import { oneAtATime } from '../support/oneAtATime.ts'

const stateEveryMs = 1000
/** Depth is read off the live stream this long after the last sample; then it is called silent. */
const silentMs = 1500

type Strokes = Partial<Record<End, number>>

/** One logger: found, connected, watched, calibrated, recording. Its holds survive a reload, by its serial. */
export function useLogger(strokeMm: () => Strokes) {
  const atHand = shallowRef<LoggerAtHand[] | null>(null)
  const index = ref<number | null>(null)
  const identity = shallowRef<LoggerIdentity | null>(null)
  const state = shallowRef<LoggerState | null>(null)
  const sample = shallowRef<LiveSample | null>(null)
  const silent = ref(false)
  const watch = shallowRef(freshWatch())
  const stored = shallowRef<StoredRecording[]>([])
  const standIn = shallowRef<{ faults: LoggerFaults; pace: number } | null>(null)
  const told = shallowRef<FaultName[]>([])
  const kept = useKept<Record<string, HeldSteps>>('wild-spring:holds', {})
  let live: EventSource | null = null
  /** Grows with each connection: an answer to an earlier one tells nothing of this one. */
  let session = 0

  const held = computed<HeldSteps>(() => (identity.value ? (kept.value[identity.value.serial] ?? {}) : {}))
  /** How chambers are calibrated here; remembered. */
  const chosen = useKept<{ way: CalibrationWay }>('wild-spring:calibration-way', { way: 'emptied' })
  const way = computed<CalibrationWay>({
    get: () => chosen.value.way,
    set: (w) => (chosen.value = { way: w }),
  })
  const steps = computed(() => (identity.value ? stepsFor(identity.value.kind, way.value) : []))
  const done = ref<CalibrationStep['key'][]>([])
  const verdicts = computed(() => {
    const result: Partial<Record<CalibrationStep['key'], HoldVerdict>> = {}
    if (identity.value)
      for (const s of steps.value)
        if (held.value[s.key]) result[s.key] = judgeHold(s.key, identity.value, held.value, strokeMm())
    return result
  })
  const isDone = (s: CalibrationStep) =>
    s.holdSeconds > 0 ? (verdicts.value[s.key]?.ok ?? false) : done.value.includes(s.key)
  const calibrated = computed(
    () => steps.value.length > 0 && steps.value.every((s) => s.holdSeconds === 0 || isDone(s)),
  )
  const faults = computed<FaultName[]>(() => {
    const fromHolds = Object.values(verdicts.value).flatMap((v) => v?.fault ?? [])
    return [...new Set([...watchFaults(watch.value, state.value), ...fromHolds, ...told.value])]
  })

  async function search(): Promise<void> {
    atHand.value = await call(endpoints.listLoggers, {})
  }
  const connect = oneAtATime(async (i: number, world: StandInWorld): Promise<void> => {
    disconnect()
    const mine = session
    let found = await loggerCalls.identity(i)
    let played: typeof standIn.value = null
    if (found.standIn) {
      played = await loggerCalls.standIn(i)
      const { recording } = await loggerCalls.state(i)
      // A stand-in is screwed onto this day's bike; one that rides already is left alone.
      if (!recording) found = await loggerCalls.mount(i, world)
    }
    const list = await loggerCalls.list(i)
    if (mine !== session) return
    index.value = i
    identity.value = found
    standIn.value = played
    stored.value = list
    watch.value = freshWatch()
    listen(i)
    await refresh()
  })
  function listen(i: number) {
    live = new EventSource(loggerAddress(i, 'v1/live'))
    live.addEventListener('sample', (e) => {
      const parsed = LiveSample.safeParse(JSON.parse(e.data))
      if (!parsed.success || !identity.value) return
      sample.value = parsed.data
      const pace = standIn.value?.pace ?? 1
      watch.value = watchSample(watch.value, parsed.data, performance.now(), identity.value.channels, pace)
    })
  }
  function disconnect() {
    session++
    live?.close()
    live = null
    index.value = identity.value = state.value = sample.value = standIn.value = null
    told.value = []
    done.value = []
  }
  async function refresh() {
    if (index.value === null) return
    const mine = session
    const now = await loggerCalls.state(index.value).catch((e: unknown) => {
      if (mine === session) state.value = null
      throw e
    })
    if (mine === session) state.value = now
  }
  useIntervalFn(() => {
    silent.value = watch.value.lastSeenMs !== null && performance.now() - watch.value.lastSeenMs > silentMs
    void refresh().catch(() => undefined)
  }, stateEveryMs)
  onScopeDispose(disconnect)

  /** Measures while it is kept still. What was measured is kept whether it can be used or not: the verdict says so. */
  async function hold(s: CalibrationStep): Promise<void> {
    const mine = session
    await handsFor(s)
    // A device may answer before the hold is over; the person keeps still for the whole of it either way.
    const [measured] = await Promise.allSettled([
      loggerCalls.hold(index.value!, s.holdSeconds),
      new Promise((r) => setTimeout(r, s.holdSeconds * 1000)),
    ])
    if (mine !== session) return
    if (measured.status === 'rejected') throw measured.reason
    keepHold(s, measured.value)
  }
  function keepHold(s: CalibrationStep, measured: Hold) {
    kept.value = { ...kept.value, [identity.value!.serial]: { ...held.value, [s.key]: measured } }
  }
  /** What the ring of an end said after a hold. */
  function keepRing(s: CalibrationStep, end: End, mm: number | null) {
    const step = held.value[s.key]
    if (!step) return
    const ringMm = { ...step.ringMm, [end]: mm ?? undefined }
    const now = { ...held.value, [s.key]: { ...step, ringMm } }
    kept.value = { ...kept.value, [identity.value!.serial]: now }
  }
  const tick = async (s: CalibrationStep) => {
    const mine = session
    await handsFor(s)
    if (mine === session) done.value = [...new Set([...done.value, s.key])]
  }
  const handsFor = (s: CalibrationStep) =>
    standIn.value ? loggerCalls.hands(index.value!, s.hands) : Promise.resolve()
  function forgetHolds() {
    kept.value = { ...kept.value, [identity.value!.serial]: {} }
    done.value = []
  }
  /** Faults are told one after the other: each answer names them all, and an early one knows none of the later. */
  let telling: Promise<unknown> = Promise.resolve()
  async function showFault(key: keyof LoggerFaults, shown: boolean): Promise<void> {
    const [i, mine] = [index.value!, session]
    const { faults: now, pace } = standIn.value!
    const faults = { ...now, [key]: shown }
    standIn.value = { faults, pace }
    const tell = async () => {
      await loggerCalls.faults(i, faults)
      // The range is part of who it is.
      const known = await loggerCalls.identity(i)
      if (mine === session) identity.value = known
    }
    const told = telling.then(tell)
    telling = told.catch(() => undefined)
    try {
      await told
    } catch (e) {
      const device = await loggerCalls.standIn(i).catch(() => null)
      if (device && mine === session) standIn.value = device
      throw e
    }
  }
  async function lookAtStored(): Promise<void> {
    stored.value = await loggerCalls.list(index.value!)
  }
  /** Faults that an import found in the file. */
  const tell = (faults: FaultName[]) => (told.value = faults)
  /** After a fault was put right: watch anew. */
  function watchAnew() {
    watch.value = freshWatch()
    told.value = []
  }
  return {
    atHand,
    index,
    identity,
    state,
    sample,
    silent,
    stored,
    standIn,
    steps,
    held,
    verdicts,
    calibrated,
    faults,
    tell,
    lookAtStored,
    search,
    connect,
    disconnect,
    refresh,
    hold,
    keepRing,
    way,
    strokeMm,
    tick,
    isDone,
    forgetHolds,
    showFault,
    watchAnew,
  }
}
export type Logger = ReturnType<typeof useLogger>
