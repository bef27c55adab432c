import { describe, expect, it } from 'vitest'
import { FeelWord } from '#contract/run'
import { wordRules } from '#core/causes/words'
import { wordsFor } from './wordsFor.ts'

describe('words of feel by what people type', () => {
  it.each<[string, FeelWord]>([
    ['kicking', 'kicks'],
    ['bucked me', 'kicks'],
    ['diving under braking', 'dives'],
    ['fork dives', 'dives'],
    ['bouncing', 'pogo'],
    ['washes out', 'washes-out'],
    ['front is washing out', 'washes-out'],
    ['understeers', 'washes-out'],
    ['bottoming out', 'bottoms'],
    ['bottomed', 'bottoms'],
    ['not using full travel', 'unused-travel'],
    ['wallowing', 'wallows'],
    ['squatting', 'blows-through'],
    ['harsh on roots', 'harsh-everywhere'],
    ['my hands hurt', 'harsh-everywhere'],
    ['chattering', 'harsh-everywhere'],
    ['over the bars', 'nose-heavy'],
    ['pedal strike', 'pedals-strike'],
    ['bobbing a lot', 'pedal-bob'],
    ['no pop', 'dead'],
    ['twitchy at speed', 'nervous'],
    ['fades when hot', 'soft-when-hot'],
  ])('%s may be %s', (typed, word) => {
    expect(wordsFor(typed)).toContain(word)
  })
  it('a line is narrowed by what it says: what has half of it is not offered beside what has all', () => {
    expect(wordsFor('harsh on edges')).not.toContain('harsh-everywhere')
    expect(wordsFor('pedal strikes')).toEqual(['pedals-strike'])
  })
  it('each is found by its own name; what means none finds none', () => {
    for (const w of FeelWord.options) expect(wordsFor(wordRules[w].label), w).toContain(w)
    for (const typed of ['zzzz', 'the of a', 'derailleur']) expect(wordsFor(typed), typed).toEqual([])
  })
})
