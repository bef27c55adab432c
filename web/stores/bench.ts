import { useQuery } from '@tanstack/vue-query'
import { defineStore } from 'pinia'
import { v7 as uuid } from 'uuid'
import { computed, ref } from 'vue'
import type { Adjuster } from '#contract/adjuster'
import type { Bench, BenchStep } from '#contract/bench'
import type { End } from '#contract/common'
import type { Known, Setup } from '#contract/setup'
import { clampToRange } from '#core/adjusters/range'
import { airOn, lastHandAt, sayingAir, type BenchAir } from '#core/bench/airOn'
import { evidenceOf, hasAnythingRead, type BenchRider } from '#core/bench/evidence'
import { sagNow } from '#core/bench/sagNow'
import { stepStates } from '#core/bench/states'
import { withPartAt, withStepClosed, withStepSkipped } from '#core/bench/steps'
import { InputError } from '#core/errors'
import { assumed, knownAfterTurn, readBy } from '#core/setup/known'
import { ridingMassKg } from '#core/spring/load'
import { cache, readAfresh, reads } from '../api/cache.ts'
import { overlayBenches } from '../api/overlay.ts'
import { useWho } from '../composables/useWho.ts'
import { freshBench } from '../support/freshBench.ts'
import { useGarage } from './garage.ts'
import { useOutbox } from './outbox.ts'

/** Typing pauses this long before the bench is sent; it waits safely from the first letter on. */
const typingMs = 500

