import { useQuery } from '@tanstack/vue-query'
import { computed, toValue, type MaybeRefOrGetter } from 'vue'
import type { DayBundle } from '#contract/endpoints'
import type { KeptPadReport } from '#contract/pad'
import type { Proposal } from '#contract/proposal'
import type { TentNote, TentRider } from '#contract/tent'
import type { Lane } from '#core/tent/lane'
import { byNeed } from '#core/tent/need'
import { offerFor, type Offer } from '#core/tent/offer'
import type { DayPlan } from '#contract/dayPlan'
import { openPlans, type OpenPlan } from '#core/plans/state'
import { plansOf } from '#core/tent/plansOf'
import type { Move } from '#core/setup/diff'
import { cache, reads } from '../api/cache.ts'
import { overlayTent } from '../api/overlayTent.ts'
import { asBefore, tentDayOf } from '../support/tentRow.ts'
import { useOutbox } from '../stores/outbox.ts'
import { useHeadlines } from './useHeadlines.ts'

/** A rider of a tent with the day, as far as it has been read. */
export interface TentRow {
  rider: TentRider
  /** null: on its way. */
  day: DayBundle | null
  lane: Lane
  changed: Move[]
  /** What is next; null while it is worked out. */
  proposal: Proposal | null
  /** Put off until after a run, and not done yet. */
  later: TentNote[]
  /** What is to be done if the next run comes so; one that came otherwise is none any more. */
  plans: OpenPlan<TentNote | DayPlan>[]
  /** What worked for another rider who said the same, on this bike. */
  offer: (Offer & { from: string | null }) | null
  /** What the rider said on the phone, and nobody has said yet of which run. */
  reports: KeptPadReport[]
}

const emptyLane: Lane = { runs: [], changes: [] }
const none: Move[] = []
const asks = (p: Proposal | null) => p?.kind === 'ask' || p?.kind === 'tell-the-feel' || p?.kind === 'read'

/** A tent, live, its riders by need; what waits in this browser is laid over. */
export function useTent(id: MaybeRefOrGetter<string>) {
  const outbox = useOutbox()
  const { data, isError, refetch } = useQuery(
    computed(() => ({ ...reads.tent(toValue(id)), shallow: true })),
    cache,
  )
  const bundle = computed(() =>
    data.value && data.value.tent.id === toValue(id) ? overlayTent(data.value, outbox.letters) : null,
  )
  const headlines = useHeadlines(computed(() => bundle.value?.riders.map((r) => r.id) ?? []))
  const rows = computed<TentRow[]>((before) => {
    const t = bundle.value
    if (!t) return []
    const old = new Map(before?.map((r) => [r.rider.id, r]))
    /** A name only where its rider agreed. */
    const nameOf = (id: string) =>
      t.riders.find((r) => r.id === id)?.named ? (headlines.value.get(id)?.day.rider.name ?? null) : null
    const worked = t.riders.flatMap((r) => {
      const day = headlines.value.get(r.id)?.day
      return day ? tentDayOf(day).worked : []
    })
    const list = t.riders.map((rider) => {
      const head = headlines.value.get(rider.id)
      const day = head?.day ?? null
      const proposal = head?.proposal ?? null
      const was = old.get(rider.id)
      const later = asBefore(
        was?.later,
        t.notes.filter((n) => n.dayId === rider.id && n.kind === 'later' && n.closedAt === null),
      )
      const reports = asBefore(
        was?.reports,
        t.reports.filter((r) => r.dayId === rider.id && r.takenFor === null && r.droppedAt === null),
      )
      const plans = day ? openPlans(plansOf(t.notes, day), day).filter((p) => p.state.is !== 'fell') : []
      const offer = day && offerFor(day, worked)
      return {
        rider,
        day,
        plans,
        offer: offer && { ...offer, from: nameOf(offer.fromDayId) },
        lane: day ? tentDayOf(day).lane : emptyLane,
        changed: day ? tentDayOf(day).changed : none,
        proposal,
        later,
        reports,
        // The order goes by these.
        number: rider.number,
        whereabouts: rider.whereabouts,
        sinceMs: Date.parse(rider.since),
        openQuestion: asks(proposal) || reports.length > 0 || plans.some((p) => p.state.is === 'holds'),
      }
    })
    return byNeed(list.map((r) => ({ ...r, row: r, later: r.later.length > 0 || r.plans.length > 0 }))).map(
      ({ row }) => row,
    )
  })
  return { bundle, rows, failed: isError, refetch }
}
