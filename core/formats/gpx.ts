import { XMLParser, XMLValidator } from 'fast-xml-parser'
import { limits } from '#contract/limits'
import { InputError } from '../errors.ts'
import type { Fix } from '../geo/fix.ts'
import { clockSeconds } from './clock.ts'

/** A track of fixes in order of time; `timeS` counts from 1970. */
export interface GpxTrack {
  fixes: Fix[]
  /** Points without a time or with coordinates that are none. */
  dropped: number
}

const list = new Set(['trk', 'trkseg', 'trkpt'])
const parser = new XMLParser({
  ignoreAttributes: false,
  attributeNamePrefix: '',
  parseAttributeValue: false,
  parseTagValue: false,
  // No document type, no entities: nothing can be smuggled in by them.
  processEntities: false,
  isArray: (name) => list.has(name),
})

/** As it should be: a file may hold anything under these names. */
interface Point {
  lat?: unknown
  lon?: unknown
  ele?: unknown
  time?: unknown
}

/**
 * Reads the tracks of a GPX 1.1 file, all segments one after another.
 * @throws InputError 'gpx.unreadable', 'gpx.no-track', 'gpx.no-time', 'gpx.entities', 'gpx.points', 'gpx.depth'
 */
export function readGpx(text: string): GpxTrack {
  if (!/<gpx[\s>]/.test(text.slice(0, 4096)))
    throw new InputError('gpx.unreadable', { why: 'no <gpx> was found' })
  refuseHuge(text)
  const valid = XMLValidator.validate(text)
  if (valid !== true)
    throw new InputError('gpx.unreadable', { why: `line ${valid.err.line}: ${valid.err.msg}` })
  const points = ['gpx', 'trk', 'trkseg', 'trkpt'].reduce(within, [treeOf(text)]) as Point[]
  if (points.length < 2) throw new InputError('gpx.no-track', { got: points.length })
  const fixes: Fix[] = []
  for (const p of points) {
    const latitudeDeg = numberOf(p.lat)
    const longitudeDeg = numberOf(p.lon)
    const timeS = clockSeconds(typeof p.time === 'string' ? p.time : '')
    const onEarth = Math.abs(latitudeDeg) <= 90 && Math.abs(longitudeDeg) <= 180
    if (Number.isFinite(timeS) && onEarth)
      fixes.push({ timeS, latitudeDeg, longitudeDeg, elevationM: elevationOf(p.ele) })
  }
  if (fixes.length < 2) throw new InputError('gpx.no-time')
  const dropped = points.length - fixes.length
  fixes.sort((a, b) => a.timeS - b.timeS)
  // Several points of one second are no pace.
  return { fixes: fixes.filter((f, i) => i === 0 || f.timeS > fixes[i - 1].timeS), dropped }
}

/** An empty attribute is no place on the equator. Some write a decimal comma. */
const numberOf = (x: unknown) =>
  typeof x === 'string' && x.trim() !== '' ? Number(x.replace(',', '.')) : NaN
const elevationOf = (x: unknown) => {
  const m = numberOf(x)
  return Number.isFinite(m) ? m : null
}

/** @throws InputError 'gpx.unreadable' for names that the reader itself refuses */
function treeOf(text: string): unknown {
  try {
    return parser.parse(text)
  } catch (e) {
    throw new InputError('gpx.unreadable', { why: e instanceof Error ? e.message : String(e) })
  }
}

/** Elements of that name in each of some; what is text, or an attribute of that name, holds none. */
function within(of: readonly unknown[], name: string): unknown[] {
  return of.flatMap((x) => {
    const found = typeof x === 'object' && x !== null ? (x as Record<string, unknown>)[name] : undefined
    return (Array.isArray(found) ? (found as unknown[]) : [found]).filter(
      (y) => typeof y === 'object' && y !== null,
    )
  })
}

/** What would take memory or stack is told before anything is parsed. @throws InputError 'gpx.entities', 'gpx.points', 'gpx.depth' */
function refuseHuge(text: string): void {
  if (/<!(DOCTYPE|ENTITY)/i.test(text)) throw new InputError('gpx.entities')
  let points = 0
  let depth = 0
  for (const [tag] of text.matchAll(/<[/!?]?[A-Za-z][^<>]*>/g)) {
    if (tag.startsWith('</')) depth--
    else if (!tag.endsWith('/>')) depth++
    if (depth > limits.gpxDepth) throw new InputError('gpx.depth', { max: limits.gpxDepth })
    if (tag.startsWith('<trkpt') && ++points > limits.gpxPoints)
      throw new InputError('gpx.points', { max: limits.gpxPoints })
  }
}

/** Writes a GPX 1.1 track; `startedAt` is the instant of time 0, in seconds since 1970. @public round trips of the reader are tried with it */
export function writeGpx(name: string, fixes: readonly Fix[], startedAt: number): string {
  const escape = (s: string) => s.replace(/[&<>"]/g, (c) => `&#${c.charCodeAt(0)};`)
  const points = fixes.map(
    (f) =>
      `<trkpt lat="${f.latitudeDeg.toFixed(7)}" lon="${f.longitudeDeg.toFixed(7)}">${f.elevationM === null ? '' : `<ele>${f.elevationM.toFixed(1)}</ele>`}<time>${isoInstant(startedAt + f.timeS)}</time></trkpt>`,
  )
  return `<?xml version="1.0" encoding="UTF-8"?>
<gpx version="1.1" creator="Wild Spring" xmlns="http://www.topografix.com/GPX/1/1">
<trk><name>${escape(name)}</name><trkseg>
${points.join('\n')}
</trkseg></trk>
</gpx>
`
}

/** UTC instant with milliseconds. Inverse of the civil-days formula (Hinnant). */
function isoInstant(epochS: number): string {
  const ms = Math.round(epochS * 1000)
  const day = Math.floor(ms / 86_400_000)
  const ofDay = ms - day * 86_400_000
  const z = day + 719468
  const era = Math.floor(z / 146097)
  const doe = z - era * 146097
  const yoe = Math.floor(
    (doe - Math.floor(doe / 1460) + Math.floor(doe / 36524) - Math.floor(doe / 146096)) / 365,
  )
  const doy = doe - (365 * yoe + Math.floor(yoe / 4) - Math.floor(yoe / 100))
  const mp = Math.floor((5 * doy + 2) / 153)
  const d = doy - Math.floor((153 * mp + 2) / 5) + 1
  const m = mp < 10 ? mp + 3 : mp - 9
  const y = yoe + era * 400 + (m <= 2 ? 1 : 0)
  const two = (x: number, w = 2) => String(x).padStart(w, '0')
  const h = Math.floor(ofDay / 3_600_000)
  const min = Math.floor(ofDay / 60_000) % 60
  const s = Math.floor(ofDay / 1000) % 60
  return `${two(y, 4)}-${two(m)}-${two(d)}T${two(h)}:${two(min)}:${two(s)}.${two(ofDay % 1000, 3)}Z`
}
