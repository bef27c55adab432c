import type { DayBundle } from '#contract/endpoints'
import type { Known, Setup } from '#contract/setup'
import type { Feel, Mark, Run } from '#contract/run'
import type { SuspensionUnit } from '#contract/unit'
import { emptyFeel, nothingNoted } from '../setup/nothingNoted.ts'
import { setBy } from '../setup/known.ts'
import { fork, shock, startPositions } from './dayBuilder.ts'

/** One thing that happened, with its clock on 2 May 2031, UTC. */
export type Happened =
  | { at: string; turn: Record<string, number>; source?: Setup['reason']['source']; known?: Known }
  | {
      at: string
      run: string
      rating?: number
      says?: Pick<Mark, 'word' | 'end'>[]
      against?: [string, number]
      kind?: Run['kind']
    }

/** A day as its records, told by the clock. */
export function bundleOf(
  happened: readonly Happened[],
  {
    id = 'day',
    units = [fork, shock],
    start = startPositions,
    known,
  }: { id?: string; units?: SuspensionUnit[]; start?: Record<string, number>; known?: Known } = {},
): DayBundle {
  const instant = (clock: string) => `2031-05-02T${clock}:00.000Z`
  const endOf = (adjusterId: string) => units.find((u) => u.adjusters.some((a) => a.id === adjusterId))!.end
  const mine = new Set(units.flatMap((u) => u.adjusters.map((a) => a.id)))
  const setup = (
    key: string,
    at: string,
    positions: Setup['positions'],
    source: Setup['reason']['source'],
  ): Setup => ({
    id: `${id} ${key}`,
    bikeId: 'bike',
    parentId: null,
    dayId: id,
    madeAt: at,
    name: null,
    frontUnitId: 'fork',
    rearUnitId: 'shock',
    positions,
    reason: { text: '', source, linked: true, proposalId: null, undoes: null, fromSetupId: null },
    foundIn: null,
    wanted: false,
  })
  const at0 = instant('07:00')
  const setups = [
    setup(
      'start',
      at0,
      Object.entries(start)
        .filter(([a]) => mine.has(a))
        .map(([adjusterId, value]) => ({
          end: endOf(adjusterId),
          adjusterId,
          value,
          known: known ?? setBy({ at: at0 }),
        })),
      'baseline',
    ),
  ]
  const runs: Run[] = []
  const feels: Feel[] = []
  for (const h of happened) {
    const now = setups[setups.length - 1]
    if ('turn' in h) {
      const to = new Map(Object.entries(h.turn))
      const next = setup(
        `at ${h.at}`,
        instant(h.at),
        [
          ...now.positions.filter((p) => !to.has(p.adjusterId)),
          ...[...to].map(([adjusterId, value]) => ({
            end: endOf(adjusterId),
            adjusterId,
            value,
            known: h.known ?? setBy({ at: instant(h.at) }),
          })),
        ],
        h.source ?? 'own-idea',
      )
      setups.push({ ...next, parentId: now.id })
      continue
    }
    runs.push({
      id: h.run,
      version: 1,
      dayId: id,
      setupId: now.id,
      startedAt: instant(h.at),
      kind: h.kind ?? 'counted',
      ...nothingNoted,
    })
    if (h.rating === undefined && !h.says && !h.against) continue
    feels.push({
      ...emptyFeel(h.run),
      rating: h.rating ?? null,
      marks: (h.says ?? []).map((m, i) => ({ ...m, id: `${h.run} ${i}`, sectionId: null, strength: 2 })),
      verdicts: h.against ? [{ againstRunId: h.against[0], value: h.against[1] as -2 }] : [],
    })
  }
  const conditions = { airTempC: 15, altitudeM: 300, surface: 'dry-hard' as const }
  return {
    day: {
      id,
      version: 1,
      date: '2031-05-02',
      riderId: 'rider',
      bikeId: 'bike',
      trailId: 'trail',
      startSetupId: setups[0].id,
      conditions,
      hours: [],
      plans: [],
      changeLimit: 8,
      settledSetupId: null,
      purpose: 'testing',
      blind: false,
      judgedAlone: false,
      note: '',
    },
    rider: { name: 'Someone' } as DayBundle['rider'],
    bike: { id: 'bike', name: 'the bike' } as DayBundle['bike'],
    units,
    ownCharts: [],
    trail: { id: 'trail', name: 'Old quarry', sections: [] } as unknown as DayBundle['trail'],
    setups,
    runs,
    feels,
    recordings: [],
    proposals: [],
    latest: true,
    tent: null,
  }
}
