import MiniSearch from 'minisearch'

/** Something that can be looked up: a rider, a bike, a day, a word of the handbook, a command. */
export interface Entry {
  id: string
  kind: 'Command' | 'Rider' | 'Bike' | 'Trail' | 'Setup' | 'Day' | 'Handbook'
  title: string
  detail: string
  /** Other words it answers to. */
  also?: string
}

/** So many at once. */
export const mostShown = 12
const isNamed = (e: Entry, question: string) => e.title.toLowerCase() === question.trim().toLowerCase()

/**
 * Finds entries by the beginnings of words, every word of the question somewhere in the entry; a letter wrong in a longer
 * word is forgiven. An empty question finds what is at hand: commands first.
 */
export function lookup(entries: readonly Entry[]): (question: string) => Entry[] {
  const index = new MiniSearch<Entry>({
    fields: ['title', 'also', 'detail', 'kind'],
    searchOptions: {
      combineWith: 'AND',
      prefix: true,
      fuzzy: (term) => (term.length > 4 ? 0.2 : false),
      boost: { title: 3, also: 2 },
    },
    // "7:45", "150" and "Ilka’s" are words, too.
    tokenize: (text) => text.toLowerCase().split(/[\s,.;·()’'"]+/),
  })
  index.addAll(entries)
  const byId = new Map(entries.map((e) => [e.id, e]))
  return (question) =>
    question.trim() === ''
      ? entries.slice(0, mostShown)
      : index
          .search(question)
          .map((hit) => byId.get(String(hit.id))!)
          // A whole name is meant before any name that only holds it.
          .sort((a, b) => Number(isNamed(b, question)) - Number(isNamed(a, question)))
          .slice(0, mostShown)
}
