import { QueryClient } from '@tanstack/vue-query'
import { describe, expect, it } from 'vitest'
import type { Garage } from '#contract/endpoints'
import type { Letter, LetterKind } from './letters.ts'
import { layTaken } from './taken.ts'

const rider = { id: 'r1', version: 3, name: 'Ilka' }
const other = { id: 'r2', version: 1, name: 'Tarek' }
const wish = { id: 's1', version: 1, bikeId: 'b1', name: 'Carried' }
const client = () => {
  const c = new QueryClient({ defaultOptions: { queries: { staleTime: Infinity, retry: false } } })
  const empty = { bikes: [], units: [], trails: [], currentSetups: [], gauges: [], stock: [], services: [] }
  c.setQueryData(['garage'], {
    ...empty,
    ...{ baselines: [], kept: [], profiles: [], riders: [rider, other], wantedSetups: [wish] },
  })
  c.setQueryData(['day', 'd1'], { runs: [{ id: 'run1' }, { id: 'run2' }], recordings: [], tent: null })
  // The server told that it changed; the answer is on its way.
  void c.invalidateQueries()
  return c
}
const letter = (kind: LetterKind, id: string, body: unknown): Letter => ({
  ...{ id: 1, kind, key: `${kind}:${id}`, params: { id }, body, file: null },
  ...{ at: '2031-05-02T09:00:00Z', tries: 0, state: 'waiting', problem: null, attempted: [] },
})
const garageOf = (c: QueryClient) => c.getQueryData<Garage>(['garage'])!

describe('what the server took, until it is read again', () => {
  it('stands as it was saved', () => {
    const c = client()
    layTaken(c, letter('rider', 'r1', { ...rider, name: 'Ilka B' }), { ...rider, version: 4, name: 'Ilka B' })
    expect(garageOf(c).riders).toEqual([{ ...rider, version: 4, name: 'Ilka B' }, other])
  })
  it('does not take the place of a newer form', () => {
    const c = client()
    layTaken(c, letter('rider', 'r1', { ...rider, name: 'old' }), { ...rider, version: 2, name: 'old' })
    expect(garageOf(c).riders).toEqual([rider, other])
  })
  it('does not come back once it was removed: a setup, a rider, a run', () => {
    const c = client()
    layTaken(c, letter('remove', 's1', { what: 'setup' }), {})
    layTaken(c, letter('remove', 'r2', { what: 'rider' }), {})
    layTaken(c, letter('remove', 'run1', { what: 'run' }), {})
    expect(garageOf(c).wantedSetups).toEqual([])
    expect(garageOf(c).riders).toEqual([rider])
    expect(c.getQueryData(['day', 'd1'])).toMatchObject({ runs: [{ id: 'run2' }] })
  })
  it('is read again all the same', () => {
    const c = client()
    layTaken(c, letter('rider', 'r1', rider), { ...rider, version: 4 })
    expect(c.getQueryState(['garage'])!.isInvalidated).toBe(true)
  })
  it('of what is not held nothing is made up', () => {
    const c = new QueryClient()
    layTaken(c, letter('rider', 'r1', rider), rider)
    expect(c.getQueryData(['garage'])).toBeUndefined()
  })
})
