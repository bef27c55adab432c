import type { End } from '#contract/common'
import type { Analysis, ImportMapping, Recording } from '#contract/recording'
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

/** A ride of practice with what its sensors kept, sample by sample. */
export interface TracedRide {
  recording: ReadRecording
  /** Depth, % of travel; NaN where nothing was kept. */
  depthPct: Partial<Record<End, Float32Array>>
}
type ReadRecording = Recording & { analysis: Analysis }

/**
 * A ride of practice as its sensors keep it: the file of an invented logger, read and weighed by what reads every other.
 *
 * @param run number of the run: its line and pace
 */
export const recordedRide = (rider: HiddenRider, positions: Positions, run: number): ReadRecording =>
  tracedRide(rider, positions, run).recording

/** The same with its channels. @param run number of the run: its line and pace */
export function tracedRide(rider: HiddenRider, positions: Positions, run: number): TracedRide {
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
  const recording = {
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
    figures: 'current' as const,
    addedFiles: [],
    spans: [],
    lineS: null,
  }
  const kept = clean.ends.map((end) => [end, Float32Array.from(clean.depthPct[end]!)])
  return { recording, depthPct: Object.fromEntries(kept) as TracedRide['depthPct'] }
}
