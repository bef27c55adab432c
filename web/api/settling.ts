import type { Feel } from '#contract/run'
import { feelTogether } from '../support/feelTogether.ts'
import { typedOver } from '../support/typedOver.ts'
import { onVersion, sameContent, type Letter } from './letters.ts'

// What a letter becomes that met a record which was changed elsewhere meanwhile.

type Saved = { id: string; version: number }
/** What a letter in conflict would be saved as: what was typed, over the record as others have since saved it. */
export function mineOver({ kind, opened, body, problem }: Letter): unknown {
  const theirs = problem?.current
  if (!opened || !theirs) return body
  return kind === 'feel'
    ? feelTogether(opened as Feel, body as Feel, theirs as Feel).feel
    : typedOver(opened as Saved, body as Saved, theirs as Saved).record
}

/** The same with theirs where both say something else: what is left to be saved of what was typed; null: nothing. */
export function theirsOver({ kind, opened, body, problem }: Letter): unknown {
  const theirs = problem?.current as Feel | undefined
  if (kind !== 'feel' || !opened || !theirs) return null
  const { feel } = feelTogether(opened as Feel, theirs, body as Feel)
  return sameContent(feel, theirs) ? null : onVersion(feel, theirs.version)
}

/** What goes on from theirs without a question; null: both say something of the same, or the kind is asked about always. */
export function goesWith({ kind, opened, body }: Letter, theirs: unknown): unknown {
  if (kind !== 'feel' || !opened || !theirs) return null
  const { feel, differences } = feelTogether(opened as Feel, body as Feel, theirs as Feel)
  return differences.length > 0 ? null : feel
}
