import { Recording, type AddedFileUpload, type RecordingUpload } from '#contract/recording'
import { apiBase, ApiError, problemOf } from './client.ts'

export interface UploadProgress {
  share: number
  doing: string
}

type Progress = (p: UploadProgress) => void

/** Sends a sensor file as a new recording. */
export const uploadRecording = (
  id: string,
  meta: RecordingUpload,
  file: Blob,
  onProgress: Progress,
  signal: AbortSignal,
) => send(`${apiBase}/recordings/${id}`, meta, file, onProgress, signal)

/** Sends a further file for a recording. */
export const uploadAddedFile = (
  recordingId: string,
  fileId: string,
  meta: AddedFileUpload,
  file: Blob,
  onProgress: Progress,
  signal: AbortSignal,
) => send(`${apiBase}/recordings/${recordingId}/files/${fileId}`, meta, file, onProgress, signal)

/**
 * XMLHttpRequest, since fetch tells nothing about bytes that left.
 * Aborting the signal cancels on both sides; the server keeps nothing of it.
 */
function send(
  address: string,
  meta: RecordingUpload | AddedFileUpload,
  file: Blob,
  onProgress: Progress,
  signal: AbortSignal,
): Promise<Recording> {
  return new Promise((resolve, reject) => {
    const request = new XMLHttpRequest()
    request.open('PUT', `${address}?meta=${encodeURIComponent(JSON.stringify(meta))}`)
    request.setRequestHeader('Content-Type', 'application/octet-stream')
    request.upload.onprogress = (e) =>
      e.lengthComputable && onProgress({ share: 0.3 * (e.loaded / e.total), doing: 'Sending' })
    request.onload = async () => {
      if (request.status !== 200) return reject(await problemOf(request.status, request.responseText))
      resolve(Recording.parse(JSON.parse(request.responseText)))
    }
    request.onerror = () =>
      reject(new ApiError('The server cannot be reached. Nothing was imported; try again in a moment.', null))
    request.onabort = () => reject(new ApiError('Cancelled. Nothing was imported.', null))
    signal.addEventListener('abort', () => request.abort(), { once: true })
    request.send(file)
  })
}
