/** What holds a cell together that contains the separator. */
export type Quote = '"' | "'" | 'none'

/** Cells of a line; a separator within quotes separates nothing, two quotes within quotes are one. Quotes are kept. */
export function splitCells(text: string, delimiter: string, quote: Quote = '"'): string[] {
  if (quote === 'none' || !text.includes(quote))
    return delimiter === ' ' ? text.trim().split(/ +/) : text.split(delimiter)
  const cells: string[] = []
  let i = 0
  const line = delimiter === ' ' ? text.trim() : text
  for (;;) {
    let end = i
    while (end < line.length && line[end] === ' ' && delimiter !== ' ') end++
    if (line[end] === quote) {
      end = line.indexOf(quote, end + 1)
      while (end >= 0 && line[end + 1] === quote) end = line.indexOf(quote, end + 2)
      // Never closed: it was a letter like any other.
      if (end < 0) end = i
    }
    end = line.indexOf(delimiter, Math.max(i, end))
    if (end < 0) {
      cells.push(line.slice(i))
      return cells
    }
    cells.push(line.slice(i, end))
    i = end + 1
    if (delimiter === ' ') while (line[i] === ' ') i++
  }
}
