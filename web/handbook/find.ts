import MiniSearch from 'minisearch'
import { handbookPages, pageAt, type HandbookPage } from './index.ts'

const index = new MiniSearch<HandbookPage & { id: string }>({
  fields: ['title', 'also', 'text'],
  searchOptions: {
    combineWith: 'AND',
    prefix: true,
    fuzzy: (term) => (term.length > 3 ? 0.25 : false),
    boost: { title: 4, also: 3 },
  },
})
index.addAll(handbookPages.map((p) => ({ ...p, id: `${p.chapter}/${p.key}` })))

const isNamed = (p: HandbookPage, typed: string) => p.title.toLowerCase() === typed

/** Pages by what is typed, best first: beginnings of words, a slip in longer ones forgiven, and what riders say instead. */
export function findPages(typed: string): HandbookPage[] {
  const wanted = typed.trim().toLowerCase()
  if (wanted === '') return []
  return index
    .search(wanted)
    .map((hit) => pageAt(String(hit.id))!)
    .sort((a, b) => Number(isNamed(b, wanted)) - Number(isNamed(a, wanted)))
}
