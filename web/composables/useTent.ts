import { useQuery } from '@tanstack/vue-query'
import { computed, toValue, type MaybeRefOrGetter } from 'vue'
import type { DayBundle } from '#contract/endpoints'
import type { KeptPadReport } from '#contract/pad'
import type { Proposal } from '#contract/proposal'
import type { TentNote, TentRider } from '#contract/tent'
import { changedSinceStart, laneOf, type Lane } from '#core/tent/lane'
import { byNeed } from '#core/tent/need'
import type { Move } from '#core/setup/diff'
import { cache, reads } from '../api/cache.ts'
import { overlayTent } from '../api/overlayTent.ts'
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
  /** What the rider said on the phone, and nobody has said yet of which run. */
  reports: KeptPadReport[]
}

const asks = (p: Proposal | null) => p?.kind === 'ask' || p?.kind === 'tell-the-feel' || p?.kind === 'read'

/** A tent, live, its riders by need; what waits in this browser is laid over. */
export function useTent(id: MaybeRefOrGetter<string>) {
  const outbox = useOutbox()
  const { data, isError } = useQuery(
    computed(() => ({ ...reads.tent(toValue(id)), shallow: true })),
    cache,
  )
  const bundle = computed(() =>
    data.value && data.value.tent.id === toValue(id) ? overlayTent(data.value, outbox.letters) : null,
  )
  const headlines = useHeadlines(computed(() => bundle.value?.riders.map((r) => r.id) ?? []))
  const rows = computed<TentRow[]>(() => {
    const t = bundle.value
    if (!t) return []
    const list = t.riders.map((rider) => {
      const head = headlines.value.get(rider.id)
      const day = head?.day ?? null
      const proposal = head?.proposal ?? null
      const later = t.notes.filter((n) => n.dayId === rider.id && n.kind === 'later' && n.closedAt === null)
      const reports = t.reports.filter(
        (r) => r.dayId === rider.id && r.takenFor === null && r.droppedAt === null,
      )
      return {
        rider,
        day,
        lane: day ? laneOf(day) : { runs: [], changes: [] },
        changed: day ? changedSinceStart(day) : [],
        proposal,
        later,
        reports,
        // The order goes by these.
        number: rider.number,
        whereabouts: rider.whereabouts,
        sinceMs: Date.parse(rider.since),
        openQuestion: asks(proposal) || reports.length > 0,
      }
    })
    return byNeed(list.map((r) => ({ ...r, row: r, later: r.later.length > 0 }))).map(({ row }) => row)
  })
  return { bundle, rows, failed: isError }
}
