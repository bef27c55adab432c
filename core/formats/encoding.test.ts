import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { plainBytes } from './encoding.ts'

const utf16 = (text: string, big: boolean) => {
  const body = Buffer.from(text, 'utf16le')
  return Uint8Array.from([...(big ? [0xfe, 0xff] : [0xff, 0xfe]), ...(big ? body.swap16() : body)])
}

describe('a text in UTF-16', () => {
  it('becomes what the platform says it is, whatever is in it', () => {
    fc.assert(
      fc.property(fc.string({ unit: 'grapheme' }), fc.boolean(), (text, big) => {
        expect(new TextDecoder().decode(plainBytes(utf16(text, big)))).toBe(text)
      }),
    )
  })
  it('is turned once; everything else is left alone', () => {
    const file = utf16('time_s,front_mm\n', false)
    expect(plainBytes(file)).toBe(plainBytes(file))
    for (const other of ['', 'a', 'time_s,front_mm\n', '\ufefftime'].map((t) => new TextEncoder().encode(t)))
      expect(plainBytes(other)).toBe(other)
  })
})
