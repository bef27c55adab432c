import { describe, expect, it } from 'vitest'
import { roleWords } from '#core/adjusters/words'
import { evidenceCounts } from '#core/telemetry/evidence'
import { questionRules } from '#core/causes/questions'
import { isComplaint, wordRules } from '#core/causes/words'
import type { FeelWord } from '#contract/run'
import { analysisWith } from '#core/test/dayBuilder'
import { endFigures } from '../support/compareMetrics.ts'
import { carePages } from './care.ts'
import { dialPages } from './dials.ts'
import { findPages } from './find.ts'
import { glossary } from './glossary.ts'
import { fromHash, handbookPages, pageAt } from './index.ts'
import { chapters, keyOf } from './page.ts'
import { remedies } from './remedies.ts'
import { worksPages } from './works.ts'

const addresses = handbookPages.map((p) => `${p.chapter}/${p.key}`)
const top = (typed: string, among = 3) =>
  findPages(typed)
    .slice(0, among)
    .map((p) => `${p.chapter}/${p.key}`)

describe('the pages of the handbook', () => {
  it('have addresses of their own, every chapter at least one', () => {
    expect(new Set(addresses).size).toBe(addresses.length)
    for (const chapter of Object.keys(chapters))
      expect(
        handbookPages.some((p) => p.chapter === chapter),
        chapter,
      ).toBe(true)
    for (const p of handbookPages) expect(p.key, p.title).toMatch(/^[a-z0-9-]+$/)
  })
  it('lead to pages that are there', () => {
    const links = [
      ...[...dialPages, ...worksPages, ...carePages].flatMap((p) => p.see ?? []),
      ...glossary.flatMap((g) => g.see ?? []),
    ]
    expect(links.filter((l) => !pageAt(l))).toEqual([])
  })
  it('hold ninety words or more, none twice, each in a sentence', () => {
    expect(glossary.length).toBeGreaterThanOrEqual(90)
    expect(new Set(glossary.map((g) => g.name.toLowerCase())).size).toBe(glossary.length)
    for (const g of glossary) expect(g.text, g.name).toMatch(/\.$/)
  })
  it('say of rebound slower or faster and of compression firmer or softer, never a bare more or less', () => {
    const all = [
      ...[...dialPages, ...worksPages, ...carePages].flatMap((p) => [
        ...p.text,
        ...(p.lists ?? []).flatMap((l) => l.items),
      ]),
      ...glossary.map((g) => g.text),
      ...Object.values(remedies),
    ]
    expect(all.filter((t) => /\b(more|less|increase|decrease|add) (rebound|compression)\b/i.test(t))).toEqual(
      [],
    )
  })
  it('are where old addresses lead', () => {
    for (const hash of [
      '#word-kicks',
      '#dial-rebound',
      '#term-sag',
      '#school-posture',
      '#questions',
      '#cautions',
    ])
      expect(pageAt(fromHash(hash)!), hash).toBeDefined()
    expect(fromHash('#letter-A')).toBeNull()
  })
})

describe('what a screen calls by a name has a page', () => {
  it('each dial and part', () => {
    for (const name of Object.values(roleWords).filter((n) => n !== 'Custom'))
      expect(top(name).length, name).toBeGreaterThan(0)
    for (const short of ['LSC', 'HSC', 'LSR', 'HSR'])
      expect(top(short, 1)[0], short).toBe(`words/${short.toLowerCase()}`)
  })
  it('each word of how it feels, by any of its names', () => {
    for (const word of (Object.keys(wordRules) as FeelWord[]).filter(isComplaint))
      for (const name of [wordRules[word].label, ...wordRules[word].aliases])
        expect(top(name, 6), `${name} for ${word}`).toContain(`feels/${word}`)
  })
  it('each figure of a sensor and each kind of evidence', () => {
    const first = (name: string) => name.replace(/,.*$/, '').replace(/ for each g.*$/, '')
    const evidence = evidenceCounts(analysisWith({}, {}).whole).map((e) =>
      e.what.replace('seconds of small ', ''),
    )
    const names = [...endFigures.map((f) => first(f.name)), ...evidence]
    const missing = names.filter((n) => n.split(' ').every((w) => w.length < 4 || top(w).length === 0))
    expect(missing).toEqual([])
  })
  it('the words people look for, a slip forgiven', () => {
    for (const [typed, wanted] of [
      ['platform', 'words/platform'],
      ['wiper', 'words/wiper'],
      ['kit', 'words/kit'],
      ['probe', 'words/probe'],
      ['severity', 'words/severity'],
      ['mid-stroke', 'words/mid-stroke'],
      ['ramp', 'words/ramp'],
      ['pakcing', 'works/packing'],
      ['reboud', 'dials/rebound'],
      ['token', 'words/spacers'],
      ['lockout', 'words/lockout'],
      ['altitude', 'words/altitude'],
      ['service', 'care/service'],
    ] as const)
      expect(top(typed, 6), typed).toContain(wanted)
    expect(findPages('zzzzq')).toEqual([])
    expect(findPages('  ')).toEqual([])
  })
  it('each question that is asked after a word stands on its page', () => {
    for (const rule of Object.values(questionRules))
      for (const word of rule.words as FeelWord[]) expect(pageAt(`feels/${word}`), word).toBeDefined()
  })
  it('keys are what addresses are made of', () => {
    expect(keyOf('Low-speed compression')).toBe('low-speed-compression')
    expect(keyOf('Makers’ setting')).toBe('makers-setting')
    expect(keyOf('G-out')).toBe('g-out')
  })
})
