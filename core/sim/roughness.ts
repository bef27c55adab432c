/** Geometric mean of the roughness classes of ISO 8608, G_d at 0.1 cycles per metre, m³. */
export const roughnessClassM3 = { A: 16e-6, B: 64e-6, C: 256e-6, D: 1024e-6, E: 4096e-6 } as const
export type RoughnessClass = keyof typeof roughnessClassM3

const referencePerM = 0.1
const lowestPerM = 0.05
/** Shorter waves than 30 cm a tyre swallows. */
const highestPerM = 3.3
const waves = 140

/**
 * Random ground of an ISO 8608 class: a sum of sines with the standard's power spectral density
 * G_d(n) = G_d(n₀)·(n/n₀)⁻², waves spaced evenly in log n, phases by chance.
 *
 * @returns height in m every `stepM`
 * Cost O(samples · 140).
 */
export function roughGround(
  samples: number,
  stepM: number,
  classM3: number,
  random: () => number,
): Float64Array {
  const height = new Float64Array(samples)
  const ratio = (highestPerM / lowestPerM) ** (1 / waves)
  for (let w = 0; w < waves; w++) {
    const from = lowestPerM * ratio ** w
    const n = from * ratio ** random()
    const density = classM3 * (n / referencePerM) ** -2
    const amplitude = Math.sqrt(2 * density * from * (ratio - 1))
    // A rotating pointer instead of a sine per sample.
    const turn = 2 * Math.PI * n * stepM
    const [c, s] = [Math.cos(turn), Math.sin(turn)]
    const phase = 2 * Math.PI * random()
    let x = amplitude * Math.cos(phase)
    let y = amplitude * Math.sin(phase)
    for (let i = 0; i < samples; i++) {
      height[i] += y
      const next = x * c - y * s
      y = x * s + y * c
      x = next
    }
  }
  return height
}
