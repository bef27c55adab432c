import type { Adjuster } from '#contract/adjuster'
import type { DayBundle } from '#contract/endpoints'
import type { HourLine } from '#contract/hour'
import type { Run } from '#contract/run'
import { settingsKey } from '#core/adviser/history'
import { logOf } from '#core/conditions/log'
import { adjusterName, distanceWords, effectWord, positionNumber, shortName } from '#core/adjusters/words'
import { canonicalUnits, type UnitChoice } from '#core/units/choice'
import { diffSetups, type Move } from '#core/setup/diff'
import { asReadLater, readBetween, type PutRight } from '#core/setup/readBetween'
import type { DayKnowledge } from '#core/adviser/summary'

export interface Waypoint {
  kind: 'run'
  id: string
  number: number
  run: Run
  rating: number | null
  words: string
  best: boolean
  /** Runs on equal settings share a ring colour, 0-based. */
  ring: number
  y: number
  x: number
}

export interface ChangeTag {
  kind: 'change'
  id: string
  title: string
  detail: string
  /** What the person said it was for; empty where nothing was said, or a card was followed. */
  why: string
  end: 'front' | 'rear' | null
  moves: Move[]
  y: number
}

/** A line of the log by the hour, where it stands between the runs. */
export interface HourTag {
  kind: 'hour'
  id: string
  line: HourLine
  y: number
}

export interface DayLineView {
  items: (Waypoint | ChangeTag | HourTag)[]
  height: number
  nextNumber: number
  nextY: number
  nextX: number
  /** Path of the trail through the waypoints, for an SVG. */
  path: string
  ratingPoints: { x: number; y: number; run: string }[]
  band: { x: number; width: number } | null
  /** The trade's short names that stand on the line, with what they mean. */
  shortNames: { short: string; long: string }[]
}

const runHeight = 62
const tagHeight = { one: 66, many: 90, why: 16 }
const hourHeight = 42
/** The first line of its words stands beside the trail where it would bend next. */
const hourLift = 17
const topY = 34
export const trailMiddle = 40
const trailSwing = 15
export const ratingWidth = 46

/** The day as a trail running down the page. Pure: a bundle in, coordinates and words out. */
export function dayLine(
  b: DayBundle,
  knowledge: DayKnowledge | null,
  units: UnitChoice = canonicalUnits,
): DayLineView {
  const keys: string[] = []
  const ringOf = (setupId: string) => {
    const setup = b.setups.find((s) => s.id === setupId)
    const key = setup ? settingsKey(setup) : setupId
    if (!keys.includes(key)) keys.push(key)
    return keys.indexOf(key)
  }
  const counted = b.runs.filter((r) => r.kind === 'counted')
  const ratingOf = (id: string) => b.feels.find((f) => f.runId === id)?.rating ?? null
  const ratings = counted.map((r) => ratingOf(r.id)).filter((x) => x !== null)
  const top = Math.max(...ratings)
  const bestId = ratings.length > 1 ? counted.findLast((r) => ratingOf(r.id) === top)?.id : undefined

  const items: DayLineView['items'] = []
  let y = topY
  let last: Run | null = null
  const bend = (n: number) => trailMiddle + trailSwing * Math.sin(n * 1.9 + 0.4)
  const log = [...logOf(b).hours]
  /** What was noted before an instant and does not stand yet. */
  const noteUntil = (ms: number) => {
    while (log.length && Date.parse(log[0].at) <= ms) {
      const line = log.shift()!
      items.push({ kind: 'hour', id: line.id, line, y: y - hourLift })
      y += hourHeight
    }
  }
  b.runs.forEach((run, i) => {
    noteUntil(Date.parse(run.startedAt))
    const tag = changeBetween(b, last?.setupId ?? b.day.startSetupId, run.setupId, run.id, units)
    if (tag) {
      items.push({ ...tag, y: y - 4 })
      y += heightOf(tag)
    }
    items.push({
      kind: 'run',
      id: run.id,
      number: i + 1,
      run,
      rating: run.kind === 'counted' ? ratingOf(run.id) : null,
      words: runWords(b, run),
      best: run.id === bestId,
      ring: ringOf(run.setupId),
      x: bend(i),
      y,
    })
    y += runHeight
    last = run
  })
  noteUntil(Infinity)
  const now = b.setups.filter((s) => s.dayId === b.day.id).at(-1)?.id ?? b.day.startSetupId
  const open = changeBetween(b, (last as Run | null)?.setupId ?? b.day.startSetupId, now, 'next', units)
  if (open) {
    items.push({ ...open, y: y - 4 })
    y += heightOf(open)
  }
  const waypoints = items.filter((i): i is Waypoint => i.kind === 'run')
  const nextX = bend(b.runs.length)
  const points = [...waypoints.map((w) => ({ x: w.x, y: w.y })), { x: nextX, y }]
  const ratingX = (r: number) => ((r - 1) / 9) * ratingWidth
  const rated = waypoints.filter((w) => w.rating !== null)
  const level = rated.length ? rated[0].rating! : null
  const noise = knowledge?.noiseSd ?? 0.7
  const dials = items.flatMap((i) => (i.kind === 'change' ? i.moves.map((m) => m.adjuster) : []))
  return {
    items,
    shortNames: [...new Map(dials.map((a) => [shortName(a), adjusterName(a)]))]
      .filter(([short, long]) => short !== long)
      .map(([short, long]) => ({ short, long })),
    height: y + 40,
    nextNumber: b.runs.length + 1,
    nextY: y,
    nextX,
    path: smoothPath(points),
    ratingPoints: rated.map((w) => ({ x: ratingX(w.rating!), y: w.y, run: w.id })),
    band:
      level === null
        ? null
        : {
            x: ratingX(Math.max(1, level - noise)),
            width: ratingX(Math.min(10, level + noise)) - ratingX(Math.max(1, level - noise)),
          },
  }
}

