import { normalFrom } from './random.ts'

export interface SensorTrack {
  sampleRateHz: number
  frontMm: Float64Array
  /** Shaft, not wheel; null on a hardtail. */
  rearMm: Float64Array | null
  speedMS: Float64Array
}

/**
 * Writes what a travel logger would: one line per sample, quantised to 0.05 mm, with sensor noise of 0.05 mm.
 * @returns delimited text, comma-separated, decimal points, time in ms
 */
export function sensorFile(track: SensorTrack, random: () => number): string {
  const { sampleRateHz, frontMm, rearMm, speedMS } = track
  const read = (mm: number) => (Math.round((mm + 0.05 * normalFrom(random)) * 20) / 20).toFixed(2)
  const lines = [rearMm ? 'time_ms,front_mm,rear_shaft_mm,speed_km/h' : 'time_ms,front_mm,speed_km/h']
  for (let i = 0; i < frontMm.length; i++) {
    const t = ((1000 * i) / sampleRateHz).toFixed(1)
    const kmh = (speedMS[i] * 3.6).toFixed(1)
    lines.push(
      rearMm ? `${t},${read(frontMm[i])},${read(rearMm[i])},${kmh}` : `${t},${read(frontMm[i])},${kmh}`,
    )
  }
  return lines.join('\n') + '\n'
}
