import { expose } from 'comlink'
import { inflateSync } from 'fflate'
import decodeQR from 'qr/decode.js'
import type { SetupCard } from '#contract/card'
import { dictionary } from '#core/card/code'
import { InputError } from '#core/errors'
import { readCardJson, readCode } from '../support/readCard.ts'

const known = { dictionary: new TextEncoder().encode(dictionary) }
function unpack(packed: string): string {
  const binary = atob(packed.replaceAll('-', '+').replaceAll('_', '/'))
  return new TextDecoder().decode(
    inflateSync(
      Uint8Array.from(binary, (c) => c.charCodeAt(0)),
      known,
    ),
  )
}

/** A photograph may be larger than its code needs, or hold it small: longer sides that are tried, px. */
const sidesTried = [1000, 1800, 600]

/** The text of the code in a picture. @throws InputError 'card.no-code' */
async function codeIn(picture: Blob): Promise<string> {
  const image = await createImageBitmap(picture).catch(() => {
    throw new InputError('card.no-code')
  })
  for (const side of sidesTried) {
    const scale = Math.min(1, side / Math.max(image.width, image.height))
    const width = Math.max(1, Math.round(image.width * scale))
    const height = Math.max(1, Math.round(image.height * scale))
    const canvas = new OffscreenCanvas(width, height)
    const context = canvas.getContext('2d', { willReadFrequently: true })!
    // A code cut out on a clear ground is read as on paper.
    context.fillStyle = '#fff'
    context.fillRect(0, 0, width, height)
    context.drawImage(image, 0, 0, width, height)
    try {
      return decodeQR({ width, height, data: context.getImageData(0, 0, width, height).data })
    } catch {
      // Tried at the next size.
    }
  }
  throw new InputError('card.no-code')
}

// A file that came by a messenger may have lost its ending: only what is a picture is looked at as one.
const isText = (file: File) =>
  !file.type.startsWith('image/') && !/\.(png|jpe?g|webp|gif|avif|heic|bmp)$/i.test(file.name)

export type CardRead = { ok: true; card: SetupCard } | { ok: false; message: string }

/** Reads a card from its file or from a picture of its code, off the page's thread. */
const api = {
  read: async (file: File): Promise<CardRead> => {
    try {
      const card = isText(file) ? fromText(await file.text()) : readCode(await codeIn(file), { unpack })
      return { ok: true, card }
    } catch (e) {
      return { ok: false, message: e instanceof InputError ? e.message : String(e) }
    }
  },
  /** What a file says, or the code in its picture; null: there is none. */
  text: async (file: File): Promise<string | null> =>
    isText(file) ? file.text() : codeIn(file).catch(() => null),
}
/** A file beside the card, or the text that a phone's camera found in its code. */
const fromText = (text: string) =>
  text.trimStart().startsWith('{') ? readCardJson(text) : readCode(text, { unpack })

export type CardWorker = typeof api
expose(api)
