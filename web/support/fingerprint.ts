/**
 * Sixty-four bits that stand for a text: FNV-1a from two beginnings (Fowler, Noll, Vo). Against chance, not against malice;
 * what the platform has against malice is not there on plain http in a network.
 */
export function fingerprint(text: string): string {
  let [a, b] = [0x811c9dc5, 0x9747b28c]
  for (let i = 0; i < text.length; i++) {
    const c = text.charCodeAt(i)
    a = Math.imul(a ^ c, 0x01000193)
    b = Math.imul(b ^ (c + i), 0x01000193)
  }
  return [a, b].map((x) => (x >>> 0).toString(16).padStart(8, '0')).join('')
}
