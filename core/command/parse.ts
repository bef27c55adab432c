import type { Adjuster, AdjusterRole } from '#contract/adjuster'
import type { End } from '#contract/common'
import type { SetupSpace } from '../adviser/dayHistory.ts'
import { InputError } from '../errors.ts'
import { adjusterName } from '../adjusters/words.ts'
import {
  effectWords,
  endWords,
  fillers,
  partWords,
  separators,
  toWords,
  undoFillers,
  undoWords,
} from './lexicon.ts'
import { noClause, type Clause } from './clause.ts'
import { goBackOf, type GoBack } from './goBack.ts'
import { readParts, readingOf, type ReadPart } from './reading.ts'
import { target } from './target.ts'
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
 * slower/faster/firmer/softer/in/out/up/down are steps. "back to run 3" is the whole bike as it was ridden. Several parts in one line are one linked change.
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
  const reading = readingOf(tokens)
  if (reading) {
    let last: End | null = null
    const parts = readParts(clausesOf(reading.rest, space), reading.unsure, positions, space, (c) => {
      const found = partOf(c, space, last)
      last = found.end
      return found
    })
    if (parts.length === 0) throw new InputError('command.no-reading')
    return { kind: 'read', parts }
  }
  const clauses = clausesOf(tokens, space)
  const moves: CommandMove[] = []
  let end: End | null = null
  for (const clause of clauses) {
    const found = partOf(clause, space, end)
    end = found.end
    const from = positions.get(found.adjuster.id)
    if (from === undefined)
      throw new InputError('command.unread', { end, what: adjusterName(found.adjuster).toLowerCase() })
    moves.push({ ...found, from, to: target(clause, found.adjuster, from, space.units) })
  }
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

const unitsOf = (space: SetupSpace) => [space.front, space.rear].filter((u) => u !== null)

/** Parts that have a name of their own, and places of levers, by the words they begin with. */
function namesOf(space: SetupSpace) {
  return unitsOf(space).flatMap((u) =>
    u.adjusters.map((adjuster) => ({
      end: u.end,
      adjuster,
      names: [adjuster.kind === 'custom' ? adjuster.name : null, adjuster.alias]
        .filter((n) => n !== null && n !== '')
        .map((n) => tokensOf(n!).map((t) => t.text)),
      places: adjuster.kind === 'lever' ? adjuster.positions.map((p) => tokensOf(p).map((t) => t.text)) : [],
    })),
  )
}

