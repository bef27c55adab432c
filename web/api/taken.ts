import type { QueryClient } from '@tanstack/vue-query'
import type { DayBundle, Garage } from '#contract/endpoints'
import type { TentBundle } from '#contract/tent'
import { lay } from './cache.ts'
import type { Letter } from './letters.ts'
import { garageLists, isOfGarage, overlayDay, overlayGarage } from './overlay.ts'
import { overlayTent } from './overlayTent.ts'

/**
 * What the server took, laid over what is held. On a slow line it takes a while to be read again: until then nothing falls
 * back to the state before. What is known in a newer form already stays.
 */
export function layTaken(client: QueryClient, letter: Letter, saved: unknown): void {
  const says = letter.kind === 'remove' || letter.kind === 'takenReport' ? letter : { ...letter, body: saved }
  const { id, version = 0 } = saved as { id?: string; version?: number }
  const isOlderThan = (held: readonly { id: string; version: number }[]) =>
    held.some((x) => x.id === id && x.version > version)
  if (letter.kind === 'remove' || isOfGarage(letter.kind))
    lay<Garage>(client, ['garage'], (g) =>
      Object.values(garageLists).some((list) => isOlderThan(g[list])) ? g : overlayGarage(g, [says]),
    )
  if (letter.kind === 'remove') lay<DayBundle>(client, ['day'], (b) => overlayDay(b, [says]))
  lay<TentBundle>(client, ['tent'], (t) =>
    isOlderThan([t.tent, ...t.riders, ...t.hours, ...t.notes]) ? t : overlayTent(t, [says]),
  )
}
