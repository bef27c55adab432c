import { writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { isComplaint } from '#core/causes/words'
import { sniffLayout } from '#core/formats/layout'
import { leverageOf } from '#core/linkage/leverage'
import { seededRandom } from '#core/numeric/random'
import { feelOf, type VirtualFeel, type VirtualRider } from '#core/sim/virtualRider'
import { ridingMassKg } from '#core/spring/load'
import { analyse } from '#core/telemetry/analyse'
import { ingestDelimited } from '#core/telemetry/ingest'
import { suggestMapping } from '#core/telemetry/mapping'
import type { DayStory, Step } from '../days.ts'
import { idOf } from '../ids.ts'
import { rideFile } from '../sensors.ts'
import { trails as smallTrails } from '../world.ts'
import { benchStart, plan, type PlannedDay } from './plan.ts'
import { tarek, tareksBike, tareksTrails, tareksUnits } from './world.ts'

// Rides the two seasons on the half-car with a virtual rider and writes what came of them: `npm run demo:ride`.
// The runs of one day take as long as a start of the demo may; so the story is kept beside this file.

type Settings = Record<string, number>
const trails = [...smallTrails, ...tareksTrails]
const rider: VirtualRider = { threshold: 0.74, taste: 0, ratingSd: 0.35, silent: 0.2, misled: 0.08 }
const parts = new Map(tareksUnits.flatMap((u) => u.adjusters.map((a) => [a.id, { a, end: u.end }] as const)))
const mostClicks = (name: string): number => {
  const part = parts.get(idOf(name))!.a
  return part.kind === 'click' ? part.clicks : part.kind === 'spacer' ? part.maxCount : 400
}

function ride(settings: Settings, day: PlannedDay, seed: number): VirtualFeel {
  const trail = trails.find((t) => t.id === idOf(day.trail))!
  const positions = Object.entries(settings).map(([name, value]) => ({
    end: parts.get(idOf(name))!.end,
    adjusterId: idOf(name),
    value,
  }))
  const on = { bike: tareksBike, units: tareksUnits, positions, ridingMassKg: ridingMassKg(tarek) }
  const bytes = new TextEncoder().encode(rideFile(on, trail.sections, seed))
  const geometry = { frontTravelMm: 160, rearStrokeMm: 60, leverage: leverageOf(tareksBike, 60) }
  const analysis = analyse(
    ingestDelimited(bytes, suggestMapping(sniffLayout(bytes)), geometry),
    trail.sections,
  )
  return feelOf(analysis, trail.sections, rider, seededRandom(seed * 7 + 3))
}

/** What a rider who reads the table of words would try: dial, by how much, and why. */
const remedies: Partial<Record<VirtualFeel['marks'][number]['word'], [string, number, string][]>> = {
  'harsh-gets-worse': [['rebound', 2, 'Gets harsh through the row: faster']],
  'stays-down': [['rebound', 1, 'Stays down: faster']],
  dead: [['rebound', 1, 'Dead: faster']],
  pogo: [['rebound', -1, 'Bounces on: slower']],
  kicks: [['rebound', -1, 'Kicks: slower']],
  dives: [
    ['lsc', -2, 'Dives: firmer'],
    ['psi', 3, 'Still dives: more air'],
  ],
  'nose-heavy': [['psi', 2, 'Low in front: firmer']],
  wallows: [['lsc', -2, 'Wallows: firmer']],
  'blows-through': [['spacers', 1, 'Blows through: a spacer']],
  bottoms: [['spacers', 1, 'Bottoms: a spacer']],
  'harsh-and-bottoms': [['hsc', 1, 'Harsh: softer']],
  'harsh-everywhere': [
    ['hsc', 1, 'Harsh: softer'],
    ['lsc', 2, 'Harsh: softer'],
  ],
  'harsh-square-edge': [['hsc', 2, 'Edges: softer']],
}
/** What is tried when nothing is said. */
const curious: [string, number, string][] = [
  ['tarek fork rebound', 1, 'Curious: front a click faster'],
  ['tarek shock lsc', 2, 'Curious: rear softer'],
  ['tarek fork lsc', 1, 'Curious: front softer'],
  ['tarek shock rebound', -1, 'Curious: rear a click slower'],
]

function nextTry(feel: VirtualFeel, tried: Set<string>): { name: string; by: number; why: string } | null {
  const said = feel.marks.filter((m) => isComplaint(m.word)).sort((a, b) => b.strength - a.strength)
  const wishes = said.flatMap((m) =>
    (remedies[m.word] ?? []).map(([dial, by, why]) => {
      const unit = m.end === 'rear' ? 'shock' : 'fork'
      return { name: `tarek ${unit} ${dial === 'hsc' && unit === 'shock' ? 'lsc' : dial}`, by, why }
    }),
  )
  const others = curious.map(([name, by, why]) => ({ name, by, why }))
  return [...wishes, ...others].find((w) => !tried.has(`${w.name} ${Math.sign(w.by)}`)) ?? null
}

const clock = (minutes: number) =>
  `${String(10 + Math.floor(minutes / 60)).padStart(2, '0')}:${String(minutes % 60).padStart(2, '0')}`
const mean = (xs: number[]) => xs.reduce((s, x) => s + x, 0) / xs.length

/** One day: a warm-up, a baseline of two runs, then one change at a time, kept where it was better, else taken back. */
function rideDay(
  day: PlannedDay,
  onBike: Settings,
  base: Settings,
  dayNo: number,
): { steps: Step[]; end: Settings } {
  const steps: Step[] = []
  const sections = trails.find((t) => t.id === idOf(day.trail))!.sections
  let minutes = 0
  let seed = 1000 * (dayNo + 1)
  const run = (settings: Settings, kind?: 'warm-up') => {
    const at = clock((minutes += 18))
    if (kind) {
      steps.push({ do: 'run', at, kind })
      return null
    }
    const feel = ride(settings, day, ++seed)
    const marks = feel.marks.slice(0, 4).map((m) => ({
      ...m,
      section: sections.find((s) => s.id === m.sectionId)?.name ?? null,
    }))
    steps.push({
      do: 'run',
      at,
      rating: feel.rating,
      marks: marks.map(({ sectionId: _, ...m }) => m),
    })
    return feel
  }
  const change = (from: Settings, to: Settings, why: string, linked?: boolean) => {
    const moved = Object.fromEntries(Object.entries(to).filter(([k, v]) => from[k] !== v))
    if (Object.keys(moved).length) steps.push({ do: 'change', to: moved, why, ...(linked ? { linked } : {}) })
  }
  const shifted = { ...base }
  for (const [name, by] of Object.entries(day.shift)) shifted[name] += by
  change(onBike, shifted, day.why, true)
  let best = shifted
  run(best, 'warm-up')
  let said = run(best)!
  let bestRating = mean([said.rating, run(best)!.rating])
  const tried = new Set<string>()
  for (let i = 0; i < day.changes; i++) {
    const wish = nextTry(said, tried)
    if (!wish) break
    tried.add(`${wish.name} ${Math.sign(wish.by)}`)
    const to = {
      ...best,
      [wish.name]: Math.min(mostClicks(wish.name), Math.max(0, best[wish.name] + wish.by)),
    }
    if (to[wish.name] === best[wish.name]) continue
    change(best, to, wish.why)
    const first = run(to)!
    const second = run(to)!
    const rating = mean([first.rating, second.rating])
    if (rating > bestRating) {
      best = to
      bestRating = rating
      said = first
    } else change(to, best, 'Back: it was no better')
  }
  return { steps, end: best }
}

export function rideSeasons(days: readonly PlannedDay[] = plan): DayStory[] {
  const ends = new Map<string, Settings>()
  let onBike = benchStart
  return days.map((day, i) => {
    const base = day.from === null ? onBike : ends.get(day.from)!
    const start = onBike
    const { steps, end } = rideDay(day, onBike, base, i)
    ends.set(day.key, end)
    onBike = end
    return {
      key: day.key,
      date: day.date,
      rider: 'tarek',
      bike: 'tarek',
      trail: day.trail,
      conditions: day.conditions,
      settled: true,
      start,
      steps,
    }
  })
}

if (process.argv.includes('--write')) {
  const stories = rideSeasons()
  writeFileSync(join(import.meta.dirname, 'ridden.json'), `${JSON.stringify(stories, null, 1)}\n`)
}
