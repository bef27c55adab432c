import type pdfmake from 'pdfmake'
import type { TDocumentDefinitions } from 'pdfmake/interfaces'
import { fonts } from './fonts.ts'

let ready: Promise<typeof pdfmake> | null = null
/** Read when the first page is printed: a third of the time to start went there. */
function printer(): Promise<typeof pdfmake> {
  return (ready ??= import('pdfmake').then(({ default: made }) => {
    made.setFonts(fonts)
    // Nothing is fetched or read but our own fonts.
    made.setUrlAccessPolicy(() => false)
    const ours = new Set(Object.values(fonts).flatMap((f) => Object.values(f)))
    made.setLocalAccessPolicy((path) => ours.has(path))
    return made
  }))
}

/** A PDF document as bytes. */
export async function render(document: TDocumentDefinitions): Promise<Uint8Array<ArrayBuffer>> {
  const buffer = await (await printer()).createPdf(document).getBuffer()
  return Uint8Array.from(buffer)
}

/** Whether a picture, as a data address, can be put on paper. */
export async function canBePrinted(picture: string): Promise<boolean> {
  try {
    await render({ content: [{ image: picture, width: 20 }], defaultStyle: { font: 'Latin' } })
    return true
  } catch {
    return false
  }
}

const pagesOf = (bytes: Uint8Array) =>
  Buffer.from(bytes)
    .toString('latin1')
    .match(/\/Type \/Page\b/g)?.length ?? 0
const scales = [1, 0.92, 0.84, 0.77, 0.7, 0.64, 0.58]

/** The same on one page: set smaller until it fits, down to what can just be read. */
export async function renderOnePage(
  document: (scale: number) => TDocumentDefinitions,
): Promise<Uint8Array<ArrayBuffer>> {
  let bytes = await render(document(scales[0]))
  for (const scale of scales.slice(1)) {
    if (pagesOf(bytes) <= 1) break
    bytes = await render(document(scale))
  }
  return bytes
}

/** PDF points in a millimetre. */
export const pointsPerMm = 72 / 25.4
