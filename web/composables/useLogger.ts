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
  async function connect(i: number, world: StandInWorld): Promise<void> {
    disconnect()
    let found = await loggerCalls.identity(i)
    if (found.standIn) {
      standIn.value = await loggerCalls.standIn(i)
      const { recording } = await loggerCalls.state(i)
      // A stand-in is screwed onto this day's bike; one that rides already is left alone.
      if (!recording) found = await loggerCalls.mount(i, world)
    }
    index.value = i
    identity.value = found
    watch.value = freshWatch()
    stored.value = await loggerCalls.list(i)
    await refresh()
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
    live?.close()
    live = null
    index.value = identity.value = state.value = sample.value = standIn.value = null
    told.value = []
    done.value = []
  }
  async function refresh() {
    if (index.value === null) return
    state.value = await loggerCalls.state(index.value)
  }
  useIntervalFn(() => {
    silent.value = watch.value.lastSeenMs !== null && performance.now() - watch.value.lastSeenMs > silentMs
    void refresh().catch(() => (state.value = null))
  }, stateEveryMs)
  onScopeDispose(disconnect)

  const measure = (s: CalibrationStep): Promise<Hold> => loggerCalls.hold(index.value!, s.holdSeconds)
  /** What was measured is kept whether it can be used or not: the verdict says so. */
  function keepHold(s: CalibrationStep, hold: Hold) {
    kept.value = { ...kept.value, [identity.value!.serial]: { ...held.value, [s.key]: hold } }
  }
  /** What the ring of an end said after a hold. */
  function keepRing(s: CalibrationStep, end: End, mm: number | null) {
    const step = held.value[s.key]
    if (!step) return
    const ringMm = { ...step.ringMm, [end]: mm ?? undefined }
    const now = { ...held.value, [s.key]: { ...step, ringMm } }
    kept.value = { ...kept.value, [identity.value!.serial]: now }
  }
  const tick = (s: CalibrationStep) => (done.value = [...new Set([...done.value, s.key])])
  const handsFor = (s: CalibrationStep) =>
    standIn.value ? loggerCalls.hands(index.value!, s.hands) : Promise.resolve()
  function forgetHolds() {
    kept.value = { ...kept.value, [identity.value!.serial]: {} }
    done.value = []
  }
  async function showFaults(next: LoggerFaults): Promise<void> {
    const faults = await loggerCalls.faults(index.value!, next)
    standIn.value = { ...standIn.value!, faults }
    // The range is part of who it is.
    identity.value = await loggerCalls.identity(index.value!)
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
    measure,
    keepHold,
    keepRing,
    way,
    strokeMm,
    tick,
    isDone,
    handsFor,
    forgetHolds,
    showFaults,
    watchAnew,
  }
}
export type Logger = ReturnType<typeof useLogger>
