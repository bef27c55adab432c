import type { Adjuster, AdjusterRole } from '#contract/adjuster'
import type { End } from '#contract/common'
import type { SetupSpace } from '../adviser/dayHistory.ts'
import { InputError } from '../errors.ts'
import { adjusterName, positionWords } from '../adjusters/words.ts'
import { undoFillers, undoWords } from './lexicon.ts'
import { perEnd, type Clause } from './clause.ts'
import { clausesOf } from './clauses.ts'
import { goBackOf, type GoBack } from './goBack.ts'
import { readParts, readingOf, type ReadPart } from './reading.ts'
import { partHint } from './partNames.ts'
import { standsAt, target } from './target.ts'
import { tokensOf, type Token } from './tokens.ts'

export interface CommandMove {
  end: End
  adjuster: Adjuster
  from: number
  to: number
}

/** What a typed line asks for. */
export type Command =
  | { kind: 'undo' }
  | { kind: 'back-to'; run: GoBack }
  | { kind: 'read'; parts: ReadPart[] }
  | { kind: 'change'; moves: CommandMove[] }

/** Who may be named in front of a line. */
export interface People {
  /** The rider of the day. */
  rider: string
  /** Other riders that are known here. */
  others: readonly string[]
}

/**
 * Reads one line as a mechanic says it: "rear reb slower 1", "slow the shock down one", "fork +2 psi and shock lsc 9",
 * "shock lever firm", "front rebound 2 out", "undo". Numbers stand before or after, in digits or words; the end may be left
 * out where only one end has the part. "read shock reb 8" says where a part was found to stand, "read shock reb unsure" that
 * nobody knows; neither turns anything. Bare numbers are places in the part's own count; signed numbers move that count;
 * slower/faster/firmer/softer/in/out/up/down are steps. "back to run 3" is the whole bike as it was ridden. Several parts in one
 * line are one linked change, "fork and shock" or "both ends" one of each; a part is said once. "from 7 to 5" holds only where
 * it stands at 7.
 *
 * @param positions canonical position per adjuster id, as on the bike now
 * @throws InputError 'command.…' with a sentence that says what would be understood
 */
export function parseCommand(
  line: string,
  space: SetupSpace,
  positions: ReadonlyMap<string, number>,
  people: People = { rider: '', others: [] },
): Command {
  const tokens = withoutRider(tokensOf(line), people)
  if (tokens.length === 0) throw new InputError('command.empty')
  if (isUndo(tokens)) return { kind: 'undo' }
  const run = goBackOf(tokens)
  if (run !== null) return { kind: 'back-to', run }
  let before: End | null = null
  const said = new Set<string>()
  const found = (c: Clause) => {
    const part = partOf(c, space, before)
    const { end, adjuster } = part
    if (said.has(adjuster.id))
      throw new InputError('command.twice', { end, what: adjusterName(adjuster).toLowerCase() })
    said.add(adjuster.id)
    // After both, the next part has to name its own.
    before = c.both ? null : end
    return part
  }
  const reading = readingOf(tokens)
  if (reading) {
    const clauses = clausesOf(reading.rest, space).flatMap(perEnd)
    const parts = readParts(clauses, reading.unsure, positions, space, found)
    if (parts.length === 0) throw new InputError('command.no-reading')
    return { kind: 'read', parts }
  }
  const moves = clausesOf(tokens, space)
    .flatMap(perEnd)
    .map((c): CommandMove => {
      const { end, adjuster } = found(c)
      const what = adjusterName(adjuster).toLowerCase()
      const from = positions.get(adjuster.id)
      if (from === undefined) throw new InputError('command.unread', { end, what })
      if (c.claimed !== null && !standsAt(adjuster, from, c.claimed, c, space.units))
        throw new InputError('command.elsewhere', {
          end,
          what,
          stands: positionWords(adjuster, from, space.units),
          said: c.claimed,
        })
      return { end, adjuster, from, to: target(c, adjuster, from, space.units) }
    })
  if (moves.length === 0) throw new InputError('command.no-amount', { example: 'rear rebound slower 1' })
  return { kind: 'change', moves }
}

/** The rider's own name in front changes nothing; another's would turn the wrong bike. */
function withoutRider(tokens: Token[], people: People): Token[] {
  const said = (name: string) => {
    const words = tokensOf(name).map((t) => t.text.replace(/'s$/, ''))
    return (
      words.length > 0 &&
      words.every((w, i) => tokens[i]?.kind === 'word' && tokens[i].text.replace(/'s$/, '') === w) &&
      words.length
    )
  }
  const own = said(people.rider)
  if (own) return tokens.slice(own)
  const other = people.others.find(said)
  if (other) throw new InputError('command.other-rider', { rider: other, here: people.rider })
  return tokens
}

function isUndo(tokens: readonly Token[]): boolean {
  const words = tokens.map((t) => t.text)
  return (
    words.every((w) => undoFillers.has(w)) &&
    (words.some((w) => undoWords.has(w)) || words.join(' ') === 'take it back')
  )
}

/** The part a clause means. @throws InputError 'command.no-end', 'command.no-part', 'command.no-adjuster' */
function partOf(c: Clause, space: SetupSpace, before: End | null): { end: End; adjuster: Adjuster } {
  if (c.place) return c.place
  const roles = rolesOf(c)
  if (roles.length === 0 && !c.part?.named.length) {
    const end = c.end ?? before
    if (!end) throw new InputError('command.no-end')
    throw new InputError('command.no-part', { end, has: partHint(space, end) })
  }
  const units = [space.front, space.rear].filter((u) => u !== null)
  const hits = units.flatMap((u) => {
    const own = c.part?.named.find((a) => u.adjusters.includes(a))
    const hit = own ?? roles.map((r) => u.adjusters.find((a) => a.role === r)).find((a) => a !== undefined)
    return hit ? [{ end: u.end, adjuster: hit }] : []
  })
  const said = c.end ?? (hits.some((h) => h.end === before) ? before : null)
  const hit = said ? hits.find((h) => h.end === said) : hits.length === 1 ? hits[0] : undefined
  if (hit) return hit
  const end = c.end ?? before
  if (!end && hits.length > 1) throw new InputError('command.no-end')
  if (!end) throw new InputError('command.nobody-has', { what: c.part?.word ?? 'such a dial' })
  throw new InputError('command.no-adjuster', {
    end,
    what: c.part?.word ?? 'such a dial',
    has: partHint(space, end),
  })
}

/** Roles a clause can mean: those of its part, or what its effect or unit belongs to. */
function rolesOf(c: Clause): readonly AdjusterRole[] {
  if (c.part) return c.part.roles
  if (c.pressureUnit) return ['main-pressure']
  return c.effect?.of === 'rebound' ? ['rebound', 'low-speed-rebound'] : []
}
