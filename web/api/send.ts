import { endpoints } from '#contract/endpoints'
import type { AddedFileUpload, Recording, RecordingUpload } from '#contract/recording'
import { ApiError, call } from './client.ts'
import type { Letter, LetterKind, PadKind, Removable } from './letters.ts'
import type { Send } from './outbox.ts'
import { sendBytes } from './upload.ts'

/** The address of each kind of letter; one that is missing does not compile. */
const plain = {
  rider: endpoints.putRider,
  unit: endpoints.putUnit,
  bike: endpoints.putBike,
  trail: endpoints.putTrail,
  gauge: endpoints.putGauge,
  stock: endpoints.putStockItem,
  service: endpoints.putService,
  baseline: endpoints.putBaseline,
  kept: endpoints.putKept,
  profile: endpoints.putProfile,
  letterhead: endpoints.putLetterhead,
  bench: endpoints.putBench,
  tent: endpoints.putTent,
  tentRider: endpoints.putTentRider,
  tentHour: endpoints.putTentHour,
  tentNote: endpoints.putTentNote,
  setup: endpoints.putSetup,
  day: endpoints.putDay,
  run: endpoints.putRun,
  feel: endpoints.putFeel,
  proposal: endpoints.putProposal,
  takenReport: endpoints.takePadReport,
  handedReport: endpoints.handOverReport,
} satisfies Record<Exclude<LetterKind, 'recording' | 'addedFile' | 'remove' | 'restore' | PadKind>, unknown>

const removals = {
  rider: [endpoints.deleteRider, endpoints.restoreRider],
  unit: [endpoints.deleteUnit, endpoints.restoreUnit],
  bike: [endpoints.deleteBike, endpoints.restoreBike],
  trail: [endpoints.deleteTrail, endpoints.restoreTrail],
  gauge: [endpoints.deleteGauge, endpoints.restoreGauge],
  stock: [endpoints.deleteStockItem, endpoints.restoreStockItem],
  service: [endpoints.deleteService, endpoints.restoreService],
  baseline: [endpoints.deleteBaseline, endpoints.restoreBaseline],
  kept: [endpoints.deleteKept, endpoints.restoreKept],
  profile: [endpoints.deleteProfile, endpoints.restoreProfile],
  bench: [endpoints.deleteBench, endpoints.restoreBench],
  tent: [endpoints.deleteTent, endpoints.restoreTent],
  tentRider: [endpoints.deleteTentRider, endpoints.restoreTentRider],
  tentHour: [endpoints.deleteTentHour, endpoints.restoreTentHour],
  tentNote: [endpoints.deleteTentNote, endpoints.restoreTentNote],
  setup: [endpoints.deleteSetup, endpoints.restoreSetup],
  day: [endpoints.deleteDay, endpoints.restoreDay],
  run: [endpoints.deleteRun, endpoints.restoreRun],
  recording: [endpoints.deleteRecording, endpoints.restoreRecording],
} satisfies Record<Removable, unknown>

/** Sends a letter to the server by its kind. */
export const sendLetter: Send = (letter, onProgress, signal) => {
  if (letter.kind === 'recording' || letter.kind === 'addedFile') return sendFile(letter, onProgress, signal)
  if (letter.kind === 'remove' || letter.kind === 'restore') {
    const [remove, restore] = removals[(letter.body as { what: Removable }).what]
    return call(
      letter.kind === 'remove' ? remove : restore,
      letter.params as { id: string },
      undefined,
      signal,
    )
  }
  const endpoint = plain[letter.kind as keyof typeof plain] as (typeof plain)['rider']
  return call(endpoint, letter.params as { id: string }, letter.body as never, signal)
}

/** Bytes first, then what they are. Bytes the server no longer has are sent once more. */
async function sendFile(
  letter: Letter,
  onProgress: Parameters<Send>[1],
  signal: AbortSignal,
): Promise<Recording> {
  const meta = letter.body as RecordingUpload | AddedFileUpload
  const say = () =>
    letter.kind === 'recording'
      ? call(endpoints.putRecording, letter.params as { id: string }, meta as RecordingUpload, signal)
      : call(
          endpoints.addFile,
          letter.params as { id: string; fileId: string },
          meta as AddedFileUpload,
          signal,
        )
  // A try whose answer was lost may have been kept: ask before the bytes travel again.
  if (letter.tries > 0) {
    try {
      return await say()
    } catch (e) {
      if (!(e instanceof ApiError) || e.problem?.code !== 'upload.missing') throw e
    }
  }
  if (letter.file) await sendBytes(`uploads/${meta.uploadId}`, letter.file, onProgress, signal)
  return say()
}
