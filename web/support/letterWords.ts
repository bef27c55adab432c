import type { Feel } from '#contract/run'
import type { Letter, LetterKind } from '../api/letters.ts'

const kindWords: Record<LetterKind, string> = {
  rider: 'a rider',
  unit: 'a fork or shock',
  bike: 'a bike',
  trail: 'a trail',
  gauge: 'a gauge',
  stock: 'an item of the shelf',
  service: 'a line of the service log',
  baseline: 'a makers’ setting',
  kept: 'a kept setup',
  profile: 'a profile',
  letterhead: 'the top of cards',
  tent: 'a tent',
  tentRider: 'a rider of a tent',
  tentHour: 'a line of the log by the hour',
  tentNote: 'a decision in a tent',
  bench: 'a bench session',
  setup: 'a change of the bike',
  day: 'the day',
  run: 'a run',
  feel: 'how a run felt',
  proposal: 'what was done with a proposal',
  recording: 'a sensor file',
  addedFile: 'a further file',
  remove: 'a removal',
  takenReport: 'which run a report is for',
  handedReport: 'a report that was handed over',
  padReport: 'a rider’s report',
  padVoice: 'a spoken note',
  restore: 'something brought back',
}

/** What a letter is about, in words; what can be read from it is said, so that nothing typed is lost with it. */
export function letterWords(l: Letter): string {
  if (l.kind === 'feel') {
    const feel = l.body as Feel
    const rating = feel.rating === null ? 'no rating' : `rating ${feel.rating}`
    const note = feel.note ? `, “${feel.note.slice(0, 80)}”` : ''
    return `how a run felt (${rating}, ${feel.marks.length} words${note})`
  }
  const name = (l.body as { name?: unknown; fileName?: unknown } | null) ?? {}
  const called =
    typeof name.name === 'string' ? name.name : typeof name.fileName === 'string' ? name.fileName : ''
  return called ? `${kindWords[l.kind]} (${called})` : kindWords[l.kind]
}
