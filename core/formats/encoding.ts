/**
 * The bytes of a text as one letter a byte for all that is a number: UTF-16 with its mark becomes UTF-8, everything else
 * stays as it is (names in any other encoding survive well enough to be shown).
 *
 * @returns the same array where nothing was to be done
 */
export function plainBytes(bytes: Uint8Array): Uint8Array {
  const mark = bytes.length >= 2 ? (bytes[0] << 8) | bytes[1] : 0
  if (mark !== 0xfffe && mark !== 0xfeff) return bytes
  const held = again.get(bytes)
  if (held) return held
  const text = new TextDecoder(mark === 0xfffe ? 'utf-16le' : 'utf-16be').decode(bytes)
  const plain = new TextEncoder().encode(text)
  again.set(bytes, plain)
  return plain
}

/** A file is looked at several times; it is turned once. */
const again = new WeakMap<Uint8Array, Uint8Array>()
