import { describe, expect, it } from 'vitest'
import { PadReport, type PadView } from '#contract/pad'
import { FeelWord } from '#contract/run'
import {
  asKept,
  asReport,
  canCompare,
  hasSaid,
  isUntouched,
  likelyRun,
  nothingSaid,
  runName,
  tappedAgainst,
  takenUp,
  tappedWord,
  withWaiting,
  wordKeys,
} from './said.ts'
import { tokenIn } from './token.ts'

const id = (n: number) => `00000000-0000-7000-8000-${String(n).padStart(12, '0')}`
const view = (said: boolean[]): PadView => ({
  dayId: id(1),
  riderName: 'Wren',
  tentName: 'Practice',
  sections: [],
  runs: said.map((s, i) => ({
    id: id(10 + i),
    number: i + 1,
    startedAt: '2031-05-02T10:00:00.000Z',
    said: s,
  })),
  expiresAt: '2031-05-06T10:00:00.000Z',
})

describe('which run is meant', () => {
  it('is the last, unless it was spoken of: then it is one that the tent has not logged', () => {
    expect(likelyRun(view([true, false]))).toBe(id(11))
    expect(likelyRun(view([false, true]))).toBeNull()
    expect(likelyRun(view([]))).toBeNull()
    expect(runName(view([false, true]), null)).toBe('The run after 2')
    expect(runName(view([]), null)).toBe('Your first run')
  })
  it('is compared only where there was one before', () => {
    expect(canCompare(view([false]), id(10))).toBe(false)
    expect(canCompare(view([true, false]), id(11))).toBe(true)
    expect(canCompare(view([true]), null)).toBe(true)
    expect(canCompare(view([]), null)).toBe(false)
  })
})

describe('taps', () => {
  it('say it, say it strongly, and take it back', () => {
    expect(
      [1, 2, 3].reduce<(number | null)[]>((all) => [...all, tappedAgainst(all.at(-1) as null, -1)], [null]),
    ).toEqual([null, -1, -2, null])
    expect(tappedAgainst(-2, 1)).toBe(1)
    expect(tappedAgainst(1, 0)).toBe(0)
    expect(tappedAgainst(0, 0)).toBeNull()
    let words = tappedWord(new Map(), 'kicks')
    expect(words.get('kicks')).toBe(1)
    words = tappedWord(words, 'kicks')
    expect(words.get('kicks')).toBe(2)
    expect(tappedWord(words, 'kicks').has('kicks')).toBe(false)
  })
  it('nothing tapped is nothing said: no rating, no middle, no word stands in', () => {
    const nothing = nothingSaid(view([false]))
    expect(hasSaid(nothing, false)).toBe(false)
    expect(PadReport.safeParse(asReport(nothing, id(5), '2031-05-02T10:00:00.000Z', null)).success).toBe(
      false,
    )
    expect(hasSaid({ ...nothing, end: 'front', sectionIds: [id(3)] }, false)).toBe(false)
  })
})

describe('what is sent', () => {
  it('fits the contract, with the end that was named, else where the word usually comes from', () => {
    const said = {
      ...nothingSaid(view([false])),
      words: new Map([
        ['kicks', 2],
        ['harsh-gets-worse', 1],
      ] as const),
    }
    const report = PadReport.parse(asReport(said, id(5), '2031-05-02T10:00:00.000Z', null))
    expect(report.words).toEqual([
      { word: 'kicks', end: 'rear', strength: 3 },
      { word: 'harsh-gets-worse', end: 'both', strength: 2 },
    ])
    const front = asReport({ ...said, end: 'front' }, id(5), '2031-05-02T10:00:00.000Z', null)
    expect(front.words.map((w) => w.end)).toEqual(['front', 'front'])
  })
})

describe('words as keys', () => {
  it('are all of them in the end, each once; praise comes first after a better run', () => {
    for (const better of [true, false])
      expect([...wordKeys(better, true)].sort()).toEqual([...FeelWord.options].sort())
    expect(wordKeys(true, false)[0]).toBe('good')
    expect(wordKeys(false, false)[0]).not.toBe('good')
    expect(wordKeys(false, false).length).toBeLessThanOrEqual(12)
  })
})

describe('the token', () => {
  it('is what stands after /pad/, and nothing else is one', () => {
    expect(tokenIn('/pad/abc-DEF_123')).toBe('abc-DEF_123')
    expect(tokenIn('/pad/abc/')).toBe('abc')
    for (const path of ['/pad/', '/pad/a/b', '/pads/abc', '/pad/<script>']) expect(tokenIn(path)).toBe('')
  })
})

describe('what was begun', () => {
  const begun = {
    ...nothingSaid(view([true, false])),
    end: 'front' as const,
    words: new Map([['dives', 2]]) as never,
  }
  const asStored = (s: typeof begun) => JSON.parse(JSON.stringify(asKept(s))) as ReturnType<typeof asKept>
  it('is untouched only while nothing was tapped: a place or an end is not nothing, though it alone is not sent', () => {
    const v = view([true, false])
    const fresh = nothingSaid(v)
    expect(isUntouched(fresh, v)).toBe(true)
    for (const touched of [
      { ...fresh, end: 'rear' as const },
      { ...fresh, sectionIds: [id(50)] },
      { ...fresh, runId: id(10) },
      { ...fresh, text: 'x' },
    ])
      expect(isUntouched(touched, v)).toBe(false)
    expect(hasSaid({ ...fresh, end: 'rear' }, false)).toBe(false)
  })
  it('is taken up as it was, while its run is there and nobody has spoken of it', () => {
    expect(takenUp(asStored(begun), view([true, false]))).toEqual(begun)
    expect(takenUp(asStored(begun), view([true, false, false]))).toEqual(begun)
    expect(takenUp(asStored(begun), view([true, true]))).toBeNull()
    expect(takenUp(asStored(begun), view([true]))).toBeNull()
    expect(takenUp({ ...asStored(begun), sectionIds: [id(50)] }, view([true, false]))).toBeNull()
    expect(takenUp(null, view([]))).toBeNull()
  })
  it('and still on its way, its run is not asked for again', () => {
    const sent = asReport(begun, id(60), '2031-05-02T10:10:00.000Z', null)
    expect(likelyRun(withWaiting(view([true, false]), [sent]))).toBeNull()
    expect(likelyRun(withWaiting(view([true, false]), [{ ...sent, runId: null }]))).toBe(id(11))
  })
})
