import { v7 as uuid } from 'uuid'
import type { Adjuster } from '#contract/adjuster'
import type { End } from '#contract/common'
import type { SuspensionUnit } from '#contract/unit'

type Kind = Adjuster['kind']
type Draft = Adjuster

/** A new adjuster of a kind, with common values to correct. */
export function newAdjuster<K extends Kind>(kind: K, end: End): Extract<Draft, { kind: K }> {
  return fresh(kind, end) as Extract<Draft, { kind: K }>
}

function fresh(kind: Kind, end: End): Draft {
  const base = { id: uuid(), alias: null, tool: 'hand' as const }
  switch (kind) {
    case 'click':
      return { ...base, kind, role: 'rebound', clicks: 12, step: 1, countBase: 'closed-0' }
    case 'turn':
      return { ...base, kind, role: 'rebound', turns: 4, stepTurns: 0.25, countBase: 'closed-0' }
    case 'pressure':
      return {
        ...base,
        kind,
        role: 'main-pressure',
        tool: 'shock-pump',
        minPsi: end === 'front' ? 40 : 80,
        maxPsi: end === 'front' ? 150 : 300,
        stepPsi: 1,
      }
    case 'spacer':
      return { ...base, kind, role: 'spacers', tool: 'workshop', maxCount: 3 }
    case 'spring-rate':
      return { ...base, kind, role: 'spring-rate', tool: 'workshop', ratesNPerMm: [70, 75, 80] }
    case 'lever':
      return { ...base, kind, role: 'lever', positions: ['Open', 'Middle', 'Firm'] }
    case 'custom':
      return {
        ...base,
        kind,
        role: 'custom',
        name: 'Own adjuster',
        unitLabel: '',
        min: 0,
        max: 10,
        step: 1,
        acts: { stroke: 'whole', on: 'compression', speed: 'both' },
      }
  }
}

/** A unit like another, with ids of its own: to be named and counted anew. */
export function copyOfUnit(u: SuspensionUnit): SuspensionUnit {
  const plain = JSON.parse(JSON.stringify(u)) as SuspensionUnit
  const ids = new Map(plain.adjusters.map((a) => [a.id, uuid()]))
  return {
    ...plain,
    id: uuid(),
    version: 0,
    name: `${u.name}, copy`.slice(0, 80),
    idNote: '',
    ownerId: null,
    loan: null,
    adjusters: plain.adjusters.map((a) => ({ ...a, id: ids.get(a.id)! })),
    charts: plain.charts.map((c) => ({ ...c, id: uuid(), adjusterId: ids.get(c.adjusterId)! })),
  }
}

/** A lever of the bike's geometry, kept with the end whose change it is. */
export const geometryLever = (name: string, min: number, max: number, step: number): Adjuster => ({
  id: uuid(),
  alias: null,
  tool: 'hex-4',
  kind: 'custom',
  role: 'custom',
  name,
  unitLabel: 'mm',
  min,
  max,
  step,
  acts: { stroke: 'whole', on: 'geometry', speed: 'both' },
})

export interface UnitTemplate {
  key: string
  label: string
  make: () => SuspensionUnit
}

/** A unit with these parts and nothing else known of it. */
export function newUnit(
  end: End,
  name: string,
  spring: 'air' | 'coil',
  strokeMm: number,
  adjusters: Adjuster[],
): SuspensionUnit {
  return {
    id: uuid(),
    version: 0,
    name,
    end,
    spring,
    strokeMm,
    sagTargetPct: end === 'front' ? 20 : 30,
    revalved: false,
    revalvedOn: null,
    ownerId: null,
    loan: null,
    idNote: '',
    airSpring: null,
    preloadPitchMm: 1.5,
    serviceEveryDays: null,
    charts: [],
    adjusters,
    assumed: [],
    note: '',
  }
}

const pressure = (end: End) => newAdjuster('pressure', end)
const click = (end: End, role: Extract<Adjuster, { kind: 'click' }>['role'], clicks: number): Adjuster => ({
  ...newAdjuster('click', end),
  role,
  clicks,
})
const spacers = (end: End) => newAdjuster('spacer', end)

/** Generic starting points by end; ranges are to be counted on the real part. */
export function unitTemplates(end: End): UnitTemplate[] {
  return end === 'front'
    ? [
        {
          key: 'air-1',
          label: 'Air fork, rebound only',
          make: () => newUnit(end, '130 mm air fork', 'air', 130, [pressure(end), click(end, 'rebound', 12)]),
        },
        {
          key: 'air-2',
          label: 'Air fork, compression and rebound',
          make: () =>
            newUnit(end, '150 mm air fork', 'air', 150, [
              pressure(end),
              spacers(end),
              click(end, 'low-speed-compression', 16),
              click(end, 'rebound', 12),
            ]),
        },
        {
          key: 'air-4',
          label: 'Air fork, four dials',
          make: () =>
            newUnit(end, '160 mm air fork, 4-way', 'air', 160, [
              pressure(end),
              spacers(end),
              click(end, 'low-speed-compression', 16),
              click(end, 'high-speed-compression', 8),
              click(end, 'low-speed-rebound', 14),
              click(end, 'high-speed-rebound', 8),
            ]),
        },
        {
          key: 'coil',
          label: 'Coil fork',
          make: () =>
            newUnit(end, '170 mm coil fork', 'coil', 170, [
              newAdjuster('spring-rate', end),
              click(end, 'low-speed-compression', 12),
              click(end, 'rebound', 12),
            ]),
        },
      ]
    : [
        {
          key: 'air-1',
          label: 'Air shock, rebound only',
          make: () => newUnit(end, '50 mm air shock', 'air', 50, [pressure(end), click(end, 'rebound', 10)]),
        },
        {
          key: 'air-2',
          label: 'Air shock, rebound and lever',
          make: () =>
            newUnit(end, '55 mm air shock', 'air', 55, [
              pressure(end),
              spacers(end),
              click(end, 'rebound', 14),
              newAdjuster('lever', end),
            ]),
        },
        {
          key: 'air-4',
          label: 'Air shock, four dials',
          make: () =>
            newUnit(end, '65 mm air shock, 4-way', 'air', 65, [
              pressure(end),
              spacers(end),
              click(end, 'low-speed-compression', 16),
              click(end, 'high-speed-compression', 8),
              click(end, 'low-speed-rebound', 14),
              click(end, 'high-speed-rebound', 8),
            ]),
        },
        {
          key: 'coil',
          label: 'Coil shock',
          make: () =>
            newUnit(end, '60 mm coil shock', 'coil', 60, [
              newAdjuster('spring-rate', end),
              {
                ...newAdjuster('turn', end),
                role: 'preload',
                turns: 2,
                stepTurns: 0.25,
                // The collar is counted from where it touches the spring.
                countBase: 'open',
              } as Adjuster,
              click(end, 'low-speed-compression', 14),
              click(end, 'rebound', 14),
            ]),
        },
      ]
}
