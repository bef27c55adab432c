/** Half a pair of surrogates is no letter and has no place in a file. */
export function isWhole(value: unknown): boolean {
  // A list of what is to be looked at: what is nested deeply must not run out of stack.
  const left: unknown[] = [value]
  for (let v = left.pop(); v !== undefined; v = left.pop()) {
    if (typeof v === 'string' && /\p{Surrogate}/u.test(v)) return false
    if (typeof v !== 'object' || v === null) continue
    for (const [key, inner] of Object.entries(v)) left.push(key, inner)
  }
  return true
}
