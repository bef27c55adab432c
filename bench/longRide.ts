import { seededRandom } from '#core/numeric/random'
import { recordingOf } from '#core/test/synthetic'

const sampleRateHz = 1000

/** Ten minutes of both ends at 1000 Hz, for the analysis to be timed and weighed on; the same as in reference.py. */
export function longRide(durationS = 600) {
  const samples = durationS * sampleRateHz
  const random = seededRandom(3)
  const noise = Float64Array.from({ length: samples }, () => random())
  const ride = (phase: number) => (t: number) =>
    25 +
    12 * Math.sin(7 * t + phase) +
    8 * Math.max(0, Math.sin(1.3 * t)) ** 8 +
    2 * noise[Math.round(t * sampleRateHz) % samples]
  const recording = recordingOf(ride(0), ride(0.4), { durationS, sampleRateHz })
  return { recording, channelBytes: 2 * samples * 8 }
}