/** One bike on the bench: what was read, what is done, and what an earlier step has made stale. */
export const useBench = defineStore('bench', () => {
  const garage = useGarage()
  const outbox = useOutbox()
  const { who } = useWho()
  const bikeId = ref<string | null>(null)
  const benchId = ref<string | null>(null)
  const { data } = useQuery(
    computed(() => ({ ...reads.benches(bikeId.value ?? ''), enabled: bikeId.value !== null, shallow: true })),
    cache,
  )
  const list = computed(() =>
    bikeId.value ? overlayBenches(data.value ?? [], bikeId.value, outbox.letters) : [],
  )
  /** A bench as it stands now, whichever is looked at. */
  const standing = (b: Bench): Bench =>
    overlayBenches(
      cache.getQueryData<Bench[]>(reads.benches(b.bikeId).queryKey) ?? [],
      b.bikeId,
      outbox.letters,
    ).find((x) => x.id === b.id) ?? b
  const bench = computed<Bench | null>(() => list.value.find((b) => b.id === benchId.value) ?? null)
  const past = computed(() => list.value.filter((b) => b.finishedSetupId !== null && b.id !== benchId.value))
  const key = computed(() => `bench:${benchId.value}`)
  /** The same bench, changed here and elsewhere: a person chooses. */
  const conflict = computed(() => {
    const letter = outbox.conflictOf(key.value)
    return letter
      ? { id: letter.id, mine: letter.body as Bench, theirs: letter.problem?.current as Bench }
      : null
  })

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
  const benchRider = computed<BenchRider>(() => ({
    ridingMassKg: massKg.value,
    kitKnown: typeof rider.value?.kitMassKg === 'number' && !rider.value.assumed.includes('kitMassKg'),
    shares: {
      seatedPct: bike.value?.frontShareSeatedPct ?? null,
      readyPct: bike.value?.frontShareReadyPct ?? null,
    },
  }))
  const states = computed(() => (bench.value ? stepStates(bench.value, units.value, benchRider.value) : []))
  const part = (adjusterId: string) =>
    units.value.flatMap((u) => u.adjusters).find((x) => x.id === adjusterId)
  const heldAt = (adjusterId: string) =>
    part(adjusterId) ? bench.value?.positions.find((p) => p.adjusterId === adjusterId) : undefined
  /** Where an adjuster stands, as near as the part can stand after a recount; null = unread. */
  function positionOf(adjusterId: string): number | null {
    const p = heldAt(adjusterId)
    const a = part(adjusterId)
    return p && a ? clampToRange(a, p.value) : null
  }
  const knownOf = (adjusterId: string): Known | null => heldAt(adjusterId)?.known ?? null
  const readingsOf = (end: End) => bench.value?.readings.filter((r) => r.end === end && !r.leftOut) ?? []

  async function open(id: string): Promise<void> {
    bikeId.value = id
    benchId.value = null
    await Promise.all([readAfresh(reads.benches(id)), garage.load()])
    // Another bike was gone on to meanwhile.
    if (bikeId.value !== id) return
    benchId.value = list.value.find((b) => b.finishedSetupId === null)?.id ?? null
  }

  /** Begins a new time on the bench. */
  function begin(): void {
    if (!bike.value) return
    const fresh = freshBench(bike.value, units.value, garage.currentSetup(bike.value.id), past.value[0])
    benchId.value = fresh.id
    write(fresh)
  }
  function write(next: Bench): void {
    void outbox.write({
      kind: 'bench',
      key: `bench:${next.id}`,
      params: { id: next.id },
      body: next,
      file: null,
      holdMs: typingMs,
    })
  }
  function change(next: (b: Bench) => Bench): void {
    if (bench.value) write(next(bench.value))
  }
  const set = (fields: Partial<Bench>) => change((b) => ({ ...b, ...fields }))
  /** Air of now, as somebody said it; typed on another day it is nobody's. */
  const sayAir = (air: Partial<BenchAir>) =>
    change((b) => ({ ...b, ...sayingAir(b, air, new Date().toISOString()) }))
  const airNow = (): BenchAir =>
    bench.value
      ? airOn(bench.value, new Date().toISOString())
      : { airTempC: null, altitudeM: null, place: '' }
  const hand = (end: End) => ({
    at: new Date().toISOString(),
    by: who.value,
    gaugeId: bench.value?.gaugeId[end] ?? null,
    ...airNow(),
  })
  const place = (end: End, a: Adjuster, value: number, known: Known) =>
    change((b) => withPartAt(b, end, a, value, known))
  /** Somebody turned or pumped it there; a dial that was unread is read with it. */
  function setPosition(end: End, adjusterId: string, value: number): void {
    const a = unit(end)?.adjusters.find((x) => x.id === adjusterId)
    const before = knownOf(adjusterId)
    if (!a) return
    const counted = before === null && (a.kind === 'click' || a.kind === 'turn')
    place(
      end,
      a,
      value,
      counted
        ? readBy(hand(end), 'counted on the bench')
        : knownAfterTurn(before ?? undefined, a, value, hand(end)),
    )
  }
  /** Counted or read: whatever was known before. */
  function read(end: End, adjusterId: string, value: number, source: string): void {
    const a = unit(end)?.adjusters.find((x) => x.id === adjusterId)
    if (a) place(end, a, value, readBy(hand(end), source))
  }
  /** A number to begin from that nobody has set yet. */
  function assume(end: End, adjusterId: string, value: number, source: string): void {
    const a = unit(end)?.adjusters.find((x) => x.id === adjusterId)
    if (a) place(end, a, value, assumed(source, new Date().toISOString()))
  }

  const evidence = (step: BenchStep) =>
    bench.value ? evidenceOf(step, bench.value, units.value, benchRider.value) : null
  /** Closes a step by its evidence. @returns whether there was any */
  function done(step: BenchStep): boolean {
    if (evidence(step)?.state !== 'enough') return false
    close(step, 'done', '')
    return true
  }
  /** Leaves a step that was looked at and is not right. */
  const leaveOut = (step: BenchStep, reason: string) => close(step, 'out', reason)
  const close = (step: BenchStep, state: 'done' | 'out', reason: string) =>
    change((b) => withStepClosed(b, step, state, reason, units.value, massKg.value, new Date().toISOString()))
  const skip = (step: BenchStep, reason: string) =>
    change((b) => withStepSkipped(b, step, reason, new Date().toISOString()))

  const settleConflict = (which: 'mine' | 'theirs') =>
    conflict.value ? outbox.settle(conflict.value.id, which) : Promise.resolve()

  /** Sag as the bench stands now, %; null when it is unread. */
  function sagNowPct(end: End): number | null {
    const u = unit(end)
    return bench.value && u ? sagNow(bench.value, u).pct : null
  }
  /** Whether there is anything to keep as a baseline. */
  const hasBaseline = computed(() => bench.value !== null && hasAnythingRead(bench.value))

  /**
   * Keeps what was set and read as a named setup; it becomes what is on the bike. What nobody read stays unread.
   * @throws Error when nothing was read on this bench; ApiError
   */
  async function finish(name: string): Promise<Setup> {
    const b = bench.value
    const onto = bike.value
    if (!b || !onto) throw new Error('There is no bike on the bench.')
    if (!hasAnythingRead(b)) throw new Error('Nothing was read or set on this bench.')
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
        u.adjusters.flatMap((a) => {
          const value = positionOf(a.id)
          const known = knownOf(a.id)
          return value === null || known === null ? [] : [{ end: u.end, adjusterId: a.id, value, known }]
        }),
      ),
      reason: {
        text: 'Found on the bench',
        source: 'baseline',
        linked: true,
        proposalId: null,
        undoes: null,
        fromSetupId: null,
      },
      foundIn: {
        ...airOn(b, lastHandAt(b) ?? new Date().toISOString()),
        sagFrontPct: sagNowPct('front'),
        sagRearPct: sagNowPct('rear'),
        postureFront: b.posture.front,
        postureRear: b.posture.rear,
      },
      wanted: false,
    }
    const [on, kg] = [units.value, massKg.value]
    const kept = await garage.saveSetup(setup)
    // On a slow line another bike may be on the bench by now: it is this one that is finished.
    const closed = withStepClosed(standing(b), 'save', 'done', '', on, kg, new Date().toISOString())
    write({ ...closed, finishedSetupId: kept.id })
    await outbox.flush()
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
    benchRider,
    states,
    saving: computed(() => outbox.saving),
    conflict,
    open,
    begin,
    set,
    sayAir,
    airNow,
    change,
    setPosition,
    assume,
    read,
    positionOf,
    knownOf,
    readingsOf,
    sagNowPct,
    hasBaseline,
    evidence,
    done,
    leaveOut,
    skip,
    settleConflict,
    finish,
  }
})
