import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import type { PadReport } from '#contract/pad'
import type { Feel, Run } from '#contract/run'
import { runBefore } from '../setup/runBefore.ts'
import { joinedFeel } from './padFeel.ts'

const id = (n: number) => `00000000-0000-7000-8000-${String(n).padStart(12, '0')}`
let next = 1000
const newId = () => id(next++)

const words = ['kicks', 'dives', 'good', 'bottoms'] as const
const anyReport: fc.Arbitrary<PadReport> = fc.record({
  id: fc.constant(id(1)),
  at: fc.constant('2031-05-02T10:00:00.000Z'),
  runId: fc.constant(id(2)),
  against: fc.constantFrom(null, -2, -1, 0, 1, 2),
  sectionIds: fc.subarray([id(11), id(12), id(13)]),
  words: fc.uniqueArray(
    fc.record({
      word: fc.constantFrom(...words),
      end: fc.constantFrom('front' as const, 'rear' as const, 'both' as const),
      strength: fc.constantFrom(2 as const, 3 as const),
    }),
    { selector: (w) => `${w.word} ${w.end}`, maxLength: 6 },
  ),
  stopped: fc.constantFrom(null, 'crashed' as const, 'stopped' as const),
  text: fc.constantFrom('', 'left foot off', 'too much wind'),
  voiceId: fc.constant(null),
})
const anyHeld: fc.Arbitrary<Feel | null> = fc.option(
  fc.record({
    runId: fc.constant(id(2)),
    version: fc.constant(3),
    rating: fc.constantFrom(null, 4, 6.5),
    marks: fc
      .uniqueArray(
        fc.record({
          word: fc.constantFrom(...words),
          end: fc.constantFrom('front' as const, 'rear' as const),
          sectionId: fc.constantFrom(null, id(11)),
          strength: fc.constantFrom(1 as const, 3 as const),
        }),
        { selector: (m) => `${m.word} ${m.end} ${m.sectionId}`, maxLength: 4 },
      )
      .map((list) => list.map((m) => ({ ...m, id: newId() }))),
    verdicts: fc.constantFrom(
      [],
      [{ againstRunId: id(5), value: 1 as const }],
      [{ againstRunId: id(6), value: -1 as const }],
    ),
    answers: fc.constant([]),
    note: fc.constantFrom('', 'as the mechanic wrote it'),
  }),
)

describe('what a phone said, laid into what is known of a run', () => {
  it('takes nothing of the tent’s away: every mark, the rating, the note and other verdicts stand as they were', () => {
    fc.assert(
      fc.property(anyHeld, anyReport, fc.constantFrom(null, id(5)), (held, report, against) => {
        const joined = joinedFeel(held, report, id(2), against, newId)
        if ('differs' in joined) {
          // Only where somebody said better and somebody worse, of the same two runs.
          const theirs = held!.verdicts.find((v) => v.againstRunId === against)!.value
          expect(Math.sign(theirs)).not.toBe(Math.sign(report.against!))
          return
        }
        const { feel } = joined
        expect(feel.rating).toBe(held?.rating ?? null)
        expect(feel.marks).toEqual(expect.arrayContaining(held?.marks ?? []))
        expect(feel.note.startsWith(held?.note ?? '')).toBe(true)
        expect(feel.verdicts).toEqual(expect.arrayContaining(held?.verdicts ?? []))
        // And everything that was said is there, once.
        const keys = feel.marks.map((m) => `${m.word} ${m.end} ${m.sectionId}`)
        expect(new Set(keys).size).toBe(keys.length)
        for (const w of report.words)
          for (const place of report.sectionIds.length ? report.sectionIds : [null])
            expect(keys).toContain(`${w.word} ${w.end} ${place}`)
      }),
      { numRuns: 400 },
    )
  })
  it('laid in twice is laid in once', () => {
    fc.assert(
      fc.property(anyHeld, anyReport, (held, report) => {
        const once = joinedFeel(held, report, id(2), id(5), newId, true)
        if ('differs' in once) throw new Error('a person has decided')
        const twice = joinedFeel(once.feel, report, id(2), id(5), newId, true)
        expect(twice).toEqual({ feel: once.feel })
      }),
      { numRuns: 400 },
    )
  })
  it('a comparison without a run before it says nothing, and is not invented', () => {
    const report = { ...fc.sample(anyReport, 1)[0], against: -2 as const, words: [] }
    const joined = joinedFeel(null, report, id(2), null, newId)
    expect('feel' in joined && joined.feel.verdicts).toEqual([])
    expect('feel' in joined && joined.feel.rating).toBeNull()
  })
  it('a person who looked at both lets the phone’s verdict take the place of the other, and no other verdict', () => {
    const held: Feel = {
      runId: id(2),
      version: 1,
      rating: 8,
      marks: [],
      verdicts: [
        { againstRunId: id(5), value: 2 },
        { againstRunId: id(6), value: 1 },
      ],
      answers: [],
      note: '',
    }
    const report = { ...fc.sample(anyReport, 1)[0], against: -1 as const }
    expect(joinedFeel(held, report, id(2), id(5), newId)).toEqual({ differs: { held: 2, said: -1 } })
    const joined = joinedFeel(held, report, id(2), id(5), newId, true)
    expect('feel' in joined && joined.feel.verdicts).toEqual([
      { againstRunId: id(6), value: 1 },
      { againstRunId: id(5), value: -1 },
    ])
  })
})

describe('the run before', () => {
  const run = (n: number, kind: Run['kind']) => ({ id: id(n), kind }) as Run
  it('is the last that counts; a void run and a warm-up are no measure', () => {
    const runs = [run(1, 'warm-up'), run(2, 'counted'), run(3, 'void'), run(4, 'counted')]
    expect(runBefore(runs, id(4))?.id).toBe(id(2))
    expect(runBefore(runs, id(2))).toBeNull()
    expect(runBefore(runs, id(9))).toBeNull()
  })
})
