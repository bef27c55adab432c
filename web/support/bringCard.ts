import { Bike } from '#contract/bike'
import type { CardDial, SetupCard } from '#contract/card'
import { KeptSetup } from '#contract/kept'
import { Rider } from '#contract/rider'
import type { Known, Position, Setup } from '#contract/setup'
import { SuspensionUnit } from '#contract/unit'
import { isSameModel } from '#core/setup/sameModel'
import { mannerKeys } from './riderWords.ts'

/** Records that a card becomes, in the order in which they are saved. */
export interface BroughtIn {
  /** Null: one who is here already. */
  rider: Rider | null
  units: SuspensionUnit[]
  bike: Bike | null
  setup: Setup
  kept: KeptSetup
}

const noReason = { proposalId: null, undoes: null, fromSetupId: null }

/** How the numbers of a card are known: as they were known to whoever wrote it. */
function knownOf(card: SetupCard, dial: CardDial): Known {
  return {
    how: dial.how ?? 'assumed',
    at: card.madeAt,
    by: card.by,
    source: `from the card “${card.name}”`.slice(0, 160),
    gaugeId: null,
    airTempC: card.found.airTempC,
    altitudeM: card.found.altitudeM,
    place: card.found.place,
  }
}

/** Units of the card as records, each dial with an id of its own. */
function unitsOf(card: SetupCard, newId: () => string): SuspensionUnit[] {
  return card.units.map(({ dials, ...u }) =>
    SuspensionUnit.parse({
      ...u,
      id: newId(),
      version: 0,
      note: '',
      adjusters: dials.map(({ value: _value, how: _how, ...shape }) => ({ ...shape, id: newId() })),
    }),
  )
}

/** Positions on units that have the card's dials in the card's order; what is unread on the card stays unread. */
function positionsOn(card: SetupCard, units: readonly SuspensionUnit[]): Position[] {
  return card.units.flatMap((u) => {
    const unit = units.find((x) => x.end === u.end)
    return u.dials.flatMap((d, i): Position[] =>
      unit && d.value !== null
        ? [{ end: u.end, adjusterId: unit.adjusters[i].id, value: d.value, known: knownOf(card, d) }]
        : [],
    )
  })
}

function keptOf(card: SetupCard, setup: Setup, at: string): KeptSetup {
  return KeptSetup.parse({
    id: setup.id,
    version: 0,
    bikeId: setup.bikeId,
    name: card.name,
    purposes: card.purposes,
    found: { ...card.found, pace: null, kitMassKg: null },
    tyreFrontPsi: card.tyreFrontPsi,
    tyreRearPsi: card.tyreRearPsi,
    geometry: card.geometry,
    words: card.words,
    by: card.by,
    keptAt: at,
  })
}

function setupOn(
  card: SetupCard,
  bike: Pick<Bike, 'id' | 'frontUnitId' | 'rearUnitId'>,
  units: readonly SuspensionUnit[],
  over: Pick<Setup, 'id' | 'parentId' | 'wanted'> & { source: 'baseline' | 'carried' },
): Setup {
  const { source, ...rest } = over
  return {
    ...rest,
    bikeId: bike.id,
    dayId: null,
    madeAt: card.madeAt,
    name: card.name,
    frontUnitId: bike.frontUnitId,
    rearUnitId: bike.rearUnitId,
    positions: positionsOn(card, units),
    reason: { ...noReason, text: `From the card “${card.name}”`, source, linked: true },
    foundIn: {
      airTempC: card.found.airTempC,
      altitudeM: card.found.altitudeM,
      place: card.found.place,
      sagFrontPct: card.sag.frontPct,
      sagRearPct: card.sag.rearPct,
      postureFront: card.sag.front,
      postureRear: card.sag.rear,
    },
  }
}

/**
 * The very bike of the card, made here: it stands as the card says, known as it was known there.
 *
 * @param riderId one who is here already; null: made from the card
 * @param newId   makes an id
 * @param at      now, ISO
 */
export function asItsBike(
  card: SetupCard,
  riderId: string | null,
  newId: () => string,
  at: string,
): BroughtIn {
  const rider =
    riderId === null
      ? Rider.parse({
          id: newId(),
          version: 0,
          name: card.rider || 'Rider of the card',
          // A riding weight is body and kit together: which part is which, the card does not say.
          bodyMassKg: null,
          kitMassKg: null,
          level: 'intermediate',
          taste: 'neutral',
          assumed: [...mannerKeys],
          note: '',
        })
      : null
  const units = unitsOf(card, newId)
  const bike = Bike.parse({
    id: newId(),
    version: 0,
    riderId: rider?.id ?? riderId,
    name: card.bike,
    eBike: false,
    frontUnitId: units.find((u) => u.end === 'front')?.id ?? null,
    rearUnitId: units.find((u) => u.end === 'rear')?.id ?? null,
    rearWheelTravelMm: card.rearWheelTravelMm,
    leverageStart: null,
    leverageEnd: null,
    currentSetupId: null,
    note: '',
  })
  const setup = setupOn(card, bike, units, { id: newId(), parentId: null, wanted: false, source: 'baseline' })
  return { rider, units, bike, setup, kept: keptOf(card, setup, at) }
}

/** Units of a bike here that are of the model on the card; on these its clicks mean the same. */
export function unitsAlike(
  card: SetupCard,
  fitted: readonly SuspensionUnit[],
  newId: () => string,
): SuspensionUnit[] {
  const made = unitsOf(card, newId)
  return fitted.filter((u) => made.some((m) => isSameModel(m, u)))
}

/** The card as a wish for a bike that is here: nothing is turned. @param alike from `unitsAlike`, at least one */
export function asWish(
  card: SetupCard,
  bike: Bike,
  alike: readonly SuspensionUnit[],
  newId: () => string,
  at: string,
): BroughtIn {
  const over = { id: newId(), parentId: bike.currentSetupId, wanted: true, source: 'carried' as const }
  const setup = setupOn(card, bike, alike, over)
  return { rider: null, units: [], bike: null, setup, kept: keptOf(card, setup, at) }
}
