import { v7 as uuid } from 'uuid'
import type { Adjuster } from '#contract/adjuster'
import type { Bike, BikeKind } from '#contract/bike'
import type { End } from '#contract/common'
import type { Rider } from '#contract/rider'
import type { SuspensionUnit } from '#contract/unit'
import { startClicks } from '#core/damper/startClicks'
import { ridingMassKg } from '#core/spring/load'
import { startPressures } from '#core/spring/start'
import { canonicalUnits, say, type UnitChoice } from '#core/units/choice'
import { mannerKeys } from './riderWords.ts'
import { newAdjuster, newUnit } from './unitTemplates.ts'

/** What can be seen on a fork or a shock without a manual. */
export type Part = 'air' | 'coil' | 'red' | 'red-two' | 'blue' | 'blue-two' | 'lever' | 'turn'

export interface Count {
  /** Clicks from stop to stop; null = not counted. */
  clicks: number | null
  /** Where it stands, clicks from closed; null = not counted. */
  at: number | null
}

export interface EndAnswers {
  /** null = not known. */
  travelMm: number | null
  parts: Part[]
  /** By the adjuster's role. */
  counts: Record<string, Count>
  /** The number printed on the coil, N/mm. */
  rateNPerMm: number | null
}

/** Everything the guided way asks; plain data, kept as a draft. */
export interface Answers {
  /** An existing rider, or null for a new one. */
  riderId: string | null
  name: string
  bodyMassKg: number | null
  /** What is worn, by key of `kitPieces`; null = not known. */
  kit: string[] | null
  kind: BikeKind
  hardtail: boolean
  front: EndAnswers
  rear: EndAnswers
}

const noEnd = (): EndAnswers => ({ travelMm: null, parts: [], counts: {}, rateNPerMm: null })
export const noAnswers = (): Answers => ({
  riderId: null,
  name: '',
  bodyMassKg: null,
  kit: null,
  kind: 'trail',
  hardtail: false,
  front: noEnd(),
  rear: noEnd(),
})

/** What riders usually carry, kg; round numbers, to be corrected on the scales. */
export const kitPieces = [
  { key: 'clothes', text: 'Helmet, clothes, gloves', kg: 1.5 },
  { key: 'shoes', text: 'Shoes', kg: 1 },
  { key: 'pads', text: 'Knee and elbow pads', kg: 1 },
  { key: 'full', text: 'Full face, back protector', kg: 2.5 },
  { key: 'pack', text: 'Pack with tools', kg: 2.5 },
  { key: 'water', text: 'A litre of water', kg: 1 },
] as const
export const kitKg = (kit: readonly string[]): number =>
  kitPieces.filter((p) => kit.includes(p.key)).reduce((sum, p) => sum + p.kg, 0)

/** Travel that is usual for a kind of bike, mm; front and rear wheel. */
export const usualTravelMm: Record<BikeKind, Record<End, number>> = {
  'cross-country': { front: 110, rear: 105 },
  trail: { front: 140, rear: 130 },
  enduro: { front: 160, rear: 155 },
  downhill: { front: 200, rear: 200 },
  other: { front: 130, rear: 120 },
}
/** Wheel travel over stroke of a linkage that nobody has looked at. */
const usualLeverage = 2.6

const clicksUsual = { compression: 12, rebound: 12, high: 8 }

/** The dials that belong to what is seen, by role; two of a colour are low and high speed. */
export function rolesOf(parts: readonly Part[]): Extract<Adjuster, { kind: 'click' }>['role'][] {
  const has = (p: Part) => parts.includes(p)
  return [
    ...(has('blue-two')
      ? (['low-speed-compression', 'high-speed-compression'] as const)
      : has('blue')
        ? (['compression'] as const)
        : []),
    ...(has('red-two')
      ? (['low-speed-rebound', 'high-speed-rebound'] as const)
      : has('red')
        ? (['rebound'] as const)
        : []),
  ]
}

const mm = (x: number) => Math.round(x / 2.5) * 2.5

/** The unit that the answers describe. What was not counted or measured is typical, and says so. */
function unitOf(end: End, a: EndAnswers, owner: string, kind: BikeKind, wheelMm: number): SuspensionUnit {
  const assumed: string[] = []
  const spring = a.parts.includes('coil') ? 'coil' : 'air'
  const strokeMm = end === 'front' ? wheelMm : mm(wheelMm / usualLeverage)
  // The travel of a fork was asked; the stroke of a shock never is.
  if (end === 'rear' || a.travelMm === null) assumed.push('strokeMm')
  const adjusters: Adjuster[] = []
  const add = (x: Adjuster, isAssumed: boolean) => {
    adjusters.push(x)
    if (isAssumed) assumed.push(x.id)
  }
  if (spring === 'air') add(newAdjuster('pressure', end), true)
  else if (a.rateNPerMm !== null)
    add({ ...newAdjuster('spring-rate', end), ratesNPerMm: [a.rateNPerMm] }, false)
  for (const role of rolesOf(a.parts)) {
    const count = a.counts[role]?.clicks ?? null
    const usual = role.startsWith('high')
      ? clicksUsual.high
      : role.includes('rebound')
        ? clicksUsual.rebound
        : clicksUsual.compression
    add({ ...newAdjuster('click', end), role, clicks: count ?? usual }, count === null)
  }
  if (a.parts.includes('turn')) add({ ...newAdjuster('turn', end), role: 'compression' }, true)
  if (a.parts.includes('lever')) add(newAdjuster('lever', end), true)
  const name =
    end === 'front'
      ? `${owner} ${strokeMm} mm ${spring === 'coil' ? 'coil ' : ''}fork`
      : `${owner} ${kind === 'other' ? '' : `${kind} `}${spring} shock`
  return { ...newUnit(end, name, spring, strokeMm, adjusters), assumed }
}

