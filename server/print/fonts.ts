import { createRequire } from 'node:module'
import { dirname, join } from 'node:path'
import type { ContentText } from 'pdfmake/interfaces'

const files = join(
  dirname(createRequire(import.meta.url).resolve('@fontsource/atkinson-hyperlegible-next/package.json')),
  'files',
)
const face = (subset: string, weight: number) =>
  join(files, `atkinson-hyperlegible-next-${subset}-${weight}-normal.woff`)

/** Fonts that ship with the application, in the two subsets their package comes in. */
export const fonts = {
  Latin: { normal: face('latin', 400), bold: face('latin', 700) },
  LatinExt: { normal: face('latin-ext', 400), bold: face('latin-ext', 700) },
}

/** A person's words in the fonts that have their letters: "Łukasz" needs both. */
export function lettered(text: string): ContentText {
  const pieces = text.match(
    /[\u0000-\u00ff\u2013\u2014\u2018-\u201d\u2022\u2026\u2192]+|[^\u0000-\u00ff\u2013\u2014\u2018-\u201d\u2022\u2026\u2192]+/g,
  )
  return {
    text: (pieces ?? ['']).map((piece) => ({
      text: piece,
      font: /[\u0100-\u024f]/.test(piece) ? 'LatinExt' : 'Latin',
    })),
  }
}
