import type { FeelWord } from '#contract/run'
import { schools } from '#core/bench/schools'
import { isComplaint, wordRules } from '#core/causes/words'
import { carePages } from './care.ts'
import { dialPages } from './dials.ts'
import { glossary } from './glossary.ts'
import { keyOf, type Chapter, type TextPage } from './page.ts'
import { worksPages } from './works.ts'

/** A page as it is listed, found and linked. */
export interface HandbookPage {
  chapter: Chapter
  key: string
  title: string
  text: string
  also: string
  /** All else that stands on it, to be found by. */
  more: string
}

const textPage =
  (chapter: Chapter) =>
  (p: TextPage): HandbookPage => ({
    chapter,
    key: p.key,
    title: p.title,
    text: p.text[0],
    also: p.also,
    more: [...p.text.slice(1), ...(p.lists ?? []).flatMap((l) => [l.title, ...l.items])].join(' '),
  })

/** Tables that the judgement uses, printed from its own data. */
export const tables = {
  words: { title: 'Words, and what they may come from', text: 'Weights of every cause of every word.' },
  questions: {
    title: 'Questions, and what an answer says',
    text: 'What is asked, and what each answer speaks for.',
  },
  'by-hand': { title: 'One check by hand for each cause', text: 'Ten seconds, on the spot.' },
  figures: {
    title: 'Figures of a sensor, and what they speak for',
    text: 'From which value on a figure speaks for a cause.',
  },
  standing: { title: 'Bench, weather, tyres and rings', text: 'What readings and the day itself say.' },
  choice: {
    title: 'How the next change is chosen',
    text: 'From evidence to one proposal, and when it is settled.',
  },
} as const
export type TableKey = keyof typeof tables

/** What else people write of a feeling when they look for it. */
const foundBy: Partial<Record<FeelWord, string[]>> = {
  nervous: ['skittish', 'deflects', 'deflected', 'loose'],
}

/** Every page of the handbook, in the order of its list. */
export const handbookPages: readonly HandbookPage[] = [
  ...(Object.keys(wordRules) as FeelWord[]).filter(isComplaint).map((w): HandbookPage => ({
    chapter: 'feels',
    key: w,
    title: wordRules[w].label,
    text: wordRules[w].toldApartBy,
    also: [w.replaceAll('-', ' '), ...wordRules[w].aliases, ...(foundBy[w] ?? [])].join(' '),
    more: '',
  })),
  ...dialPages.map(textPage('dials')),
  ...worksPages.map(textPage('works')),
  ...schools.map((s): HandbookPage => ({
    chapter: 'differ',
    key: s.key,
    title: s.question,
    text: s.ours,
    also: s.answers.map((a) => a.name).join(' '),
    more: '',
  })),
  ...carePages.map(textPage('care')),
  ...glossary.map((g): HandbookPage => ({
    chapter: 'words',
    key: keyOf(g.name),
    title: g.name,
    text: g.text,
    also: g.also ?? '',
    more: '',
  })),
  ...(Object.keys(tables) as TableKey[]).map((key): HandbookPage => ({
    chapter: 'tables',
    key,
    ...tables[key],
    also: '',
    more: '',
  })),
  {
    chapter: 'cautions',
    key: 'all',
    title: 'Before anything is turned',
    text: 'All cautions in one place; each also stands at its step.',
    also: 'safety danger warning crash fall torque',
    more: '',
  },
]

const byAddress = new Map(handbookPages.map((p) => [`${p.chapter}/${p.key}`, p]))

/** The page at chapter/key; undefined where there is none. */
export const pageAt = (address: string): HandbookPage | undefined => byAddress.get(address)

/** The way to a page, for a link. */
export const toPage = (chapter: Chapter, page: string) => ({ name: 'handbook', params: { chapter, page } })

/** The way to a page by chapter/key. */
export function toAddress(address: string) {
  const [chapter, page] = address.split('/')
  return { name: 'handbook', params: { chapter, page } }
}

/** Where an address with a hash of the one long page of before leads now; null for any other. */
export function fromHash(hash: string): string | null {
  const [, kind, rest] = /^#(word|dial|term|school)-(.+)$/.exec(hash) ?? []
  if (kind === 'word') return `feels/${rest}`
  if (kind === 'school') return `differ/${rest}`
  if (kind === 'dial') return `dials/${rest}`
  if (kind === 'term') return `words/${rest}`
  return hash === '#questions' ? 'tables/questions' : hash === '#cautions' ? 'cautions/all' : null
}
