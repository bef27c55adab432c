import { mostMarkLetters } from '#contract/letterhead'

/** A mark on paper is a centimetre high; more points than these print no finer. */
const most = { width: 480, height: 160 }

/**
 * A picture as a PNG small enough for the top of a card, as a data address. Drawn anew, so that nothing but its points
 * goes along.
 *
 * @throws Error with one sentence when the file is no picture
 */
export async function markPicture(file: Blob): Promise<string> {
  const picture = await createImageBitmap(file).catch(() => {
    throw new Error('That file is no picture this browser can read; take a PNG or JPEG.')
  })
  const canvas = document.createElement('canvas')
  let scale = Math.min(1, most.width / picture.width, most.height / picture.height)
  // A photograph of a sign is larger in letters than a drawn mark: smaller until it fits.
  for (; ; scale *= 0.75) {
    canvas.width = Math.max(1, Math.round(picture.width * scale))
    canvas.height = Math.max(1, Math.round(picture.height * scale))
    canvas.getContext('2d')?.drawImage(picture, 0, 0, canvas.width, canvas.height)
    const mark = canvas.toDataURL('image/png')
    if (mark.length > mostMarkLetters) continue
    picture.close()
    return mark
  }
}
