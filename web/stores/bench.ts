import { defineStore } from 'pinia'
import { v7 as uuid } from 'uuid'
import { computed, ref, shallowRef } from 'vue'
import type { Bench, BenchStep } from '#contract/bench'
import type { End } from '#contract/common'
import { endpoints } from '#contract/endpoints'
import { FoundIn, type Setup } from '#contract/setup'
import {
  benchPosition,
  keptReadings,
  stepStates,
  withPartAt,
  withStepDone,
  withStepSkipped,
} from '#core/bench/steps'
import { clampToRange } from '#core/adjusters/range'
import { InputError } from '#core/errors'
import { ridingMassKg } from '#core/spring/load'
import { ApiError, call } from '../api/client.ts'
import { forgetDraft, keepDraft, readDraft } from '../support/drafts.ts'
import { freshBench, likelyStart } from '../support/freshBench.ts'
import { useGarage } from './garage.ts'
import { useNotices } from './notices.ts'

const saveAfterMs = 500
const retryMs = 10_000

/** One bike on the bench: what was read, what is done, and what an earlier step has made stale. */
export const useBench = defineStore('bench', () => {
  const garage = useGarage()
  const bikeId = ref<string | null>(null)
  const bench = shallowRef<Bench | null>(null)
  const past = shallowRef<Bench[]>([])
  const saving = ref<'saved' | 'saving' | 'kept-here'>('saved')
  /** The same bench, changed here and elsewhere: a person chooses. */
  const conflict = shallowRef<{ mine: Bench; theirs: Bench } | null>(null)
  let timer: ReturnType<typeof setTimeout> | undefined

  const bike = computed(() => garage.bike(bikeId.value))
  const units = computed(() => (bike.value ? garage.unitsOf(bike.value) : []))
  const unit = (end: End) => units.value.find((u) => u.end === end)
  const rider = computed(() => garage.rider(bike.value?.riderId ?? null))
  const massKg = computed(() => {
    try {
      return rider.value ? ridingMassKg(rider.value) : null
    } catch (e) {
      if (e instanceof InputError) return null
      throw e
    }
  })
  const states = computed(() => (bench.value ? stepStates(bench.value, units.value, massKg.value) : []))
  /** Where an adjuster stands; one added or recounted since the bench began stands where it can. */
  function positionOf(adjusterId: string): number | null {
    const a = units.value.flatMap((u) => u.adjusters).find((x) => x.id === adjusterId)
    if (!bench.value || !a) return null
    return clampToRange(a, benchPosition(bench.value, adjusterId) ?? likelyStart(a))
  }
  const readingsOf = (end: End) => (bench.value ? keptReadings(bench.value, end) : [])
  const draftKey = (id: string) => `bench:${id}`

  async function open(id: string): Promise<void> {
    bikeId.value = id
    bench.value = null
    conflict.value = null
    const [list] = await Promise.all([call(endpoints.listBenches, { id }), garage.load()])
    past.value = list.filter((b) => b.finishedSetupId !== null)
    const held = list.find((b) => b.finishedSetupId === null) ?? null
    const draft = readDraft<Bench>(draftKey(id))
    bench.value = draft && (!held || (draft.id === held.id && draft.version === held.version)) ? draft : held
    if (bench.value && bench.value === draft) scheduleSave()
    else if (draft && held && draft.id === held.id) conflict.value = { mine: draft, theirs: held }
  }

  /** Begins a new time on the bench. */
  function begin(): void {
    if (!bike.value) return
    const b = bike.value
    change(() => freshBench(b, units.value, garage.currentSetup(b.id), past.value[0]))
  }

  function change(next: (b: Bench) => Bench): void {
    const held = bench.value
    // The first change makes it; later ones build on what is there.
    bench.value = next(held as Bench)
    keepDraft(draftKey(bench.value.bikeId), bench.value)
    scheduleSave()
  }
  const set = (part: Partial<Bench>) => change((b) => ({ ...b, ...part }))
  function setPosition(end: End, adjusterId: string, value: number): void {
    const part = unit(end)?.adjusters.find((a) => a.id === adjusterId)
    if (part) change((b) => withPartAt(b, end, part, value))
  }
  const done = (step: BenchStep) =>
    change((b) => withStepDone(b, step, units.value, massKg.value, new Date().toISOString()))
  const skip = (step: BenchStep, reason: string) =>
    change((b) => withStepSkipped(b, step, reason, new Date().toISOString()))

  function scheduleSave(after = saveAfterMs): void {
    clearTimeout(timer)
    saving.value = 'saving'
    timer = setTimeout(() => void save(), after)
  }
  async function save(): Promise<boolean> {
    clearTimeout(timer)
    const sent = bench.value
    if (!sent) return true
    saving.value = 'saving'
    try {
      const kept = await call(endpoints.putBench, { id: sent.id }, sent)
      if (bench.value === sent) {
        bench.value = { ...sent, version: kept.version }
        saving.value = 'saved'
        forgetDraft(draftKey(sent.bikeId))
      } else if (bench.value?.id === sent.id) {
        // Changed meanwhile: what comes next stands on what was just kept.
        bench.value = { ...bench.value, version: kept.version }
        scheduleSave()
      }
      return true
    } catch (e) {
      if (!(e instanceof ApiError)) throw e
      if (e.problem?.code === 'record.stale')
        conflict.value = { mine: sent, theirs: e.problem.current as Bench }
      else if (e.problem === null) {
        saving.value = 'kept-here'
        timer = setTimeout(() => void save(), retryMs)
      } else {
        saving.value = 'kept-here'
        useNotices().show(e.message, 'error')
      }
      return false
    }
  }
  function settleConflict(which: 'mine' | 'theirs'): void {
    const c = conflict.value
    if (!c) return
    conflict.value = null
    if (which === 'theirs') {
      forgetDraft(draftKey(c.theirs.bikeId))
      bench.value = c.theirs
      saving.value = 'saved'
    } else change((b) => ({ ...b, version: c.theirs.version }))
  }

  /** Mean sag of the readings at the present pressure, %; null before the first. */
  function sagNowPct(end: End): number | null {
    const u = unit(end)
    const all = readingsOf(end)
    // An end set up alone is the measure; both together only tells how they stand to each other.
    const alone = all.filter((r) => !r.together)
    const list = alone.length ? alone : all
    if (!u || list.length === 0) return null
    const last = list[list.length - 1]
    const alike = list.filter(
      (r) =>
        r.pressurePsi === last.pressurePsi &&
        r.springRateNPerMm === last.springRateNPerMm &&
        r.preloadTurns === last.preloadTurns &&
        r.posture === last.posture &&
        r.together === last.together,
    )
    return (100 * alike.reduce((s, r) => s + r.sagMm, 0)) / alike.length / u.strokeMm
  }

  /** Keeps the baseline as a named setup; it becomes what is on the bike. */
  async function finish(name: string): Promise<Setup> {
    const b = bench.value
    const onto = bike.value
    if (!b || !onto) throw new Error('There is no bike on the bench.')
    const setup: Setup = {
      id: uuid(),
      bikeId: onto.id,
      parentId: garage.currentSetup(onto.id)?.id ?? null,
      dayId: null,
      madeAt: new Date().toISOString(),
      name,
      frontUnitId: onto.frontUnitId,
      rearUnitId: onto.rearUnitId,
      positions: units.value.flatMap((u) =>
        u.adjusters.map((a) => ({ end: u.end, adjusterId: a.id, value: positionOf(a.id) ?? 0 })),
      ),
      reason: { text: 'Found on the bench', source: 'baseline', linked: true, proposalId: null },
      foundIn: FoundIn.parse({
        airTempC: b.airTempC,
        altitudeM: b.altitudeM,
        place: b.place,
        sagFrontPct: sagNowPct('front'),
        sagRearPct: sagNowPct('rear'),
      }),
    }
    const kept = await garage.saveSetup(setup)
    done('save')
    set({ finishedSetupId: kept.id })
    await save()
    return kept
  }

  return {
    bike,
    rider,
    units,
    unit,
    bench,
    past,
    massKg,
    states,
    saving,
    conflict,
    open,
    begin,
    set,
    change,
    setPosition,
    positionOf,
    readingsOf,
    sagNowPct,
    done,
    skip,
    save,
    settleConflict,
    finish,
  }
})
