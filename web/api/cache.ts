import { QueryClient } from '@tanstack/vue-query'
import type { z } from 'zod'
import type { Bench } from '#contract/bench'
import { endpoints, type DayBundle, type Endpoint, type Garage } from '#contract/endpoints'
import type { LiveEvent } from '#contract/live'
import { readingsBehind } from './behind.ts'
import { ApiError, callTold } from './client.ts'
import { dayFromHere } from './dayFromHere.ts'
import { forgetHeld, keep, recall } from './held.ts'
import type { Letter } from './letters.ts'
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

// As it was seen last it is there without the server, too.
cache.getQueryCache().subscribe(({ type, query }) => {
  if (type === 'updated' && query.state.status === 'success') keep(query.queryKey.join(), query.state.data)
})

let heard = 0
/** By the key of a reading: the number of the last event that its answer holds. */
const holds = new Map<string, number>()

/** Takes the number of the last event told; events are told in their order. */
export function hear(told: number): void {
  heard = told
}
/** The stream is there, or there again: whatever does not hold all that was told is read again. */
export const readMissed = (client: QueryClient) =>
  void client.invalidateQueries({
    predicate: (q) => q.state.data !== undefined && holds.get(q.queryKey.join()) !== heard,
  })
const behind = readingsBehind((queryKey) => void cache.invalidateQueries({ queryKey, exact: true }))
/** Asks again for what did not reach the server, without waiting for it to be heard of. */
export const readBehind = behind.readAgain
/** After so many readings overtaken one by one the last is shown: somebody is turning faster than this line carries. */
const patience = 5
/** Shown so, it may lack what was told meanwhile: it is read again when things are quieter. */
const quietMs = 1000

/**
 * What an endpoint answers, and nothing that was told before it came: an answer overtaken by an event would be laid over
 * the change, or miss it where nothing was held yet.
 */
function whole<P extends z.ZodType, B extends z.ZodType, R extends z.ZodType>(
  queryKey: string[],
  endpoint: Endpoint<P, B, R>,
  params: z.input<P>,
  /** What stands in while the server is out of reach and nothing was kept. */
  madeHere: () => Promise<z.output<R> | null> = async () => null,
) {
  const key = queryKey.join()
  /** What is on this screen now, else what was written down of it; of another version of the page: not to be trusted. */
  const asSeenLast = async (): Promise<z.output<R> | null> => {
    const shown = cache.getQueryData<z.output<R>>(queryKey)
    if (shown !== undefined) return shown
    const read = endpoint.reply.safeParse((await recall(key))?.answer)
    return read.success ? read.data : null
  }
  const queryFn = async (): Promise<z.output<R>> => {
    for (let reading = 1; ; reading++) {
      const heardBefore = heard
      try {
        const { answer, told } = await callTold(endpoint, params)
        if (told < heard && reading < patience) continue
        if (told < heard) setTimeout(() => void cache.invalidateQueries({ queryKey, exact: true }), quietMs)
        holds.set(key, told)
        return answer
      } catch (e) {
        // Refused is not out of reach; and a day that is not there yet may be on its way there.
        const isAway = e instanceof ApiError && (e.problem === null || e.problem.code === 'record.not-found')
        if (!isAway) throw e
        const stands = (e.problem === null ? await asSeenLast() : null) ?? (await madeHere())
        // The server spoke while it was thought away: what it has is newer than what is held.
        if (heard !== heardBefore && reading < patience) continue
        // A screen that opened on nothing is told so, and fills when the server is back.
        if (e.problem === null) behind.add(queryKey)
        if (stands === null) throw e
        // It holds nothing that was told.
        holds.delete(key)
        return stands
      }
    }
  }
  return { queryKey, queryFn }
}

let letters: () => readonly Letter[] = () => []
/** Tells the reader what waits to be sent; before the first screen. */
export const holdLetters = (waiting: typeof letters): void => void (letters = waiting)

