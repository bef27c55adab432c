import type { SetupSpace } from '../adviser/dayHistory.ts'
import { InputError } from '../errors.ts'
import {
  bothWord,
  effectWords,
  endWords,
  fillers,
  notWords,
  partWords,
  separators,
  toWords,
  tyreWords,
  undoWords,
  type Effect,
} from './lexicon.ts'
import { noClause, type Clause } from './clause.ts'
import { partHint } from './partNames.ts'
import { tokensOf, type Token } from './tokens.ts'

/** Parts that have a name of their own, and places of levers, by the words they begin with. */
function namesOf(space: SetupSpace) {
  return [space.front, space.rear]
    .filter((u) => u !== null)
    .flatMap((u) =>
      u.adjusters.map((adjuster) => ({
        end: u.end,
        adjuster,
        names: [adjuster.kind === 'custom' ? adjuster.name : null, adjuster.alias]
          .filter((n) => n !== null && n !== '')
          .map((n) => tokensOf(n!).map((t) => t.text)),
        places:
          adjuster.kind === 'lever' ? adjuster.positions.map((p) => tokensOf(p).map((t) => t.text)) : [],
      })),
    )
}

/** Parts a line into moves. @throws InputError 'command.unknown-word', 'command.end-alone' */
export function clausesOf(tokens: readonly Token[], space: SetupSpace): Clause[] {
  const names = namesOf(space)
  const out: Clause[] = []
  let c = noClause()
  const told = () => c.part !== null || c.effect !== null || c.number !== null || c.place !== null
  const done = () => c.place !== null || (c.part !== null && (c.number !== null || c.effect !== null))
  /** Whole without its part being named: "slow the shock one", "2 psi". */
  const meant = () => c.number !== null && (c.effect?.of === 'rebound' || c.pressureUnit !== null)
  const close = () => {
    if (told()) out.push(c)
    else if (c.end || c.both) return
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
      // "from 7 to 5"
      if (!c.number && !t.signed && textAt(i + 1) === 'to' && tokens[i + 2]?.kind === 'number') {
        c.claimed = t.value
        i++
        continue
      }
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
    } else if (bothAt(i) > 0) {
      if (c.end || c.both) close()
      // "fork both rebounds": one of them, or both?
      if (c.end || c.both) throw new InputError('command.unknown-word', { word, hint: oneOnly })
      c.both = true
      i += bothAt(i)
    } else if (word === 'back' && !isBackEnd(i)) {
      // "rebound back to 3" is a place; "rebound back one" could be either way.
      if (textAt(i + 1) !== 'to') throw new InputError('command.unknown-word', { word, hint: wayOnly })
      i++
    } else if (word in endWords) {
      if ((c.end || c.both) && done()) close()
      if (c.both) throw new InputError('command.unknown-word', { word, hint: oneOnly })
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
    else throw unknown(word, hintFor(c, space))
  }
  // "one click slower, both ends": where, said last.
  const last = out.at(-1)
  if (last && !told() && (c.end || c.both)) {
    if (last.end || last.both || last.place)
      throw new InputError('command.end-alone', { what: c.both ? 'both ends' : `the ${c.end}` })
    Object.assign(last, { end: c.end, both: c.both })
  } else close()
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
    const before = c.effect
    const isLoose = (e: Effect) => e.of === 'number' && e.loose === true
    if (before && isLoose(next)) return
    if (!before) return void Object.assign(c, { effect: next, said: word })
    if (isLoose(before)) {
      // "2 psi less in the fork" points; "2 more in" says the way.
      if (before.sign > 0) return void Object.assign(c, { effect: next, said: word })
      if (word === 'in') return
      throw new InputError('command.unknown-word', { word, hint: oneOnly })
    }
    if (c.number && c.part && next.of !== 'number' && next.of !== 'turning') {
      close()
      return void Object.assign(c, { effect: next, said: word })
    }
    if (before.of === next.of && before.sign !== next.sign)
      throw new InputError('command.unknown-word', { word, hint: oneOnly })
    if (before.of === 'number' && (next.of === 'rebound' || next.of === 'firmness'))
      Object.assign(c, { effect: next, said: word })
  }
  /** How many words from here on say both ends: "both", "both ends", "fork and the shock". */
  function bothAt(k: number): number {
    if (textAt(k) === bothWord) return 1 + (textAt(k + 1) === 'ends' ? 1 : bothAt(k + 1))
    const [one, and] = [textAt(k), textAt(k + 1)]
    const other = textAt(k + 2) === 'the' ? k + 3 : k + 2
    const isPair = one in endWords && ['and', '&'].includes(and ?? '') && (textAt(other) ?? '') in endWords
    // "slow the fork and shock lsc 2 softer": what was said of the first is not said of the second.
    return isPair && endWords[one!] !== endWords[textAt(other)!] ? other + 1 - k : 0
  }
  /** "back" is an end in front of a part, after "the", or where a move begins. */
  function isBackEnd(k: number): boolean {
    const next = textAt(k + 1) ?? ''
    return ['the', 'at'].includes(textAt(k - 1) ?? '') || isPart(next) || (!c.end && !c.both && !told())
  }
}

/** A word that nothing is called by; those that would be dropped at a loss are told apart. */
function unknown(word: string, hint: string): InputError {
  if (notWords.has(word)) return new InputError('command.not-done', { word })
  if (tyreWords.has(word)) return new InputError('command.tyres')
  if (undoWords.has(word)) return new InputError('command.undo-one')
  return new InputError('command.unknown-word', { word, hint })
}
const wayOnly = 'say slower or faster, firmer or softer, and by how much'
const oneOnly = 'say one part, one way and one number for each move'
const rolesByName = (word: string) => partWords.find(([names]) => names.includes(word))?.[1]
/** Whether a second word only goes on naming the part of the first. */
const belongsTo = (part: string, word: string) =>
  word === 'damping' || (part === 'air' && word === 'spring') || rolesByName(part) === rolesByName(word)
const isPart = (word: string) => partWords.some(([names]) => names.includes(word))
const hintFor = (c: Clause, space: SetupSpace) =>
  c.end ? `say a part: ${partHint(space, c.end)}` : 'start with fork or shock'
