/** Half width of the two-sided 80 % interval of a standard normal: Φ⁻¹(0.9). */
export const normal80 = 1.2815515655446004

/**
 * Standard normal distribution function Φ(z).
 * Complementary error function by the rational Chebyshev fit of Numerical Recipes 6.2 (erfcc), relative error < 1.2e-7.
 */
export function normalCdf(z: number): number {
  const x = Math.abs(z) / Math.SQRT2
  const t = 1 / (1 + 0.5 * x)
  const poly =
    -x * x -
    1.26551223 +
    t *
      (1.00002368 +
        t *
          (0.37409196 +
            t *
              (0.09678418 +
                t *
                  (-0.18628806 +
                    t *
                      (0.27886807 +
                        t * (-1.13520398 + t * (1.48851587 + t * (-0.82215223 + t * 0.17087277))))))))
  const upper = 0.5 * t * Math.exp(poly)
  return z >= 0 ? 1 - upper : upper
}

/** A mean with its spread. */
export interface Normal {
  mean: number
  sd: number
}

const normalDensity = (z: number) => Math.exp(-0.5 * z * z) / Math.sqrt(2 * Math.PI)

/**
 * Mean and spread of a normal that is cut off at both ends.
 * Source: Johnson, Kotz & Balakrishnan, Continuous Univariate Distributions 1, § 10.1.
 */
export function cutNormal({ mean, sd }: Normal, low: number, high: number): Normal {
  const [a, b] = [(low - mean) / sd, (high - mean) / sd]
  const share = normalCdf(b) - normalCdf(a)
  const [da, db] = [normalDensity(a), normalDensity(b)]
  const shift = (da - db) / share
  return {
    mean: mean + sd * shift,
    sd: sd * Math.sqrt(Math.max(0, 1 + (a * da - b * db) / share - shift * shift)),
  }
}

/** Two independent opinions on one number as one: weighed by their precision. */
export function together(a: Normal, b: Normal): Normal {
  const [p, q] = [1 / a.sd ** 2, 1 / b.sd ** 2]
  return { mean: (p * a.mean + q * b.mean) / (p + q), sd: Math.sqrt(1 / (p + q)) }
}

/** What was learnt beyond what was believed before: the opinion that, taken together with `prior`, gives `posterior`. */
export function beyond(posterior: Normal, prior: Normal, leastShare = 0.1): Normal | null {
  const [p, q] = [1 / posterior.sd ** 2, 1 / prior.sd ** 2]
  // Hardly narrower than before: nothing was learnt, and a division would make much of the rounding.
  if (p - q < leastShare * q) return null
  return { mean: (p * posterior.mean - q * prior.mean) / (p - q), sd: Math.sqrt(1 / (p - q)) }
}
