import type { PadReport } from '#contract/pad'
import type { Feel, Mark } from '#contract/run'
import { withVerdicts } from '../causes/answered.ts'
import { emptyFeel } from '../setup/nothingNoted.ts'

/** Why a report is not laid into what was already said: a person looks at both. */
export interface Differs {
  /** What the tent has: -2 much worse … +2 much better. */
  held: number
  /** What the phone says. */
  said: number
}

const noteLetters = 2000

/**
 * What a rider said on the phone, laid into what is known of the run already. Nothing that stands is changed: words and a
 * verdict are added where there are none. Laying it in twice is laying it in once.
 *
 * @param held    the run's feel so far; null: none
 * @param against the run before it; null: there is none, and a comparison says nothing
 * @param newId   ids of new marks
 * @param phoneIsRight a person has looked at both: the phone's verdict takes the place of the other
 * @returns the feel, or how the two contradict each other
 */
export function joinedFeel(
  held: Feel | null,
  report: PadReport,
  runId: string,
  against: string | null,
  newId: () => string,
  phoneIsRight = false,
): { feel: Feel } | { differs: Differs } {
  const base = held ?? emptyFeel(runId)
  const verdict = base.verdicts.find((v) => v.againstRunId === against)
  const said = report.against
  const isOpposite = verdict !== undefined && said !== null && Math.sign(verdict.value) !== Math.sign(said)
  if (isOpposite && !phoneIsRight) return { differs: { held: verdict.value, said } }
  const places: (string | null)[] = report.sectionIds.length ? report.sectionIds : [null]
  const spoken = places.flatMap((sectionId) =>
    report.words.map((w): Mark => ({ ...w, sectionId, id: newId() })),
  )
  const marks = [
    ...base.marks,
    ...spoken.filter(
      (m) => !base.marks.some((b) => b.word === m.word && b.end === m.end && b.sectionId === m.sectionId),
    ),
  ].slice(0, 60)
  const verdicts =
    said !== null && against !== null && (!verdict || isOpposite)
      ? [...base.verdicts.filter((v) => v !== verdict), { againstRunId: against, value: said }].slice(-10)
      : base.verdicts
  const words = [
    report.stopped === 'crashed' ? 'Crashed.' : report.stopped === 'stopped' ? 'Stopped on the way.' : '',
    report.text,
  ].filter((t) => t !== '' && !base.note.includes(t))
  const note = [base.note, ...words].filter((t) => t !== '').join(' ')
  const told = { ...base, marks, note: note.length > noteLetters ? base.note : note }
  return { feel: withVerdicts(told, verdicts, against) }
}
