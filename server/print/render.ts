import pdfmake from 'pdfmake'
import type { TDocumentDefinitions } from 'pdfmake/interfaces'
import { fonts } from './fonts.ts'

pdfmake.setFonts(fonts)
// Nothing is fetched or read but our own fonts.
pdfmake.setUrlAccessPolicy(() => false)
const ours = new Set(Object.values(fonts).flatMap((f) => Object.values(f)))
pdfmake.setLocalAccessPolicy((path) => ours.has(path))

/** A PDF document as bytes. */
export async function render(document: TDocumentDefinitions): Promise<Uint8Array<ArrayBuffer>> {
  const buffer = await pdfmake.createPdf(document).getBuffer()
  return Uint8Array.from(buffer)
}

/** PDF points in a millimetre. */
export const pointsPerMm = 72 / 25.4
