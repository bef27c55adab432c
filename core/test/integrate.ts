/** Composite Simpson's rule, an independent reference for closed forms. @param n even */
export function simpson(f: (x: number) => number, a: number, b: number, n = 2000): number {
  const h = (b - a) / n
  let sum = f(a) + f(b)
  for (let i = 1; i < n; i++) sum += (i % 2 ? 4 : 2) * f(a + i * h)
  return (sum * h) / 3
}

/** Central difference. */
export const slopeOf = (f: (x: number) => number, x: number, h = 1e-5) => (f(x + h) - f(x - h)) / (2 * h)
