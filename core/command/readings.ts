import type { SetupSpace } from '../adviser/dayHistory.ts'
import { InputError } from '../errors.ts'
import { bothWord, effectWords, endWords, fillers, partWords } from './lexicon.ts'
import { parseCommand, type Command, type People } from './parse.ts'
import { partNames } from './partNames.ts'
import { tokensOf } from './tokens.ts'

export interface Reading {
  line: string
  command: Command
}

const mostOffered = 4

/** Edits between two words, by the usual dynamic programme. */
function distance(a: string, b: string): number {
  let row = Array.from({ length: b.length + 1 }, (_, j) => j)
  for (let i = 1; i <= a.length; i++) {
    const next = [i]
    for (let j = 1; j <= b.length; j++)
      next[j] = Math.min(row[j] + 1, next[j - 1] + 1, row[j - 1] + (a[i - 1] === b[j - 1] ? 0 : 1))
    row = next
  }
  return row[b.length]
}

const known = [
  ...Object.keys(endWords),
  ...partWords.flatMap(([names]) => names),
  ...effectWords.keys(),
  ...fillers,
].filter((w) => w.length > 2)

/**
 * What a line that was refused most likely meant, each to be taken with a tap: with a slip of a letter mended, an end, a
 * part, a way or a number put in. None of them is done by itself.
 */
export function nearestReadings(
  line: string,
  space: SetupSpace,
  positions: ReadonlyMap<string, number>,
  people?: People,
): Reading[] {
  const said = line.trim()
  if (said === '') return []
  const fault = faultOf(said, space, positions, people)
  if (!fault) return []
  const out: Reading[] = []
  const seen = new Set<string>()
  for (const candidate of candidates(said, fault, space)) {
    try {
      const command = parseCommand(candidate, space, positions, people)
      const key =
        command.kind === 'change'
          ? command.moves.map((m) => `${m.adjuster.id} ${m.to}`).join()
          : JSON.stringify(command)
      if (seen.has(key)) continue
      seen.add(key)
      out.push({ line: candidate, command })
      if (out.length === mostOffered) break
    } catch (e) {
      if (!(e instanceof InputError)) throw e
    }
  }
  return out
}

function faultOf(...args: Parameters<typeof parseCommand>): InputError | null {
  try {
    parseCommand(...args)
    return null
  } catch (e) {
    if (e instanceof InputError) return e
    throw e
  }
}

function* candidates(line: string, fault: InputError, space: SetupSpace): Generator<string> {
  const ways = ['slower', 'faster', 'firmer', 'softer']
  switch (fault.code) {
    case 'command.unknown-word': {
      const word = String(fault.detail.word)
      const bare = (w: string) => line.toLowerCase().replace(word, w)
      if (!effectWords.has(word)) {
        const near = known
          .map((w) => ({ w, d: distance(word, w) }))
          .filter((x) => x.d <= Math.max(1, Math.floor(word.length / 3)))
          .sort((a, b) => a.d - b.d)
        for (const { w } of near) yield bare(w)
        // Left out, the rest may be clear.
        yield bare('')
      } else for (const w of ways) yield bare(w)
      break
    }
    case 'command.no-end':
      for (const end of ['fork', 'shock']) {
        yield `${end} ${line}`
        for (const part of partNames(space, end === 'fork' ? 'front' : 'rear')) yield `${end} ${part} ${line}`
      }
      break
    case 'command.end-alone': {
      const bare = tokensOf(line).filter(
        (t) => !(t.text in endWords) && t.text !== bothWord && t.text !== 'ends',
      )
      yield `both ends ${bare.map((t) => t.text).join(' ')}`
      break
    }
    case 'command.no-part': {
      const end = fault.detail.end === 'front' ? 'front' : 'rear'
      // A bare number is most often one of psi.
      const parts = partNames(space, end).sort((a, b) => Number(b === 'psi') - Number(a === 'psi'))
      for (const part of parts) yield `${line} ${part}`
      for (const part of parts) for (const way of ways) yield `${line} ${part} ${way}`
      break
    }
    case 'command.which-way':
      for (const way of ways) yield withoutNumberEffect(line, way)
      break
    case 'command.no-amount':
      for (const way of ways) yield `${line} ${way} 1`
      yield `${line} +1`
      yield `${line} -1`
      break
    case 'command.no-adjuster':
      for (const end of ['fork', 'shock'])
        yield tokensOf(line)
          .map((t) => (t.text in endWords ? end : t.text))
          .join(' ')
      break
    case 'command.no-step': {
      const got = Number(fault.detail.got)
      for (const n of [Math.floor(got), Math.ceil(got)]) yield line.replace(/[\d.,]+/, String(n))
      break
    }
    default:
  }
}

/** "up 2" without the up. */
function withoutNumberEffect(line: string, way: string): string {
  return tokensOf(line)
    .map((t) => (effectWords.get(t.text)?.of === 'number' ? way : t.text))
    .join(' ')
}
