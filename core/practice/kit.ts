import type { Adjuster } from '#contract/adjuster'
import type { Bike } from '#contract/bike'
import type { End } from '#contract/common'
import type { RiderCard } from '#contract/rider'
import type { Trail } from '#contract/trail'
import type { SuspensionUnit } from '#contract/unit'
import { air, click, spacers } from './parts.ts'

/** The invented bike of practice, its rider and its trail. None of them is kept anywhere. */

/** All that could be on it, by the letter of its end and what it does. */
const parts: Record<End, Adjuster[]> = {
  front: [
    air('fp', 40, 140),
    spacers('fs', 5),
    click('fr', 'rebound', 14),
    click('fc', 'low-speed-compression', 16),
    click('fh', 'high-speed-compression', 10),
  ],
  rear: [
    air('rp', 100, 300),
    spacers('rs', 5),
    click('rr', 'rebound', 14),
    click('rc', 'low-speed-compression', 16),
    click('rh', 'high-speed-compression', 10),
  ],
}

/** What there is to turn on the bike of a drill. */
export type KitName = 'one-dial' | 'few' | 'usual' | 'spacers' | 'many'

const kits: Record<KitName, readonly string[]> = {
  'one-dial': ['rr'],
  few: ['fp', 'fr', 'rp', 'rr'],
  usual: ['fp', 'fr', 'fc', 'rp', 'rr'],
  spacers: ['fp', 'fr', 'fc', 'rp', 'rs', 'rr'],
  many: ['fp', 'fr', 'fc', 'fh', 'rp', 'rs', 'rr', 'rc'],
}

const unit = (end: End, strokeMm: number, sagTargetPct: number, adjusters: Adjuster[]): SuspensionUnit => ({
  id: end === 'front' ? 'practice-fork' : 'practice-shock',
  version: 1,
  name: end === 'front' ? `${strokeMm} mm air fork` : `${strokeMm} mm air shock`,
  end,
  spring: 'air',
  strokeMm,
  sagTargetPct,
  revalved: false,
  revalvedOn: null,
  ownerId: null,
  loan: null,
  idNote: '',
  airSpring: null,
  preloadPitchMm: 1.5,
  serviceEveryDays: null,
  charts: [],
  assumed: [],
  adjusters,
  note: '',
})

/** Fork and shock with what a kit lets be turned; without one, all there is inside. */
export function unitsOf(kit: KitName | null): Record<End, SuspensionUnit> {
  const on = (a: Adjuster) => kit === null || kits[kit].includes(a.id)
  return {
    front: unit('front', 150, 20, parts.front.filter(on)),
    rear: unit('rear', 55, 30, parts.rear.filter(on)),
  }
}

const noTyre = { name: '', widthMm: null, pressurePsi: null }
export const practiceBike: Bike = {
  id: 'practice-bike',
  version: 1,
  riderId: 'practice-rider',
  name: 'Practice bike',
  eBike: false,
  kind: 'trail',
  massKg: 14.5,
  frontUnitId: 'practice-fork',
  rearUnitId: 'practice-shock',
  rearWheelTravelMm: 143,
  leverageStart: 2.8,
  leverageEnd: 2.4,
  leverageCurve: null,
  tyres: { front: noTyre, rear: noTyre },
  frontShareSeatedPct: null,
  frontShareReadyPct: null,
  currentSetupId: null,
  assumed: [],
  note: '',
}
export const ridingMassKg = 82

export const practiceRider: RiderCard = {
  id: 'practice-rider',
  version: 1,
  name: 'Invented rider',
  level: 'intermediate',
  taste: 'neutral',
  note: '',
}

export const practiceTrail: Trail = {
  id: 'practice-trail',
  version: 1,
  name: 'Practice trail',
  place: '',
  sections: [
    { id: 'web', name: 'Root web', kind: 'roots', lengthM: 90, severity: 1 },
    { id: 'bumps', name: 'Braking bumps', kind: 'braking-bumps', lengthM: 60, severity: 1 },
    { id: 'lip', name: 'The lip', kind: 'jump', lengthM: 40, severity: 1 },
    { id: 'berms', name: 'Berms', kind: 'berms', lengthM: 70, severity: 1 },
    { id: 'edges', name: 'Square edges', kind: 'square-edges', lengthM: 50, severity: 1 },
    { id: 'straight', name: 'Fast straight', kind: 'flat-out', lengthM: 60, severity: 1 },
  ],
  gates: [],
  note: '',
}
