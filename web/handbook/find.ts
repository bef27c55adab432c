import MiniSearch from 'minisearch'
import { plainTerm, stemTerm } from '../support/terms.ts'
import { handbookPages, pageAt, type HandbookPage } from './index.ts'

const index = new MiniSearch<HandbookPage & { id: string }>({
  fields: ['title', 'also', 'text', 'more'],
  // As it is written, too: a slip in a word may hide where its ending begins.
  processTerm: (word) => {
    const terms = [plainTerm(word), stemTerm(word)].filter((t) => t !== null)
    return terms.length > 0 && [...new Set(terms)]
  },
  searchOptions: {
    processTerm: stemTerm,
    prefix: (term) => term.length > 2,
    fuzzy: (term) => (term.length > 3 ? 0.25 : false),
    boost: { title: 4, also: 3, more: 0.5 },
    weights: { fuzzy: 0.3, prefix: 0.6 },
  },
})
index.addAll(handbookPages.map((p) => ({ ...p, id: `${p.chapter}/${p.key}` })))

/** A page is asked for by its name, whatever small words stand around it. */
const isNamed = (p: HandbookPage, typed: string) =>
  [typed, typed.split(/\s+/).filter(plainTerm).join(' ')].includes(p.title.toLowerCase())
/** A page that holds every word is worth so much; one with a part of them is worth saying from this share of the best on. */
const wholeBonus = 1.5
const nearBest = 0.35

/**
 * Pages by what is typed, best first: beginnings of words, other forms of them, a slip in longer ones forgiven, and what riders
 * say instead. Pages that hold every word count more; others are said where they hold the most telling ones.
 */
export function findPages(typed: string): HandbookPage[] {
  const wanted = typed.trim().toLowerCase()
  if (wanted === '') return []
  const whole = new Set(index.search(wanted, { combineWith: 'AND' }).map((hit) => hit.id as string))
  const scored = index
    .search(wanted)
    .map(({ id, score }) => ({ id: id as string, score: score * (whole.has(id as string) ? wholeBonus : 1) }))
    .sort((a, b) => b.score - a.score)
  const best = scored.filter(({ id, score }) => whole.has(id) || score >= nearBest * scored[0].score)
  return (best.length > 0 ? best : index.search(wanted, { processTerm: plainTerm }))
    .map((hit) => pageAt(String(hit.id))!)
    .sort((a, b) => Number(isNamed(b, wanted)) - Number(isNamed(a, wanted)))
}
