import { apiBase, ApiError, problemOf } from './client.ts'
import type { LetterProgress } from './outbox.ts'

/** Share of the whole work that sending the bytes is shown as; reading them is told live by the server. */
export const sendingShare = 0.3

/**
 * Sends the bytes of a file. XMLHttpRequest, since fetch tells nothing about bytes that left.
 * @throws ApiError
 */
export function sendBytes(
  uploadId: string,
  file: Blob,
  onProgress: (p: LetterProgress) => void,
  signal: AbortSignal,
): Promise<void> {
  return new Promise((resolve, reject) => {
    const request = new XMLHttpRequest()
    request.open('PUT', `${apiBase}/uploads/${uploadId}`)
    request.setRequestHeader('Content-Type', 'application/octet-stream')
    request.upload.onprogress = (e) =>
      e.lengthComputable && onProgress({ share: sendingShare * (e.loaded / e.total), doing: 'Sending' })
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
