import { apiBase, ApiError, problemOf } from './client.ts'
import type { LetterProgress } from './outbox.ts'

/** Share of the whole work that sending the bytes is shown as; reading them is told live by the server. */
export const sendingShare = 0.3

/**
 * Sends the bytes of a file. XMLHttpRequest, since fetch tells nothing about bytes that left.
 * @param to address below that of the API
 * @param share of the whole work that sending is shown as
 * @throws ApiError
 */
export function sendBytes(
  to: string,
  file: Blob,
  onProgress: (p: LetterProgress) => void,
  signal: AbortSignal,
  share = sendingShare,
): Promise<void> {
  return new Promise((resolve, reject) => {
    const request = new XMLHttpRequest()
    request.open('PUT', `${apiBase}/${to}`)
    request.setRequestHeader('Content-Type', 'application/octet-stream')
    request.upload.onprogress = (e) =>
      e.lengthComputable && onProgress({ share: share * (e.loaded / e.total), doing: 'Sending' })
    request.onload = async () => {
      if (request.status !== 200) return reject(await problemOf(request.status, request.responseText))
      resolve()
    }
    request.onerror = () => reject(new ApiError('The server cannot be reached just now.', null))
    request.onabort = () => reject(new ApiError('Cancelled. Nothing was imported.', null))
    signal.addEventListener('abort', () => request.abort(), { once: true })
    request.send(file)
  })
}
