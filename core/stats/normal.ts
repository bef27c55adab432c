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
