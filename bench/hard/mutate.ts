import type { Lots } from './lots.ts'

/** What programs, disks and people do to bytes on their way. */
export function mutateBytes(bytes: Uint8Array, draw: Lots): Uint8Array {
  let out = Uint8Array.from(bytes)
  for (let n = 1 + draw.below(3); n > 0; n--) {
    const at = draw.below(out.length || 1)
    switch (draw.below(7)) {
      case 0:
        out[at] = draw.below(256)
        break
      case 1:
        out = out.slice(0, at)
        break
      case 2:
        out = Uint8Array.from([
          ...out.slice(0, at),
          ...out.slice(Math.min(out.length, at + draw.below(2000))),
        ])
        break
      case 3: {
        const piece = out.slice(at, at + 1 + draw.below(500))
        out = Uint8Array.from([...out.slice(0, at), ...piece, ...out.slice(at)])
        break
      }
      case 4:
        for (let i = at; i < Math.min(out.length, at + 40); i++) out[i] = draw.below(256)
        break
      case 5:
        out.fill(draw.one([0, 0x20, 0x30, 0xff]), at, at + draw.below(3000))
        break
      default:
        for (let i = 0; i < out.length; i++) if (out[i] === 0x2e && draw.next() < 0.3) out[i] = 0x2c
    }
  }
  return out
}

const odd: readonly unknown[] = [
  null,
  true,
  '',
  -1,
  0,
  1e308,
  -1e-308,
  2 ** 53,
  0.1 + 0.2,
  'NaN',
  '=1+1',
  '../../etc/passwd',
  '\u0000',
  '😀'.repeat(500),
  'x'.repeat(100_000),
  [],
  {},
  [[[[[[]]]]]],
  { __proto__: null, constructor: 1 },
  '2031-02-31T00:00:00.000Z',
  '9999-12-31',
]

/** A JSON value with something else at one to three places in it. */
export function mutateJson(value: unknown, draw: Lots): unknown {
  const copy = structuredClone(value)
  for (let n = 1 + draw.below(3); n > 0; n--) {
    const holders: { of: Record<string, unknown>; key: string }[] = []
    const walk = (v: unknown) => {
      if (typeof v !== 'object' || v === null) return
      for (const key of Object.keys(v)) {
        holders.push({ of: v as Record<string, unknown>, key })
        walk((v as Record<string, unknown>)[key])
      }
    }
    walk(copy)
    if (holders.length === 0) return draw.one(odd)
    const { of, key } = draw.one(holders)
    if (draw.next() < 0.15) Reflect.deleteProperty(of, key)
    else if (draw.next() < 0.15) of[`${key}${draw.below(9)}`] = draw.one(odd)
    else of[key] = structuredClone(draw.one(odd))
  }
  return copy
}
