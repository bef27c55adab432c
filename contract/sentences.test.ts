import { describe, expect, it } from 'vitest'
import { z } from 'zod'
import { endpoints } from './endpoints.ts'
import { PadReport } from './pad.ts'
import { RecordingUpload } from './recording.ts'

const odd = [
  undefined,
  null,
  '',
  'x'.repeat(5000),
  -1,
  1e9,
  0.123,
  NaN,
  Infinity,
  true,
  [],
  [1],
  {},
  { a: 1 },
  '2031-02-31',
]

/** Everything that is said of a value, at any depth. */
function said(schema: z.ZodType, value: unknown): string[] {
  const result = schema.safeParse(value)
  return result.success ? [] : result.error.issues.map((i) => i.message)
}
/** A record with one thing in each of its fields, and with a field that is none. */
function tries(schema: z.ZodType): unknown[] {
  const names = schema instanceof z.ZodObject ? Object.keys(schema.shape as object) : []
  return [...odd, ...names.flatMap((n) => odd.map((v) => ({ [n]: v }))), { colour: 'red', 'a"b': 1 }]
}
const bodies = Object.entries(endpoints)
  .map(([name, e]) => [name, e.body as z.ZodType] as const)
  .filter(([, body]) => body.def.type !== 'undefined')

describe('what a refusal says', () => {
  it.each([...bodies, ['a report', PadReport], ['an upload', RecordingUpload]] as [string, z.ZodType][])(
    'of %s is a sentence of ours, whatever was sent',
    (_, schema) => {
      const all = tries(schema).flatMap((v) => said(schema, v))
      expect(all.length).toBeGreaterThan(10)
      const raw = all.filter((s) =>
        /Invalid|expected|received|Unrecognized|Too (big|small)|undefined|NaN/.test(s),
      )
      expect([...new Set(raw)]).toEqual([])
      expect([...new Set(all.filter((s) => !/^[A-Z“].*[.?]$/s.test(s)))]).toEqual([])
      expect(Math.max(...all.map((s) => s.length))).toBeLessThan(400)
    },
  )
  it.each<[z.ZodType, unknown, string]>([
    [z.number(), 'ten', 'It has to be a number; “ten” was given.'],
    [z.number(), undefined, 'It is missing: a number belongs here.'],
    [z.string(), null, 'It has to be a text; it is empty.'],
    [z.int(), 1.5, 'It has to be a whole number; 1.5 was given.'],
    [z.number().min(3), 1, 'It is at least 3; 1 was given.'],
    [z.number().positive(), 0, 'It is above 0; 0 was given.'],
    [z.string().max(3), 'four', 'It has at most 3 letters.'],
    [z.array(z.number()).max(1), [1, 2], 'There are at most 1 of them.'],
    [z.enum(['front', 'rear']), 'left', 'It has to be one of front, rear; “left” was given.'],
    [z.union([z.literal(1), z.literal(2)]), 3, 'It has to be one of 1, 2; 3 was given.'],
    [z.uuid(), 'x', 'It has to be an id (UUID); “x” was given.'],
    [z.iso.date(), '2031-02-31', 'It has to be a day, as 2031-05-02; “2031-02-31” was given.'],
    [z.strictObject({}), { colour: 1 }, 'There is no such field: colour.'],
    [z.number().min(3, 'Our own sentence.'), 1, 'Our own sentence.'],
  ])('%#', (schema, value, sentence) => expect(said(schema, value)).toEqual([sentence]))
})
