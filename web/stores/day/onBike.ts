import { computed, ref, type Ref } from 'vue'
import type { DayBundle } from '#contract/endpoints'
import type { Setup } from '#contract/setup'
import { conditionsOf } from '#core/conditions/ofDay'
import { currentSetupId, spaceOf, spaceOfDay } from '#core/adviser/history'
import { diffSetups, type Move } from '#core/setup/diff'
import { withTurns, type Hand } from '#core/setup/known'
import { changesMade, undoable } from '#core/setup/undo'
import { useUnits } from '../../composables/useUnits.ts'
import { useWho } from '../../composables/useWho.ts'

export type OnBike = ReturnType<typeof useOnBike>

/** What stands on the bike on a day, and what is chosen on the screen but not yet said to be on it. */
export function useOnBike(bundle: Ref<DayBundle | null>) {
  const { units } = useUnits()
  const { who } = useWho()
  /** Positions that were chosen on screen but not yet said to be on the bike. */
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
    return now && { ...now, positions: withTurns(now.positions, chosen(false), parts.value, hand()) }
  })
  const pendingMoves = computed<Move[]>(() =>
    currentSetup.value && pendingSetup.value
      ? diffSetups(currentSetup.value, pendingSetup.value, bundle.value!.units)
      : [],
  )
  /** Dials nobody had read, and where they are said to stand. */
  const pendingReadings = computed(() =>
    [...chosen(true)].flatMap(([key, value]) => {
      const x = parts.value.get(key)
      return x ? [{ ...x, value }] : []
    }),
  )
  const changes = computed(() => (bundle.value ? changesMade(bundle.value.setups, bundle.value.day.id) : 0))
  /** The change an undo would take back, with what it would do; null when there is none, or on a past day. */
  const undo = computed(() => {
    const b = bundle.value
    const u = b && !past.value ? undoable(b.setups, b.day.id) : null
    return u && { ...u, moves: diffSetups(u.change, u.before, b!.units) }
  })
  /** Air and height as they were noted last on this day. */
  const air = computed(() => {
    const b = bundle.value
    if (!b) return { airTempC: null, altitudeM: null }
    const { airTempC, altitudeM } = conditionsOf(b)
    return { airTempC, altitudeM }
  })

  /** What is chosen: on dials that were unread, or on those that stand somewhere. */
  function chosen(unread: boolean): Map<string, number> {
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

  function choose(adjusterId: string, value: number): void {
    const rest = Object.fromEntries(Object.entries(pending.value).filter(([key]) => key !== adjusterId))
    pending.value = positions.value.get(adjusterId) === value ? rest : { ...rest, [adjusterId]: value }
  }
  const clearPending = () => (pending.value = {})
  return {
    pending,
    space,
    parts,
    setupOf,
    currentSetup,
    present,
    past,
    held,
    positions,
    pendingMoves,
    pendingReadings,
    changes,
    undo,
    air,
    chosen,
    hand,
    choose,
    clearPending,
  }
}
