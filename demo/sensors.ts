import type { TrailSection } from '#contract/trail'
import type { End } from '#contract/common'
import { shaftMmAt, type Leverage } from '#core/linkage/leverage'
import { forcePerPsiForSag, rideRoad, type QuarterCar } from '#core/sim/quarterCar'
import { seededRandom } from '#core/sim/random'
import { buildRoad } from '#core/sim/road'
import { sensorFile } from '#core/sim/sensorFile'
import { forkAir, shockAir } from '#core/spring/air'

const sampleRateHz = 500

/** Where this demo bike's springs hold its rider at the target, so that other pressures mean something. */
const reference = { front: { psi: 78, sagPct: 15.5, kg: 34 }, rear: { psi: 178, sagPct: 22, kg: 42 } }

function car(end: End, set: (part: string) => number | undefined): QuarterCar {
  const at = reference[end]
  const base = {
    sprungKg: at.kg,
    air: end === 'front' ? forkAir : shockAir,
    spacers: end === 'front' ? (set('spacers') ?? 1) : 1,
  }
  return {
    ...base,
    unsprungKg: end === 'front' ? 3.4 : 4,
    travelM: end === 'front' ? 0.15 : 0.147,
    pressurePsi: set('psi') ?? at.psi,
    newtonPerPsi: forcePerPsiForSag(base, at.psi, at.sagPct),
    compression: { closedNsPerM: 1500, ratioPerClick: 0.91, kneeMS: 0.3, highShare: 0.3 },
    compressionClicks: set('lsc') ?? 8,
    rebound: { closedNsPerM: 5200, ratioPerClick: 0.83, kneeMS: 0.8, highShare: 0.5 },
    reboundClicks: set('rebound') ?? 7,
    frictionN: end === 'front' ? 26 : 20,
    tyreNPerM: 90_000,
    tyreNsPerM: 150,
    brakeShare: end === 'front' ? 1 : -0.5,
  }
}

/**
 * The file a travel logger would have written on this ride: the stand-in simulator on the trail's own road.
 * @param set canonical position by end and part, e.g. set('rear', 'rebound')
 */
export function rideFile(
  sections: readonly TrailSection[],
  set: (end: End, part: string) => number | undefined,
  seed: number,
  linkage: Leverage,
): string {
  const road = buildRoad(sections, seededRandom(seed))
  const front = rideRoad(
    car('front', (p) => set('front', p)),
    road,
    sampleRateHz,
  )
  const rear = rideRoad(
    car('rear', (p) => set('rear', p)),
    road,
    sampleRateHz,
  )
  const wheelMm = linkage.wheelMm[linkage.wheelMm.length - 1]
  return sensorFile(
    {
      sampleRateHz,
      frontMm: front.depthPct.map((d) => d * 1.5),
      rearMm: rear.depthPct.map((d) => shaftMmAt((d / 100) * wheelMm, linkage)),
      speedMS: front.speedMS,
    },
    seededRandom(seed + 1),
  )
}
