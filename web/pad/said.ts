import type { PadReport, PadView } from '#contract/pad'
import type { FeelWord } from '#contract/run'
import { wordRules } from '#core/causes/words'

/** What is being said, before it is sent. */
export interface Said {
  /** null: a run that the tent has not logged yet. */
  runId: string | null
  against: PadReport['against']
  sectionIds: string[]
  end: 'front' | 'rear' | 'both' | null
  /** 1: said · 2: said strongly, by a second tap. */
  words: ReadonlyMap<FeelWord, 1 | 2>
  stopped: PadReport['stopped']
  text: string
}

/** The run that is most likely meant: the last, unless this phone has spoken of it already. */
export function likelyRun(view: PadView): string | null {
  const last = view.runs.at(-1)
  return last && !last.said ? last.id : null
}

export const nothingSaid = (view: PadView): Said => ({
  runId: likelyRun(view),
  against: null,
  sectionIds: [],
  end: null,
  words: new Map(),
  stopped: null,
  text: '',
})

/** Whether there was a run before it to compare with. */
export const canCompare = (view: PadView, runId: string | null): boolean =>
  runId === null ? view.runs.length > 0 : view.runs.findIndex((r) => r.id === runId) > 0

/** What a run is called: as the tent counts them. */
export function runName(view: PadView, runId: string | null): string {
  const run = view.runs.find((r) => r.id === runId)
  return run
    ? `Run ${run.number}`
    : view.runs.length
      ? `The run after ${view.runs.at(-1)!.number}`
      : 'Your first run'
}

/** A tap says it, a second says it strongly, a third takes it back. */
export const tapped = (strength: 0 | 1 | 2): 0 | 1 | 2 => ((strength + 1) % 3) as 0 | 1 | 2

/** The same for better and worse: -2 … 2; the other side or "same" takes its place. */
export function tappedAgainst(now: Said['against'], side: -1 | 0 | 1): Said['against'] {
  if (side === 0) return now === 0 ? null : 0
  if (now === null || Math.sign(now) !== side) return side
  return Math.abs(now) === 1 ? ((side * 2) as -2 | 2) : null
}

export const tappedWord = (words: Said['words'], word: FeelWord): Said['words'] => {
  const next = new Map(words)
  const strength = tapped(next.get(word) ?? 0)
  if (strength === 0) next.delete(word)
  else next.set(word, strength)
  return next
}

/** Whether anything was said that is worth sending. */
export const hasSaid = (s: Said, voice: boolean): boolean =>
  s.against !== null || s.words.size > 0 || s.stopped !== null || s.text.trim() !== '' || voice

/** Nothing was tapped or typed since it was begun on this view: not a run, a place or an end either. */
export const isUntouched = (s: Said, view: PadView): boolean =>
  JSON.stringify(asKept(s)) === JSON.stringify(asKept(nothingSaid(view)))

/** As it lies on the phone until it is sent: a phone forgets a page that lies behind others. */
export const asKept = (s: Said) => ({ ...s, words: [...s.words] })
export type KeptSaid = ReturnType<typeof asKept>

/** What was begun before, where it still fits what the phone is shown; null: it does not. */
export function takenUp(kept: KeptSaid | null, view: PadView): Said | null {
  if (!kept) return null
  const run = view.runs.find((r) => r.id === kept.runId)
  const isGone = kept.runId !== null && (!run || run.said)
  const knowsAll = kept.sectionIds.every((id) => view.sections.some((x) => x.id === id))
  return isGone || !knowsAll ? null : { ...kept, words: new Map(kept.words) }
}

/** The view with the runs that were spoken of and are still on their way: nobody is asked again for them. */
export const withWaiting = (view: PadView, waiting: readonly PadReport[]): PadView => ({
  ...view,
  runs: view.runs.map((r) => (waiting.some((w) => w.runId === r.id) ? { ...r, said: true } : r)),
})

/** What is sent. An end that nobody named is where the word usually comes from, else both. */
export const asReport = (s: Said, id: string, at: string, voiceId: string | null): PadReport => ({
  id,
  at,
  runId: s.runId,
  against: s.against,
  sectionIds: s.sectionIds,
  words: [...s.words].map(([word, strength]) => ({
    word,
    end: s.end ?? wordRules[word].usualEnd ?? 'both',
    strength: strength === 2 ? 3 : 2,
  })),
  stopped: s.stopped,
  text: s.text.trim(),
  voiceId,
})

const good = (Object.keys(wordRules) as FeelWord[]).filter((w) => wordRules[w].about === 'good')
/** Said most often; the rest is one key away. */
const near: FeelWord[] = [
  'kicks',
  'harsh-everywhere',
  'harsh-gets-worse',
  'dives',
  'bottoms',
  'washes-out',
  'wallows',
  'nervous',
  'dead',
]

/** Words as keys: praise first after a better run. */
export function wordKeys(better: boolean, all: boolean): FeelWord[] {
  const rest = (Object.keys(wordRules) as FeelWord[]).filter((w) => !good.includes(w) && !near.includes(w))
  return [...(better ? good : []), ...near, ...(better ? [] : good), ...(all ? rest : [])]
}
