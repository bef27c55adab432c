import { limits } from '#contract/limits'

/** Why a file is too large to be sent, said before it is read; '' when it is not. */
export function tooLargeWords(bytes: number): string {
  if (bytes <= limits.uploadBytes) return ''
  const most = Math.round(limits.uploadBytes / 1024 / 1024)
  return `The file has ${Math.round(bytes / 1024 / 1024)} MB; at most ${most} MB are taken. Split the recording.`
}
