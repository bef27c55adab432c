import { v7 as uuid } from 'uuid'
import { endpoints } from '#contract/endpoints'
import type { PadReport, PadView } from '#contract/pad'
import { apiBase, call, reach } from '../api/client.ts'
import type { Letter } from '../api/letters.ts'
import { Outbox, type Send } from '../api/outbox.ts'
import { databaseShelf, memoryShelf } from '../api/shelves.ts'
import { tokenFor } from './token.ts'

const bearer = (token: string) => ({ Authorization: `Bearer ${token}` })

/** What the phone is shown. @throws ApiError, `problem` null when out of reach */
export const readPad = (token: string): Promise<PadView> =>
  call(endpoints.getPad, {}, undefined, undefined, bearer(token))

const send: Send = async (letter, _onProgress, signal) => {
  const headers = bearer(tokenFor(letter.params.dayId))
  if (letter.kind === 'padVoice') {
    await reach(`${apiBase}/pad/voices/${letter.params.id}`, {
      method: 'PUT',
      body: letter.file,
      headers: { ...headers, 'Content-Type': 'application/octet-stream' },
      signal,
    })
    return {}
  }
  const body = { report: letter.body as PadReport, phoneNow: new Date().toISOString() }
  return call(endpoints.putPadReport, { id: letter.params.id }, body, signal, headers)
}

/** The phone's own outbox: apart from that of the house, should both be opened in one browser. */
export async function openPadOutbox(): Promise<Outbox> {
  const outbox = new Outbox({
    shelf: await databaseShelf('wild-spring-pad').catch(memoryShelf),
    send,
    channel: { post: () => {}, listen: () => {} },
    tab: uuid(),
    now: () => Date.now(),
    later: (act, ms) => setTimeout(act, ms),
    never: (t) => clearTimeout(t as ReturnType<typeof setTimeout>),
  })
  window.addEventListener('pagehide', () => void outbox.close())
  window.addEventListener('pageshow', (e: PageTransitionEvent) => e.persisted && location.reload())
  // Back in reach of the tent's network: not only at the next try.
  window.addEventListener('online', () => void outbox.flush())
  document.addEventListener('visibilitychange', () => {
    if (document.visibilityState === 'visible') void outbox.flush()
  })
  await outbox.start()
  return outbox
}

/** Puts a report on its way; a voice goes after the words, which never wait for it. */
export async function tell(
  outbox: Outbox,
  dayId: string,
  report: PadReport,
  voice: Blob | null,
): Promise<void> {
  await outbox.write({
    kind: 'padReport',
    key: `padReport:${report.id}`,
    params: { dayId, id: report.id },
    body: report,
    file: null,
  })
  if (voice && report.voiceId)
    await outbox.write({
      kind: 'padVoice',
      key: `padVoice:${report.voiceId}`,
      params: { dayId, id: report.voiceId },
      body: null,
      file: voice,
    })
}

/** Reports on this phone that the tent does not have, oldest first. */
export const waitingReports = (
  letters: readonly Letter[],
): { dayId: string; report: PadReport; at: string }[] =>
  letters
    .filter((l) => l.kind === 'padReport')
    .map((l) => ({ dayId: l.params.dayId, report: l.body as PadReport, at: l.at }))
