import type { TakeReport } from '#contract/pad'
import type { Tent, TentBundle, TentHour, TentNote, TentRider } from '#contract/tent'
import type { Letter } from './letters.ts'
import { placed } from './overlay.ts'

const withRider = (t: TentBundle, rider: TentRider): TentBundle => ({
  ...t,
  riders: placed(t.riders, rider, (r) => r.id === rider.id),
})

/** A tent as the server knows it, with what waits in this browser laid over it. */
export function overlayTent(base: TentBundle, letters: readonly Letter[]): TentBundle {
  const mine = (x: { tentId: string }) => x.tentId === base.tent.id
  return letters
    .filter((l) => l.state !== 'refused')
    .reduce<TentBundle>((t, l) => {
      switch (l.kind) {
        case 'tent': {
          const tent = l.body as Tent
          return tent.id === t.tent.id ? { ...t, tent } : t
        }
        case 'tentRider': {
          const rider = l.body as TentRider
          return mine(rider) ? withRider(t, rider) : t
        }
        case 'tentHour': {
          const hour = l.body as TentHour
          const hours = placed(t.hours, hour, (h) => h.id === hour.id)
          return mine(hour) ? { ...t, hours: hours.sort((a, b) => a.at.localeCompare(b.at)) } : t
        }
        case 'tentNote': {
          const note = l.body as TentNote
          return mine(note) ? { ...t, notes: placed(t.notes, note, (n) => n.id === note.id) } : t
        }
        case 'takenReport': {
          const { runId } = l.body as TakeReport
          return {
            ...t,
            reports: t.reports.map((r) =>
              r.report.id === l.params.id
                ? { ...r, takenFor: runId, droppedAt: runId === null ? l.at : null }
                : r,
            ),
          }
        }
        case 'remove': {
          const { id } = l.params
          const { what } = l.body as { what: string }
          const isNot = (x: { id: string }) => x.id !== id
          return what === 'tentRider' || what === 'day'
            ? { ...t, riders: t.riders.filter(isNot) }
            : what === 'tentHour'
              ? { ...t, hours: t.hours.filter(isNot) }
              : what === 'tentNote'
                ? { ...t, notes: t.notes.filter(isNot) }
                : t
        }
        default:
          return t
      }
    }, base)
}