const heightOf = (t: Pick<ChangeTag, 'moves' | 'why'>) =>
  (t.moves.length > 1 ? tagHeight.many : tagHeight.one) + (t.why ? tagHeight.why : 0)

const endWords = { front: 'Front', rear: 'Rear' } as const

/** "LSC" stays in capitals, "Rebound" does not. */
function inSentence(a: Adjuster): string {
  const name = shortName(a)
  return name === name.toUpperCase() ? name : name.toLowerCase()
}

function runWords(b: DayBundle, run: Run): string {
  if (run.kind === 'warm-up') return 'warm-up'
  if (run.kind === 'void') return run.voidReason ?? 'doesn’t count'
  const counted = b.runs.filter((r) => r.kind === 'counted')
  if (counted[0]?.id === run.id) return 'baseline'
  const before = counted[counted.findIndex((r) => r.id === run.id) - 1]
  const a = b.setups.find((s) => s.id === before.setupId)
  const c = b.setups.find((s) => s.id === run.setupId)
  if (a && c && settingsKey(a) === settingsKey(c))
    return before.id === counted[0].id ? 'baseline again' : 'same again'
  const first = b.setups.find((s) => s.id === counted[0].setupId)
  return first && c && settingsKey(first) === settingsKey(c) ? 'back to baseline' : ''
}

/** What moved between two ridden setups, or null when nothing did. */
function changeBetween(
  b: DayBundle,
  fromId: string,
  toId: string,
  key: string,
  units: UnitChoice,
): Omit<ChangeTag, 'y'> | null {
  const from = b.setups.find((s) => s.id === fromId)
  const to = b.setups.find((s) => s.id === toId)
  if (!from || !to || from.id === to.id) return null
  // A number that was put right is not a hand that turned.
  const right = readBetween(b.setups, fromId, toId)
  const moves = diffSetups(asReadLater(b.setups, from, toId), to, b.units)
  if (moves.length === 0) return putRight(b, right, key, units)
  const ends = new Set(moves.map((m) => m.end))
  const [first] = moves
  const number = (v: number) => positionNumber(first.adjuster, v, units)
  const title = `${endWords[first.end]} ${inSentence(first.adjuster)} ${number(first.from)} → ${number(first.to)}`
  const effect = `${distanceWords(first.adjuster, first.from, first.to, units)} ${effectWord(first.adjuster, first.from, first.to)}`
  return {
    kind: 'change',
    id: `change-${key}`,
    title,
    detail:
      moves.length === 1
        ? effect
        : `and ${moves
            .slice(1)
            .map(
              (m) =>
                `${m.end} ${inSentence(m.adjuster)} ${positionNumber(m.adjuster, m.from, units)} → ${positionNumber(m.adjuster, m.to, units)}`,
            )
            .join(', ')}`,
    why: to.reason.source === 'own-idea' && !to.reason.text.startsWith('typed: ') ? to.reason.text : '',
    end: ends.size === 1 ? moves[0].end : null,
    moves,
  }
}

/** Numbers that were read anew between two runs, where nothing else was done. */
function putRight(
  b: DayBundle,
  right: ReadonlyMap<string, PutRight>,
  key: string,
  units: UnitChoice,
): Omit<ChangeTag, 'y'> | null {
  const read = b.units.flatMap((u) =>
    u.adjusters.flatMap((a) => {
      const p = right.get(a.id)
      return p ? [{ end: u.end, a, ...p }] : []
    }),
  )
  if (read.length === 0) return null
  const [first] = read
  const more = read.length - 1
  return {
    kind: 'change',
    id: `read-${key}`,
    title: `${endWords[first.end]} ${inSentence(first.a)} read: ${positionNumber(first.a, first.read, units)}`,
    detail: `written was ${positionNumber(first.a, first.written, units)}${more ? `; ${more} more put right` : ''}`,
    why: '',
    end: new Set(read.map((r) => r.end)).size === 1 ? first.end : null,
    moves: [],
  }
}

function smoothPath(points: readonly { x: number; y: number }[]): string {
  return points
    .map((p, i) => {
      if (i === 0) return `M${p.x.toFixed(1)} ${(p.y - 20).toFixed(1)} L${p.x.toFixed(1)} ${p.y.toFixed(1)}`
      const q = points[i - 1]
      const mid = (q.y + p.y) / 2
      return `C${q.x.toFixed(1)} ${mid.toFixed(1)} ${p.x.toFixed(1)} ${mid.toFixed(1)} ${p.x.toFixed(1)} ${p.y.toFixed(1)}`
    })
    .join(' ')
}
