/**
 * The bytes of a text as one letter a byte for all that is a number: UTF-16 with its mark becomes UTF-8, empty bytes at the
 * end are left out, everything else stays as it is (names in any other encoding survive well enough to be shown).
 *
 * @returns the same array where nothing was to be done
 */
export function plainBytes(bytes: Uint8Array): Uint8Array {
  const mark = markOf(bytes)
  const tail = emptyTailBytes(bytes)
  if (mark === null && tail === 0) return bytes
  const held = again.get(bytes)
  if (held) return held
  const written = bytes.subarray(0, bytes.length - tail)
  const plain = mark === null ? written : utf8Of(written, mark)
  again.set(bytes, plain)
  return plain
}

/** The byte of two that comes last in UTF-16, by its mark; null: it is none. */
function markOf(bytes: Uint8Array): 0 | 1 | null {
  const mark = bytes.length >= 2 ? (bytes[0] << 8) | bytes[1] : 0
  return mark === 0xfffe ? 0 : mark === 0xfeff ? 1 : null
}

/** Empty bytes behind a text: a logger that loses its power leaves the room that it had taken for more. */
export function emptyTailBytes(bytes: Uint8Array): number {
  let n = bytes.length
  while (n > 0 && bytes[n - 1] === 0) n--
  const tail = bytes.length - n
  // Half of a letter of UTF-16 is empty, too.
  return markOf(bytes) === null ? tail : tail - (tail % 2)
}

/** A file is looked at several times; it is turned once. */
const again = new WeakMap<Uint8Array, Uint8Array>()

/**
 * UTF-8 of UTF-16, without its mark. This room has no text decoder of a platform. Source: Unicode Standard, 3.9, D91 and D92.
 * @param high which byte of two comes last: 0 little-endian, 1 big-endian
 */
function utf8Of(bytes: Uint8Array, high: 0 | 1): Uint8Array {
  const out = new Uint8Array(bytes.length * 2)
  let n = 0
  const unit = (i: number) => (high === 0 ? bytes[i] | (bytes[i + 1] << 8) : (bytes[i] << 8) | bytes[i + 1])
  for (let i = 2; i + 1 < bytes.length; i += 2) {
    let c = unit(i)
    const next = i + 3 < bytes.length ? unit(i + 2) : 0
    if (c >= 0xd800 && c < 0xdc00 && next >= 0xdc00 && next < 0xe000) {
      c = 0x10000 + ((c - 0xd800) << 10) + (next - 0xdc00)
      i += 2
    }
    if (c < 0x80) out[n++] = c
    else if (c < 0x800) {
      out[n++] = 0xc0 | (c >> 6)
      out[n++] = 0x80 | (c & 63)
    } else if (c < 0x10000) {
      out[n++] = 0xe0 | (c >> 12)
      out[n++] = 0x80 | ((c >> 6) & 63)
      out[n++] = 0x80 | (c & 63)
    } else {
      out[n++] = 0xf0 | (c >> 18)
      out[n++] = 0x80 | ((c >> 12) & 63)
      out[n++] = 0x80 | ((c >> 6) & 63)
      out[n++] = 0x80 | (c & 63)
    }
  }
  return out.slice(0, n)
}

export type Encoding = 'ASCII' | 'UTF-8' | 'UTF-16' | 'Latin-1'

/** What a text is written in, as its head tells. */
export function encodingOf(bytes: Uint8Array): Encoding {
  if (markOf(bytes) !== null) return 'UTF-16'
  let latin = ''
  for (const b of bytes.subarray(0, 1 << 16)) if (b >= 0x80) latin += String.fromCharCode(b)
  if (latin === '') return 'ASCII'
  return nameOf(latin) === latin ? 'Latin-1' : 'UTF-8'
}

/**
 * A name as people wrote it, from one letter a byte: UTF-8 where it is that, else Latin-1 as it stands.
 */
export function nameOf(latin: string): string {
  if (!/[\u0080-\u00ff]/.test(latin)) return latin
  try {
    return decodeURIComponent(latin.replace(/[%\u0080-\u00ff]/g, (c) => `%${c.charCodeAt(0).toString(16)}`))
  } catch {
    return latin
  }
}
