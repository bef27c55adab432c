import { QueryClient } from '@tanstack/vue-query'
import type { Bench } from '#contract/bench'
import { endpoints, type DayBundle, type Garage } from '#contract/endpoints'
import type { LiveEvent } from '#contract/live'
import { call } from './client.ts'
import { garageWithSetup, placed, withSetup } from './overlay.ts'

/** The one reader: every read of the page goes through here, is kept, and is made stale by what the server tells. */
export const cache = new QueryClient({
  defaultOptions: {
    queries: {
      staleTime: Infinity,
      gcTime: 30 * 60_000,
      retry: false,
      // The tent has a network of its own and no internet: the browser's idea of "online" says nothing.
      networkMode: 'always',
      refetchOnWindowFocus: false,
      refetchOnReconnect: false,
    },
  },
})

export const reads = {
  garage: () => ({ queryKey: ['garage'], queryFn: () => call(endpoints.getGarage, {}) }),
  days: () => ({ queryKey: ['days'], queryFn: () => call(endpoints.listDays, {}) }),
  day: (id: string) => ({ queryKey: ['day', id], queryFn: () => call(endpoints.getDay, { id }) }),
  earlier: (id: string) => ({
    queryKey: ['earlier', id],
    queryFn: () => call(endpoints.getEarlierDays, { id }),
  }),
  benches: (bikeId: string) => ({
    queryKey: ['benches', bikeId],
    queryFn: () => call(endpoints.listBenches, { id: bikeId }),
  }),
  shelf: () => ({ queryKey: ['shelf'], queryFn: () => call(endpoints.getShelf, {}) }),
}

interface Read<T> {
  queryKey: string[]
  queryFn: () => Promise<T>
}
/** Reads begun before their screen was there, by key; the screen's own first reading takes them over. */
const begun = new Set<string>()
/** Starts a reading that a screen on its way will ask for. */
export function begin<T>(read: Read<T>): void {
  begun.add(read.queryKey.join())
  void cache.prefetchQuery(read)
}
/** Reads from the server, whatever is held. @throws ApiError */
export const readAfresh = <T>(read: Read<T>): Promise<T> =>
  cache.fetchQuery({ ...read, staleTime: begun.delete(read.queryKey.join()) ? Infinity : 0 })

const newer = (held: { version: number } | undefined, told: { version: number }) =>
  !held || told.version >= held.version

const patchDay = (client: QueryClient, id: string, change: (b: DayBundle) => DayBundle) =>
  client.setQueryData<DayBundle>(['day', id], (b) => b && change(b))

/** A day that others start from was changed; the day itself is none of them. */
const staleFor = (client: QueryClient, dayId: string) =>
  void client.invalidateQueries({
    queryKey: ['earlier'],
    predicate: (q) => (q.state.data as DayBundle[] | undefined)?.some((b) => b.day.id === dayId) ?? false,
  })

/** Lays what the server told over what is held; what it only named is fetched again by whoever shows it. */
export function applyLive(client: QueryClient, e: LiveEvent): void {
  if (e.type === 'feel' || e.type === 'run') staleFor(client, e.dayId)
  switch (e.type) {
    case 'feel':
      return void patchDay(client, e.dayId, (b) =>
        newer(
          b.feels.find((f) => f.runId === e.feel.runId),
          e.feel,
        )
          ? { ...b, feels: placed(b.feels, e.feel, (f) => f.runId === e.feel.runId) }
          : b,
      )
    case 'run':
      return void patchDay(client, e.dayId, (b) =>
        newer(
          b.runs.find((r) => r.id === e.run.id),
          e.run,
        )
          ? {
              ...b,
              runs: placed(b.runs, e.run, (r) => r.id === e.run.id).sort((x, y) =>
                x.startedAt === y.startedAt
                  ? x.id.localeCompare(y.id)
                  : x.startedAt.localeCompare(y.startedAt),
              ),
            }
          : b,
      )
    case 'setup':
      client.setQueriesData<DayBundle>({ queryKey: ['day'] }, (b) => b && withSetup(b, e.setup))
      client.setQueryData<Garage>(['garage'], (g) => g && garageWithSetup(g, e.setup))
      return
    case 'day':
      return void patchDay(client, e.day.id, (b) => (newer(b.day, e.day) ? { ...b, day: e.day } : b))
    case 'proposal':
      return void patchDay(client, e.proposal.dayId, (b) => ({
        ...b,
        proposals: placed(b.proposals, e.proposal, (p) => p.id === e.proposal.id),
      }))
    case 'bench':
      return void client.setQueryData<Bench[]>(['benches', e.bench.bikeId], (list) =>
        list &&
        newer(
          list.find((x) => x.id === e.bench.id),
          e.bench,
        )
          ? placed(list, e.bench, (x) => x.id === e.bench.id)
          : list,
      )
    case 'stale': {
      if (e.what === 'day') void client.invalidateQueries({ queryKey: ['earlier'] })
      const queryKey = e.id === null ? [e.what] : [e.what, e.id]
      return void client.invalidateQueries({ queryKey })
    }
    case 'ingest':
      return
  }
}
