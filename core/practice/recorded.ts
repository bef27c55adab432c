import type { End } from '#contract/common'
import type { ImportMapping, Recording } from '#contract/recording'
import { seededRandom } from '../numeric/random.ts'
import { travelFile } from '../sim/sensorFile.ts'
import { analyse } from '../telemetry/analyse.ts'
import { ingestDelimited } from '../telemetry/ingest.ts'
import { travelGeometry } from '../telemetry/travelGeometry.ts'
import type { HiddenRider } from './hiddenRider.ts'
import { practiceBike, practiceTrail, unitsOf } from './kit.ts'
import type { Positions } from './landscape.ts'
import { ridden, runSeed, shownBy } from './ride.ts'

/** What the columns of the invented logger are. */
const mapping: ImportMapping = {
  delimiter: ',',
  decimal: '.',
  sampleRateHz: null,
  columns: (
    [
      ['time', 'ms'],
      ['front-travel', 'mm'],
      ['rear-travel', 'mm'],
      ['bar-acceleration', 'g'],
      ['speed', 'km/h'],
    ] as const
  ).map(([role, unit], column) => ({ column, role, unit, calibration: null })),
}
const noise = 104_729

/**
 * A ride of practice as its sensors keep it: the file of an invented logger, read and weighed by what reads every other.
 *
 * @param run number of the run: its line and pace
 */
export function recordedRide(rider: HiddenRider, positions: Positions, run: number): Recording {
  const { bike, ride } = ridden(rider, positions, run)
  const seen = (end: End) => ride[end].map((share) => shownBy(rider, end, run, share))
  const text = travelFile(
    bike,
    { ...ride, front: seen('front'), rear: seen('rear') },
    seededRandom(runSeed(rider, run) + noise),
  )
  // Digits and letters of the basic alphabet only.
  const bytes = Uint8Array.from(text, (c) => c.charCodeAt(0))
  const units = unitsOf(null)
  const clean = ingestDelimited(bytes, mapping, travelGeometry(practiceBike, units.front, units.rear))
  return {
    id: `practice-recording-${run}`,
    runId: `practice-run-${run}`,
    fileName: `run-${run}.csv`,
    sha256: '',
    byteLength: bytes.length,
    importedAt: new Date(2000, 0, 1, 9).toISOString(),
    mapping,
    sampleRateHz: clean.sampleRateHz,
    durationS: clean.samples / clean.sampleRateHz,
    samples: clean.samples,
    ends: clean.ends,
    fullTravelMm: { front: clean.travelMm.front ?? null, rear: clean.travelMm.rear ?? null },
    issues: clean.issues,
    analysis: analyse(clean, practiceTrail.sections),
    figures: 'current',
    addedFiles: [],
    spans: [],
    lineS: null,
  }
}
