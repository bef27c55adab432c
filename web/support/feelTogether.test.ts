import { describe, expect, it } from 'vitest'
import type { Feel, Mark } from '#contract/run'
import { seededRandom } from '#core/numeric/random'
import { feelTogether } from './feelTogether.ts'

const run = '00000000-0000-7000-8000-000000000001'
const other = '00000000-0000-7000-8000-000000000002'
let marks = 0
const mark = (word: Mark['word'], end: Mark['end'], strength: Mark['strength'] = 2): Mark => ({
  id: `00000000-0000-7000-8000-${String(++marks).padStart(12, '0')}`,
  word,
  sectionId: null,
  end,
  strength,
})
const feel = (f: Partial<Feel>): Feel => ({
  runId: run,
  version: 1,
  rating: null,
  marks: [],
  verdicts: [],
  answers: [],
  note: '',
  ...f,
})
const saved = (f: Partial<Feel>) => feel({ version: 2, ...f })
const said = (f: Feel) => f.marks.map((m) => `${m.word} ${m.end} ${m.strength}`).sort()

describe('how a run felt, written on two devices', () => {
  it('a rating here, a word and a note there go together', () => {
    const { feel: both, differences } = feelTogether(
      feel({}),
      feel({ rating: 6 }),
      saved({ marks: [mark('kicks', 'rear')], note: 'at the wall' }),
    )
    expect(differences).toEqual([])
    expect(both).toMatchObject({ version: 2, rating: 6, note: 'at the wall' })
    expect(said(both)).toEqual(['kicks rear 2'])
  })
  it('two words of two people are both said; one taken back here stays taken back', () => {
    const dives = mark('dives', 'front')
    const kicks = mark('kicks', 'rear')
    const { feel: both, differences } = feelTogether(
      feel({ marks: [dives] }),
      feel({ marks: [kicks] }),
      saved({ marks: [dives, mark('washes-out', 'front')] }),
    )
    expect([said(both), differences]).toEqual([['kicks rear 2', 'washes-out front 2'], []])
  })
  it.each<[string, Partial<Feel>, Partial<Feel>, string]>([
    ['two ratings', { rating: 6 }, { rating: 8 }, 'rating: 6 here, 8 there'],
    ['two notes', { note: 'fast' }, { note: 'slow' }, 'note: “fast” here, “slow” there'],
    [
      'one word of two ends',
      { marks: [mark('kicks', 'rear')] },
      { marks: [mark('kicks', 'both')] },
      '“kicks”: rear, clearly here, both ends, clearly there',
    ],
    [
      'one word of two strengths',
      { marks: [mark('kicks', 'rear', 1)] },
      { marks: [mark('kicks', 'rear', 3)] },
      '“kicks”: rear, a little here, rear, strongly there',
    ],
    [
      'two verdicts against one run',
      { verdicts: [{ againstRunId: other, value: 1 }] },
      { verdicts: [{ againstRunId: other, value: -1 }] },
      'against another run: better by 1 here, worse by 1 there',
    ],
    [
      'two answers to one question',
      { answers: [{ question: 'kicks-when', end: 'rear', answer: 'single-hits' }] },
      { answers: [{ question: 'kicks-when', end: 'rear', answer: 'along-a-row' }] },
      'When does it kick?: On single hits here, Worse along a row of hits there',
    ],
  ])('%s differ, mine would hold, and the words say so', (_, mine, theirs, words) => {
    const { feel: both, differences } = feelTogether(feel({}), feel(mine), saved(theirs))
    expect(differences).toEqual([words])
    expect(both).toMatchObject(mine)
  })
  it('taken back here and made stronger there is a difference', () => {
    const was = mark('dives', 'front', 1)
    const { feel: both, differences } = feelTogether(
      feel({ marks: [was] }),
      feel({}),
      saved({ marks: [{ ...was, strength: 3 }] }),
    )
    expect([both.marks, differences]).toEqual([[], ['“dives”: not said here, front, strongly there']])
  })
  it('where nobody knows what the writing began from, all that is not alike differs', () => {
    const { differences } = feelTogether(null, feel({ rating: 6, note: 'x' }), saved({ note: 'x' }))
    expect(differences).toEqual(['rating: 6 here, none there'])
  })
  it('the same said twice is said once, by whichever device', () => {
    const theirs = saved({ rating: 7, marks: [mark('pogo', 'rear')] })
    const { feel: both, differences } = feelTogether(
      feel({}),
      feel({ rating: 7, marks: [mark('pogo', 'rear')] }),
      theirs,
    )
    expect([both, differences]).toEqual([theirs, []])
  })
  it('one side that changed nothing leaves the other as it is, whatever that is', () => {
    const random = seededRandom(5)
    const words = ['kicks', 'dives', 'dead', 'good'] as const
    const any = (version: number) =>
      feel({
        version,
        rating: random() < 0.3 ? null : 1 + Math.floor(random() * 19) / 2,
        note: random() < 0.5 ? '' : String(random()),
        marks: words.filter(() => random() < 0.5).map((w) => mark(w, random() < 0.5 ? 'rear' : 'front')),
      })
    for (let n = 0; n < 200; n++) {
      const [opened, changed] = [any(1), any(2)]
      const theirs = feelTogether(opened, opened, changed)
      expect([theirs.differences, said(theirs.feel), theirs.feel.rating]).toEqual([
        [],
        said(changed),
        changed.rating,
      ])
      const mine = feelTogether(opened, changed, { ...opened, version: 2 })
      expect([mine.differences, said(mine.feel), mine.feel.rating]).toEqual([
        [],
        said(changed),
        changed.rating,
      ])
    }
  })
})