async function begunHere(id: string): Promise<DayBundle | null> {
  const held = cache.getQueryData<Garage>(['garage']) ?? (await recall('garage'))?.answer
  return dayFromHere(id, (held as Garage | undefined) ?? null, letters())
}

export const reads = {
  garage: () => whole(['garage'], endpoints.getGarage, {}),
  days: () => whole(['days'], endpoints.listDays, {}),
  day: (id: string) => whole(['day', id], endpoints.getDay, { id }, () => begunHere(id)),
  earlier: (id: string) => whole(['earlier', id], endpoints.getEarlierDays, { id }),
  benches: (bikeId: string) => whole(['benches', bikeId], endpoints.listBenches, { id: bikeId }),
  setups: (bikeId: string) => whole(['setups', bikeId], endpoints.getBikeSetups, { id: bikeId }),
  figures: (bikeId: string) => whole(['figures', bikeId], endpoints.getBikeFigures, { id: bikeId }),
  tents: () => whole(['tents'], endpoints.listTents, {}),
  tent: (id: string) => whole(['tent', id], endpoints.getTent, { id }),
  letterhead: () => whole(['letterhead'], endpoints.getLetterhead, {}),
  shelf: () => whole(['shelf'], endpoints.getShelf, {}),
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

/**
 * Lays a change over what is held. What was to be read again stays so: a change that is laid over an old answer makes no
 * new one of it.
 */
export function lay<T>(client: QueryClient, queryKey: string[], change: (held: T) => T): void {
  for (const q of client.getQueryCache().findAll({ queryKey })) {
    const isOld = q.state.isInvalidated
    client.setQueryData<T>(q.queryKey, (held) => held && change(held))
    if (isOld) q.invalidate()
  }
}

const newer = (held: { version: number } | undefined, told: { version: number }) =>
  !held || told.version >= held.version

const patchDay = (client: QueryClient, id: string, change: (b: DayBundle) => DayBundle) =>
  lay(client, ['day', id], change)

/** A day that others start from was changed; the day itself is none of them. */
const staleFor = (client: QueryClient, dayId: string) =>
  void client.invalidateQueries({
    queryKey: ['earlier'],
    predicate: (q) => (q.state.data as DayBundle[] | undefined)?.some((b) => b.day.id === dayId) ?? false,
  })

/** Lays what the server told over what is held; what it only named is fetched again by whoever shows it. */
export function applyLive(client: QueryClient, e: LiveEvent): void {
  if (e.type === 'feel' || e.type === 'run') staleFor(client, e.dayId)
  // What a bike stood at, was ridden on and is kept: small changes of many records, asked for again where it is looked at.
  if (e.type !== 'ingest' && e.type !== 'bench') {
    void client.invalidateQueries({ queryKey: ['setups'] })
    void client.invalidateQueries({ queryKey: ['figures'] })
  }
  switch (e.type) {
    case 'feel':
      return patchDay(client, e.dayId, (b) =>
        newer(
          b.feels.find((f) => f.runId === e.feel.runId),
          e.feel,
        )
          ? { ...b, feels: placed(b.feels, e.feel, (f) => f.runId === e.feel.runId) }
          : b,
      )
    case 'run':
      return patchDay(client, e.dayId, (b) =>
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
      lay<DayBundle>(client, ['day'], (b) => withSetup(b, e.setup))
      lay<Garage>(client, ['garage'], (g) => garageWithSetup(g, e.setup))
      return
    case 'day':
      return patchDay(client, e.day.id, (b) => (newer(b.day, e.day) ? { ...b, day: e.day } : b))
    case 'proposal':
      return patchDay(client, e.proposal.dayId, (b) => ({
        ...b,
        proposals: placed(b.proposals, e.proposal, (p) => p.id === e.proposal.id),
      }))
    case 'bench':
      return lay<Bench[]>(client, ['benches', e.bench.bikeId], (list) =>
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
    case 'forgotten':
      return void forgetHeld()
    case 'ingest':
      return
  }
}