export interface FirstBike {
  rider: Rider
  bike: Bike
  units: SuspensionUnit[]
  /** What was counted on the bike: canonical position per adjuster id. */
  counted: Map<string, number>
}

/** The records that the answers describe; ids are new each time. */
export function firstBike(a: Answers, existing: Rider | null): FirstBike {
  const name = existing?.name ?? a.name.trim()
  const owner = `${name}${/s$/i.test(name) ? '’' : '’s'}`
  const rider: Rider = existing ?? {
    id: uuid(),
    version: 0,
    name,
    bodyMassKg: a.bodyMassKg,
    kitMassKg: a.kit === null ? null : kitKg(a.kit),
    waterL: 0,
    level: 'intermediate',
    taste: 'neutral',
    assumed: [...(a.kit === null ? [] : ['kitMassKg']), ...mannerKeys],
    note: '',
  }
  const usual = usualTravelMm[a.kind]
  const front = unitOf('front', a.front, owner, a.kind, a.front.travelMm ?? usual.front)
  const rearTravel = a.rear.travelMm ?? usual.rear
  const rear = a.hardtail ? null : unitOf('rear', a.rear, owner, a.kind, rearTravel)
  const counted = new Map<string, number>()
  for (const [unit, answers] of [
    [front, a.front],
    [rear, a.rear],
  ] as const) {
    for (const x of unit?.adjusters ?? []) {
      const at = answers.counts[x.role]?.at
      // Counted from closed: that is how a place is kept.
      if (x.kind === 'click' && typeof at === 'number') counted.set(x.id, at)
      if (x.kind === 'spring-rate') counted.set(x.id, x.ratesNPerMm[0])
    }
  }
  const kindName = a.kind === 'other' ? 'bike' : `${a.kind} bike`
  const bike: Bike = {
    id: uuid(),
    version: 0,
    riderId: rider.id,
    name: `${owner} ${kindName}`,
    eBike: false,
    kind: a.kind,
    massKg: null,
    frontUnitId: front.id,
    rearUnitId: rear?.id ?? null,
    rearWheelTravelMm: rear ? rearTravel : null,
    leverageStart: null,
    leverageEnd: null,
    leverageCurve: null,
    tyres: {
      front: { name: '', widthMm: null, pressurePsi: null },
      rear: { name: '', widthMm: null, pressurePsi: null },
    },
    frontShareSeatedPct: null,
    frontShareReadyPct: null,
    currentSetupId: null,
    assumed: rear && a.rear.travelMm === null ? ['rearWheelTravelMm'] : [],
    note: '',
  }
  return { rider, bike, units: rear ? [front, rear] : [front], counted }
}

/** Weight of kit that is reckoned with where nobody said, kg. */
export const kitGuessKg = 5

export interface StartEstimate {
  end: End
  adjuster: Adjuster
  value: number
  /** What to reckon with either way, in the same unit. */
  spread: number
  /** Where it comes from. */
  words: string
}

/** Pressure and rebound to start with: estimates from weight, to be corrected by sag and by a ride. */
export function startEstimates(f: FirstBike, choice: UnitChoice = canonicalUnits): StartEstimate[] {
  const { rider, bike } = f
  if (rider.bodyMassKg === null) return []
  const kitSaid = rider.kitMassKg !== null
  const massKg = ridingMassKg(rider) + (kitSaid ? 0 : kitGuessKg)
  const kitWords = kitSaid ? '' : `; kit unknown, about ${say('mass', kitGuessKg, choice)} assumed`
  return f.units.flatMap((u) => {
    const out: StartEstimate[] = []
    const main = u.adjusters.find((x) => x.role === 'main-pressure')
    const pressure = startPressures(
      u,
      {
        ridingMassKg: massKg,
        bikeMassKg: null,
        eBike: bike.eBike,
        frontSharePct: null,
        posture: u.end === 'front' ? 'ready' : 'seated',
      },
      null,
      u.end === 'rear' && bike.rearWheelTravelMm ? bike.rearWheelTravelMm / u.strokeMm : null,
    )[0]
    if (main && pressure)
      out.push({
        end: u.end,
        adjuster: main,
        value: pressure.psi,
        spread: pressure.spreadPsi,
        words: `${pressure.words}${kitWords}`,
      })
    for (const dial of u.adjusters) {
      if (dial.kind !== 'click' || !(dial.role === 'rebound' || dial.role === 'low-speed-rebound')) continue
      // A dial whose clicks nobody counted has no middle to start from.
      if (u.assumed.includes(dial.id)) continue
      const [click] = startClicks(
        u,
        dial,
        { ridingMassKg: massKg, level: rider.level },
        pressure?.psi ?? null,
        null,
      )
      if (click)
        out.push({ end: u.end, adjuster: dial, value: click.value, spread: click.spread, words: click.words })
    }
    return out
  })
}
