import type { Bench } from '#contract/bench'
import type { TrailDay } from '#contract/day'
import type { DayBundle, Garage } from '#contract/endpoints'
import type { ProposalRecord } from '#contract/proposal'
import type { Feel, Run } from '#contract/run'
import type { Setup } from '#contract/setup'
import type { TentHour } from '#contract/tent'
import { standing } from '#core/setup/standing'
import type { Letter, LetterKind } from './letters.ts'

/** The list with an item in the place of the one it is a newer form of, or at the end. */
export function placed<T>(list: readonly T[], item: T, same: (x: T) => boolean): T[] {
  return list.some(same) ? list.map((x) => (same(x) ? item : x)) : [...list, item]
}

/** Letters that show: what is on its way or in conflict, not what was refused. */
const shown = (letters: readonly Letter[]) => letters.filter((l) => l.state !== 'refused')

/** A day with a setup of its bike saved: it is on the bike from now on. */
export function withSetup(b: DayBundle, setup: Setup): DayBundle {
  if (setup.bikeId !== b.bike.id || setup.wanted) return b
  return {
    ...b,
    setups: placed(b.setups, setup, (s) => s.id === setup.id),
    bike: { ...b.bike, currentSetupId: setup.id },
  }
}

/** A day as the server knows it, with what waits in this browser laid over it. */
export function overlayDay(base: DayBundle, letters: readonly Letter[]): DayBundle {
  return shown(letters).reduce<DayBundle>((b, l) => {
    switch (l.kind) {
      case 'run': {
        const run = l.body as Run
        return run.dayId === b.day.id ? { ...b, runs: placed(b.runs, run, (r) => r.id === run.id) } : b
      }
      case 'feel': {
        const feel = l.body as Feel
        return b.runs.some((r) => r.id === feel.runId)
          ? { ...b, feels: placed(b.feels, feel, (f) => f.runId === feel.runId) }
          : b
      }
      case 'setup':
        return withSetup(b, l.body as Setup)
      case 'day': {
        // A letter that an older page wrote has no log and no plans.
        const day: TrailDay = { ...{ hours: [], plans: [] }, ...(l.body as TrailDay) }
        return day.id === b.day.id ? { ...b, day } : b
      }
      case 'tentHour': {
        const hour = l.body as TentHour
        if (b.tent?.id !== hour.tentId) return b
        const hours = placed(b.tent.hours, hour, (h) => h.id === hour.id)
        return { ...b, tent: { ...b.tent, hours } }
      }
      case 'proposal': {
        const p = l.body as ProposalRecord
        return p.dayId === b.day.id ? { ...b, proposals: placed(b.proposals, p, (q) => q.id === p.id) } : b
      }
      case 'remove': {
        const { id } = l.params
        return {
          ...b,
          runs: b.runs.filter((r) => r.id !== id),
          recordings: b.recordings.filter((r) => r.id !== id),
          tent: b.tent && { ...b.tent, hours: b.tent.hours.filter((h) => h.id !== id) },
        }
      }
      default:
        return b
    }
  }, base)
}

/** Where the records of a kind stand in the garage. */
export const garageLists = {
  rider: 'riders',
  unit: 'units',
  bike: 'bikes',
  trail: 'trails',
  gauge: 'gauges',
  stock: 'stock',
  service: 'services',
  baseline: 'baselines',
  kept: 'kept',
  profile: 'profiles',
} as const
export const isOfGarage = (kind: LetterKind): kind is keyof typeof garageLists => kind in garageLists

/** The garage with a setup saved: on its bike, or among the wishes. */
export function garageWithSetup(g: Garage, setup: Setup): Garage {
  if (setup.wanted) return { ...g, wantedSetups: placed(g.wantedSetups, setup, (s) => s.id === setup.id) }
  return {
    ...g,
    bikes: g.bikes.map((b) => (b.id === setup.bikeId ? { ...b, currentSetupId: setup.id } : b)),
    currentSetups: placed(g.currentSetups, setup, (s) => s.bikeId === setup.bikeId),
    wantedSetups: g.wantedSetups.filter((s) => s.id !== setup.reason.fromSetupId),
  }
}

const without = (g: Garage, id: string): Garage => ({
  ...g,
  riders: g.riders.filter((x) => x.id !== id),
  bikes: g.bikes.filter((x) => x.id !== id),
  units: g.units.filter((x) => x.id !== id),
  trails: g.trails.filter((x) => x.id !== id),
  gauges: g.gauges.filter((x) => x.id !== id),
  stock: g.stock.filter((x) => x.id !== id),
  services: g.services.filter((x) => x.id !== id),
  baselines: g.baselines.filter((x) => x.id !== id),
  profiles: g.profiles.filter((x) => x.id !== id),
  wantedSetups: g.wantedSetups.filter((x) => x.id !== id),
})

/** The garage as the server knows it, with what waits in this browser laid over it. */
export function overlayGarage(base: Garage, letters: readonly Letter[]): Garage {
  const all = withLetters(base, letters)
  // Another range of a dial may be among what waits.
  return all.units === base.units
    ? all
    : { ...all, currentSetups: all.currentSetups.map((s) => standing(s, all.units)) }
}

function withLetters(base: Garage, letters: readonly Letter[]): Garage {
  return shown(letters).reduce<Garage>((g, l) => {
    if (l.kind === 'setup') return garageWithSetup(g, l.body as Setup)
    if (l.kind === 'remove') {
      const { id } = l.params
      // What a setup is kept as goes by the setup's own id, and is all that goes.
      return (l.body as { what: string }).what === 'kept'
        ? { ...g, kept: g.kept.filter((k) => k.id !== id) }
        : without(g, id)
    }
    if (!isOfGarage(l.kind)) return g
    const list = garageLists[l.kind]
    const record = l.body as { id: string }
    // The pointer to what is on a bike is the server's; a form that was open meanwhile does not turn it back.
    const held = g.bikes.find((b) => b.id === record.id)
    const body = l.kind === 'bike' && held ? { ...record, currentSetupId: held.currentSetupId } : record
    return { ...g, [list]: placed(g[list] as { id: string }[], body, (x) => x.id === record.id) }
  }, base)
}

/** The benches of a bike with what waits laid over them, newest first. */
export function overlayBenches(base: readonly Bench[], bikeId: string, letters: readonly Letter[]): Bench[] {
  return shown(letters)
    .filter((l) => l.kind === 'bench' && (l.body as Bench).bikeId === bikeId)
    .reduce<Bench[]>(
      (list, l) => placed(list, l.body as Bench, (b) => b.id === (l.body as Bench).id),
      [...base],
    )
    .sort((a, b) => b.startedAt.localeCompare(a.startedAt))
}
