import { getDocument } from 'pdfjs-dist/legacy/build/pdf.mjs'

/** A page as it comes out of a printer. */
export interface PagePicture {
  width: number
  height: number
  /** RGBA. */
  data: Uint8ClampedArray
  png: () => Buffer
}
interface NodeCanvas {
  canvas: { toBuffer: (type: 'image/png') => Buffer }
  context: CanvasRenderingContext2D
}

/** Draws a PDF. @param dpi of the printer @returns its pages, with the text that stands on each */
export async function drawPdf(bytes: ArrayBuffer, dpi = 150): Promise<(PagePicture & { text: string })[]> {
  const pdf = await getDocument({ data: new Uint8Array(bytes.slice(0)), verbosity: 0 }).promise
  const factory = pdf.canvasFactory as { create: (w: number, h: number) => NodeCanvas }
  const pages = []
  for (let n = 1; n <= pdf.numPages; n++) {
    const page = await pdf.getPage(n)
    const viewport = page.getViewport({ scale: dpi / 72 })
    const width = Math.round(viewport.width)
    const height = Math.round(viewport.height)
    const { canvas, context } = factory.create(width, height)
    await page.render({ canvasContext: context, canvas: null, viewport }).promise
    const { items } = await page.getTextContent()
    pages.push({
      width,
      height,
      data: context.getImageData(0, 0, width, height).data,
      png: () => canvas.toBuffer('image/png'),
      // Pieces of a line come one by one, spaces too.
      text: items
        .map((i) => ('str' in i ? i.str : ''))
        .join(' ')
        .replaceAll(/\s+/g, ' '),
    })
  }
  await pdf.destroy()
  return pages
}