/** Parts a line into moves. @throws InputError 'command.unknown-word' */
function clausesOf(tokens: readonly Token[], space: SetupSpace): Clause[] {
  const names = namesOf(space)
  const out: Clause[] = []
  let c = noClause()
  const told = () => c.part !== null || c.effect !== null || c.number !== null || c.place !== null
  const done = () => c.place !== null || (c.part !== null && (c.number !== null || c.effect !== null))
  /** Whole without its part being named: "slow the shock one", "2 psi". */
  const meant = () => c.number !== null && (c.effect?.of === 'rebound' || c.pressureUnit !== null)
  const close = () => {
    if (told()) out.push(c)
    else if (c.end) return
    c = noClause()
  }
  const textAt = (k: number) => tokens[k]?.text
  const startsHere = (words: readonly string[], i: number) =>
    words.length > 0 && words.every((w, k) => textAt(i + k) === w)

  let i = 0
  while (i < tokens.length) {
    const t = tokens[i]
    if (t.kind === 'number') {
      if (c.number && done()) close()
      // Two numbers for one move: neither is guessed.
      if (c.number) throw new InputError('command.unknown-word', { word: t.text, hint: oneOnly })
      c.number = { value: t.value, signed: t.signed }
      i++
      continue
    }
    const word = t.text
    const named = names.flatMap((n) =>
      n.names.filter((w) => startsHere(w, i)).map((w) => ({ ...n, words: w })),
    )
    const place = leverPlace()
    if (named.length > 0 && !(word in endWords)) {
      if (done()) close()
      if (c.part && !c.part.named.length && !c.part.roles.includes(named[0].adjuster.role))
        throw new InputError('command.unknown-word', { word, hint: oneOnly })
      c.part = {
        word: named[0].words.join(' '),
        roles: [],
        named: named.map((n) => n.adjuster),
      }
      i += named[0].words.length
    } else if (place) {
      c.place = { adjuster: place.adjuster, end: place.end, at: place.at }
      i += place.words
    } else if (separators.has(word)) {
      if (done() || meant()) close()
      i++
    } else if (toWords.has(word)) {
      // "to 8" is a place; "to the fork" only points.
      c.absolute ||= tokens[i + 1]?.kind === 'number'
      i++
    } else if (word in endWords) {
      if (c.end && done()) close()
      c.end ??= endWords[word]
      if (c.end !== endWords[word]) {
        close()
        c.end = endWords[word]
      }
      i++
    } else if (word === 'from' && ['closed', 'open', 'shut'].includes(textAt(i + 1) ?? '')) {
      c.countedFrom = textAt(i + 1) === 'open' ? 'open' : 'closed'
      c.effect = null
      i += 2
    } else if (isPart(word)) {
      const isUnit = word === 'psi' || word === 'bar'
      // "2 psi" after "pressure up": the unit of what was already said.
      if (isUnit && c.part?.roles[0] === 'main-pressure') c.pressureUnit = word as 'psi' | 'bar'
      else if (!done() && c.part && belongsTo(c.part.word, word)) {
        // "rebound damping", "air spring": one part in two words.
      } else {
        if (done()) close()
        // The part before it would be dropped in silence.
        if (c.part) throw new InputError('command.unknown-word', { word, hint: oneOnly })
        c.part = { word, roles: rolesByName(word)!, named: [] }
        if (isUnit) c.pressureUnit = word as 'psi' | 'bar'
      }
      i++
    } else if (effectWords.has(word)) {
      takeEffect(word)
      i++
    } else if (fillers.has(word)) i++
    else throw new InputError('command.unknown-word', { word, hint: hintFor(c, space) })
  }
  close()
  return out

  /** A place of a lever by its name, once the lever was said; or where no other part can be meant. */
  function leverPlace() {
    const wanted = c.part?.roles.includes('lever') || c.part?.named.some((a) => a.kind === 'lever')
    if (!wanted) return null
    for (const n of names) {
      if (c.end && n.end !== c.end) continue
      const at = n.places.findIndex((p) => startsHere(p, i))
      if (at >= 0) return { adjuster: n.adjuster, end: n.end, at, words: n.places[at].length }
    }
    return null
  }
  /** "slow it down", "firm it up", "take 2 out": the first word says it, the second only points. */
  function takeEffect(word: string) {
    const next = effectWords.get(word)!
    if (c.effect && c.number && c.part && next.of !== 'number' && next.of !== 'turning') close()
    const before = c.effect
    if (!before) c.effect = next
    else if (before.of === next.of && before.sign !== next.sign)
      throw new InputError('command.unknown-word', { word, hint: oneOnly })
    else if (before.of === 'number' && (next.of === 'rebound' || next.of === 'firmness')) c.effect = next
  }
}

const oneOnly = 'say one part, one way and one number for each move'
const rolesByName = (word: string) => partWords.find(([names]) => names.includes(word))?.[1]
/** Whether a second word only goes on naming the part of the first. */
const belongsTo = (part: string, word: string) =>
  word === 'damping' || (part === 'air' && word === 'spring') || rolesByName(part) === rolesByName(word)
const isPart = (word: string) => partWords.some(([names]) => names.includes(word))

/** What the parts of an end are called, for hints and completion. */
export function partNames(space: SetupSpace, end: End): string[] {
  const seen = new Set<string>()
  const trade = partWords.flatMap(([names, roles]) => {
    const hit = roles.map((r) => space[end]?.adjusters.find((a) => a.role === r)).find((a) => a !== undefined)
    // A single rebound dial answers to "rebound" and to "lsr"; one name is enough.
    if (!hit || seen.has(hit.id)) return []
    seen.add(hit.id)
    return [names[0]]
  })
  const own = (space[end]?.adjusters ?? []).flatMap((a) =>
    a.kind === 'custom' ? [a.name.toLowerCase()] : [],
  )
  return [...trade, ...own]
}

const partHint = (space: SetupSpace, end: End) =>
  partNames(space, end).join(', ') || 'there is nothing to turn'
const hintFor = (c: Clause, space: SetupSpace) =>
  c.end ? `say a part: ${partHint(space, c.end)}` : 'start with fork or shock'

/** The part a clause means. @throws InputError 'command.no-end', 'command.no-part', 'command.no-adjuster' */
function partOf(c: Clause, space: SetupSpace, before: End | null): { end: End; adjuster: Adjuster } {
  if (c.place) return c.place
  const roles = rolesOf(c)
  if (roles.length === 0 && !c.part?.named.length) {
    const end = c.end ?? before
    if (!end) throw new InputError('command.no-end')
    throw new InputError('command.no-part', { end, has: partHint(space, end) })
  }
  const hits = unitsOf(space).flatMap((u) => {
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
