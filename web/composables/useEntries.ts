import { computed, type ComputedRef } from 'vue'
import type { RouteLocationRaw } from 'vue-router'
import type { DaySummary } from '#contract/endpoints'
import { useGarage } from '../stores/garage.ts'
import { dayWords } from '../support/dates.ts'
import { handbookPages, toPage } from '../handbook/index.ts'
import type { Entry } from '../support/lookup.ts'
import { keptForWords } from '../support/setupWords.ts'
import { saidLevel } from '../support/riderWords.ts'

export interface Found extends Entry {
  to: RouteLocationRaw
}

/** Open days that are found without a word typed. */
const openShown = 6

/** Everything the palette finds, with the way there. */
export function useEntries(days: ComputedRef<readonly DaySummary[]>): ComputedRef<Found[]> {
  const garage = useGarage()
  return computed(() => {
    const atHand = days.value.filter((d) => !d.settled).slice(0, openShown)
    return [
      command('New trail day', 'begin a day of test runs', { name: 'today', query: { new: 'day' } }),
      command('Set up a bike', 'the guided way, one question a screen', { name: 'setup' }),
      command('Today', 'open days and earlier ones', { name: 'today' }),
      command('Garage', 'riders, bikes, units, trails', { name: 'garage' }),
      command('Setups', 'what is known to work, bike by bike', { name: 'setups' }),
      command('Handbook', 'dials, words and what they come from', { name: 'handbook' }),
      ...atHand.map(dayEntry),
      ...garage.riders.map((r): Found => {
        const n = garage.bikes.filter((b) => b.riderId === r.id).length
        return {
          id: r.id,
          kind: 'Rider',
          title: r.name,
          detail: [saidLevel(r), `${n} ${n === 1 ? 'bike' : 'bikes'}`].filter((w) => w !== null).join(', '),
          to: { name: 'garage', query: { rider: r.id } },
        }
      }),
      ...garage.bikes.map((b): Found => ({
        id: b.id,
        kind: 'Bike',
        title: b.name,
        detail: `${garage.rider(b.riderId)?.name ?? ''} · ${garage
          .unitsOf(b)
          .map((u) => u.name)
          .join(', ')}`,
        to: { name: 'garage', query: { bike: b.id } },
      })),
      ...garage.kept.map((k): Found => {
        const b = garage.bike(k.bikeId)
        return {
          id: `kept ${k.id}`,
          kind: 'Setup',
          title: k.name,
          detail: `${garage.rider(b?.riderId ?? null)?.name ?? ''} · ${b?.name ?? ''}`,
          also: [...k.purposes.map((p) => keptForWords[p]), k.found.place].join(' '),
          to: { name: 'setups', params: { bikeId: k.bikeId }, query: { at: k.id } },
        }
      }),
      ...garage.trails.map((t): Found => ({
        id: t.id,
        kind: 'Trail',
        title: t.name,
        detail: t.place,
        also: t.sections.map((s) => s.name).join(' '),
        to: { name: 'garage', query: { trail: t.id } },
      })),
      ...days.value.filter((d) => !atHand.includes(d)).map(dayEntry),
      command('What is kept', 'safe copies or backups, putting one back, forgetting a rider', {
        name: 'data',
      }),
      command('Practice', 'an invented rider with something hidden, drills, first lesson', {
        name: 'practice',
      }),
      command('Practice on the bench', 'ring, count, stopwatch: sag, clicks, rebound by hand', {
        name: 'practice',
        params: { drill: 'bench', seed: 1 },
      }),
      command('Who comes in', 'devices, passphrase, ways in for others', { name: 'access' }),
      ...handbookPages.map((p): Found => ({
        id: `handbook ${p.chapter}/${p.key}`,
        kind: 'Handbook',
        title: p.title,
        detail: p.text,
        also: p.also,
        to: toPage(p.chapter, p.key),
      })),
    ]
  })
}

const command = (title: string, detail: string, to: RouteLocationRaw): Found => ({
  id: `command ${title}`,
  kind: 'Command',
  title,
  detail,
  to,
})

const dayEntry = (d: DaySummary): Found => ({
  id: d.id,
  kind: 'Day',
  title: `${d.trailName}, ${dayWords(d.date)}`,
  detail: `${d.riderName} on ${d.bikeName}, ${d.settled ? 'settled' : 'open'}`,
  also: d.date,
  to: { name: 'day', params: { id: d.id } },
})
