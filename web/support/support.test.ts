// @vitest-environment happy-dom
import { beforeEach, describe, expect, it } from 'vitest'
import type { DayBundle } from '#contract/endpoints'
import { limits } from '#contract/limits'
import type { EndMetrics } from '#contract/recording'
import { summarise } from '#core/adviser/summary'
import { canonicalUnits } from '#core/units/choice'
import {
  analysisWith,
  DayBuilder,
  fork,
  frontPressure,
  rearRebound,
  shock,
  space,
} from '#core/test/dayBuilder'
import { depthBands, speedBands } from './bands.ts'
import { compareRuns } from './compareRuns.ts'
import { movedZerosOf, sectionDifferences } from './compareMetrics.ts'
import { dayLine } from './dayLine.ts'
import { durationWords, localToday } from './dates.ts'
import { forgetDraft, keepDraft, readDraft } from './drafts.ts'
import { railScale, railStep } from './rail.ts'
import { standsOut } from './standsOut.ts'
import { terrainPath } from './terrain.ts'
import { tooLargeWords } from './uploadSize.ts'
import { signedWords } from './words.ts'

/** A story as the page would hold it. */
function bundleOf(d: DayBuilder): DayBundle {
  const h = d.history()
  return {
    day: {
      id: 'day',
      version: 1,
      date: '2031-05-02',
      riderId: 'r',
      bikeId: 'bike',
      trailId: 't',
      startSetupId: h.startSetupId,
      conditions: h.conditions,
      plans: [],
      hours: [...h.hours],
      changeLimit: 8,
      settledSetupId: null,
      purpose: 'testing',
      blind: false,
      judgedAlone: false,
      note: '',
    },
    rider: {
      id: 'r',
      version: 1,
      name: 'Ilka',
      level: 'advanced',
      taste: 'neutral',
      note: '',
    },
    bike: {
      id: 'bike',
      version: 1,
      riderId: 'r',
      name: 'Bike',
      eBike: false,
      kind: 'trail',
      massKg: null,
      leverageCurve: null,
      tyres: {
        front: { name: '', widthMm: null, pressurePsi: null },
        rear: { name: '', widthMm: null, pressurePsi: null },
      },
      frontShareSeatedPct: null,
      frontShareReadyPct: null,
      frontUnitId: 'fork',
      rearUnitId: 'shock',
      rearWheelTravelMm: 145,
      leverageStart: null,
      leverageEnd: null,
      currentSetupId: null,
      assumed: [],
      note: '',
    },
    units: [fork, shock],
    trail: { id: 't', version: 1, name: 'Trail', place: '', sections: h.sections, gates: [], note: '' },
    setups: h.setups,
    runs: h.runs.map((r) => r.run),
    feels: h.runs.flatMap((r) => r.feel ?? []),
    recordings: h.runs.flatMap((r) =>
      r.analysis
        ? [
            {
              id: `rec-${r.run.id}`,
              runId: r.run.id,
              fileName: 'x.csv',
              sha256: '',
              byteLength: 0,
              importedAt: '',
              mapping: { delimiter: ',' as const, decimal: '.' as const, columns: [], sampleRateHz: null },
              sampleRateHz: 500,
              durationS: 60,
              samples: 30000,
              ends: [],
              issues: [],
              analysis: r.analysis,
              figures: 'current' as const,
              addedFiles: [],
              spans: [],
              lineS: null,
              fullTravelMm: { front: 150, rear: 147 },
            },
          ]
        : [],
    ),
    proposals: [],
    latest: true,
    tent: null,
    ownCharts: [],
  }
}
const story = () =>
  new DayBuilder()
    .run(null, [], { kind: 'warm-up' })
    .run(5)
    .run(5.5)
    .change({ rr: 8 })
    .run(7)
    .change({ rr: 9 })

describe('the day line', () => {
  it('shows why a change was made, where a person said so, and makes room for it', () => {
    const b = bundleOf(story())
    const said = (text: string, source: 'own-idea' | 'proposal') => ({
      ...b,
      setups: b.setups.map((s) => (s.parentId ? { ...s, reason: { ...s.reason, text, source } } : s)),
    })
    const tag = (x: typeof b) => dayLine(x, null).items.find((i) => i.kind === 'change')!
    expect(tag(said('Dives under braking', 'own-idea'))).toMatchObject({ why: 'Dives under braking' })
    expect(tag(said('typed: f lsc -1', 'own-idea'))).toMatchObject({ why: '' })
    expect(tag(said('Front LSC, 1 click firmer', 'proposal'))).toMatchObject({ why: '' })
    expect(dayLine(said('Dives', 'own-idea'), null).height).toBeGreaterThan(
      dayLine(said('', 'own-idea'), null).height,
    )
  })
  it('says every dial of a change in the units that are read, and writes the short names out', () => {
    const b = bundleOf(new DayBuilder().run(5).change({ rp: 187, fp: 75, fc: 7 }).run(6))
    const inBar = dayLine(b, null, { ...canonicalUnits, pressure: 'bar' })
    const tag = inBar.items.find((i) => i.kind === 'change')!
    const text = `${tag.title} ${tag.detail}`
    expect(text).toMatch(/5\.17/)
    expect(text).toMatch(/12\.89/)
    expect(text).not.toMatch(/75|187/)
    expect(inBar.shortNames).toEqual([{ short: 'LSC', long: 'Low-speed compression' }])
    expect(line().shortNames).toEqual([])
  })
  it('has what was noted of air and track between the runs it was noted between', () => {
    const b = bundleOf(
      new DayBuilder()
        .hour({ airTempC: 12 })
        .run(5)
        .hour({ track: ['rougher'] })
        .run(6),
    )
    const inTent = { ...b.day.hours[0], id: 'tent', version: 1, tentId: 't', at: '2031-05-03T09:00:00.000Z' }
    const items = dayLine({ ...b, tent: { id: 't', hours: [inTent] } }, null).items
    expect(items.map((i) => (i.kind === 'hour' ? i.line.id : i.kind))).toEqual([
      'hour1',
      'run',
      'hour2',
      'run',
      'tent',
    ])
    expect(items.map((i) => i.y)).toEqual(items.map((i) => i.y).sort((x, y) => x - y))
  })
  const line = () => dayLine(bundleOf(story()), summarise(story().history(), space))
  it('is a trail of waypoints with the change between the runs it parts', () => {
    expect(
      line().items.map((i) => (i.kind === 'run' ? i.number : i.kind === 'hour' ? i.line.id : i.title)),
    ).toEqual([1, 2, 3, 'Rear rebound 7 → 6', 4, 'Rear rebound 6 → 5'])
  })
  it('takes a number that was put right for no change, and what was turned after it from where it stood', () => {
    const tags = (d: DayBuilder) =>
      dayLine(bundleOf(d), null).items.flatMap((i) =>
        i.kind === 'change' ? [`${i.title}: ${i.detail}`] : [],
      )
    const counted = () => new DayBuilder().run(5).change({ rr: 9 }, { source: 'reading', linked: true })
    expect(tags(counted())).toEqual(['Rear rebound read: 5: written was 7'])
    expect(tags(counted().run(6))).toEqual(['Rear rebound read: 5: written was 7'])
    expect(tags(counted().change({ rr: 8 }).run(6))).toEqual(['Rear rebound 5 → 6: 1 click slower'])
  })
  it('runs down the page and never overlaps', () => {
    const ys = line().items.map((i) => i.y)
    expect(ys.every((y, i) => i === 0 || y - ys[i - 1] >= 50)).toBe(true)
    expect(line().nextY).toBeGreaterThan(ys.at(-1)!)
  })
  it('gives runs on equal settings one ring, and names baseline, repeat and best', () => {
    const runs = line().items.filter((i) => i.kind === 'run')
    expect(runs.map((r) => r.ring)).toEqual([0, 0, 0, 1])
    expect(runs.map((r) => (r.best ? 'best' : r.words))).toEqual([
      'warm-up',
      'baseline',
      'baseline again',
      'best',
    ])
  })
  it('shows no rating of a warm-up', () => {
    const b = bundleOf(new DayBuilder().run(3, [], { kind: 'warm-up' }).run(6))
    expect(dayLine(b, null).ratingPoints.map((p) => p.run)).toEqual(['run2'])
  })
})

describe('click rails', () => {
  it('show the whole range of a dial, and a readable window of pressure', () => {
    expect(railScale(rearRebound, [7])).toMatchObject({ min: 0, max: 14 })
    const psi = railScale(frontPressure, [80])
    expect(psi.max - psi.min).toBeLessThan(60)
    expect(psi.at(80)).toBeGreaterThan(0.3)
  })
  it('find the nearest place for a tap, and stop at the ends', () => {
    expect(railScale(rearRebound, [7]).valueAt(0.52)).toBe(7)
    expect(railScale(rearRebound, [7]).valueAt(1)).toBe(14)
    expect(railStep(rearRebound, 14, 1)).toBeNull()
    expect(railStep(frontPressure, 80, -1)).toBe(79)
  })
})

describe('bands', () => {
  const m = {
    ...analysisWith({}, {}).whole.front!,
    depthHistogram: { start: 0, width: 2, share: Array.from({ length: 50 }, () => 0.02) },
  } as EndMetrics
  it('even time at every depth falls into bands by their width', () => {
    expect(depthBands(m).map((b) => Number(b.share.toFixed(3)))).toEqual([0.15, 0.15, 0.2, 0.2, 0.2, 0.1])
  })
  it('speed bands keep the sum', () => {
    const share = Array.from({ length: 80 }, () => 1 / 80)
    const sum = speedBands({ ...m, speedHistogram: { start: -4000, width: 100, share } }).reduce(
      (s, b) => s + b.share,
      0,
    )
    expect(sum).toBeCloseTo(1, 9)
  })
  it('slow ends where a person says', () => {
    const share = Array.from({ length: 80 }, () => 1 / 80)
    const even = { ...m, speedHistogram: { start: -4000, width: 100, share } }
    const slowIn = (mmS: number) => speedBands(even, mmS).find((b) => b.name === 'slow in')!.share
    expect(slowIn(400) / slowIn(200)).toBeCloseTo(2, 9)
  })
})

describe('comparing two runs', () => {
  it('takes what was read between two runs for nothing turned, whichever is laid first', () => {
    const d = new DayBuilder()
      .run(5)
      .change({ rr: 9 }, { source: 'reading', linked: true })
      .change({ fr: 8 })
      .run(6)
    const changes = (a: string, b: string) => compareRuns(bundleOf(d), a, b)!.changes
    expect(changes('run1', 'run2')).toEqual([expect.stringMatching(/^Front rebound /)])
    expect(changes('run2', 'run1')).toEqual([expect.stringMatching(/^Front rebound /)])
  })
  it('names what was turned, and what makes the two unlike', () => {
    const d = new DayBuilder()
      .run(5, [], { tyreFrontPsi: 22 })
      .change({ rr: 8 })
      .run(7, [], { tyreFrontPsi: 25, mind: 'tired' })
    const c = compareRuns(bundleOf(d), 'run1', 'run2')!
    expect(c.changes).toEqual(['Rear rebound 7 → 6 clicks, 1 click faster'])
    expect(c.unlike).toEqual(['From A to B: front tyre 3 psi apart.', expect.stringMatching(/ridden tired/)])
    expect(c.verdict!.state).toBe('not-yet')
  })
  it('a difference counts only when it beats the scatter of repeats and is of any use', () => {
    const at = (rideHeightPct: number) => ({ analysis: analysisWith({}, { rideHeightPct }) })
    const d = new DayBuilder().run(5, [], at(30)).run(5, [], at(30.2)).change({ rr: 8 }).run(5, [], at(36))
    const ride = sectionDifferences(bundleOf(d), 'run1', 'run3').find(
      (x) => x.end === 'rear' && x.name === 'ride height',
    )!
    // One pair of repeats: sd 0.2/√2, Student's t of one degree 3.078, two single runs √2.
    expect(ride).toMatchObject({ a: '30.0', b: '36.0', difference: '+6.0', size: 'clear', scatter: '± 0.6' })
    const small = sectionDifferences(bundleOf(d), 'run1', 'run2').find(
      (x) => x.end === 'rear' && x.name === 'ride height',
    )!
    expect(small.size).toBe('within')
    // Larger than the scatter, and still nothing that anyone would feel.
    d.change({ rr: 6 }).run(5, [], at(30.68))
    const slight = sectionDifferences(bundleOf(d), 'run1', 'run4').find(
      (x) => x.end === 'rear' && x.name === 'ride height',
    )!
    expect([slight.size, slight.difference]).toEqual(['small', '+0.7'])
    const alone = new DayBuilder().run(5, [], at(30)).change({ rr: 8 }).run(5, [], at(36))
    expect(sectionDifferences(bundleOf(alone), 'run1', 'run2')[0].size).toBe('unknown')
  })
  it('depths of a sensor that went deeper than its ring are compared with nothing, speeds and rhythm are', () => {
    const at = (rideHeightPct: number, depthMaxPct: number) => ({
      analysis: analysisWith({ rideHeightPct, depthMaxPct, reboundP95MmS: 40 * rideHeightPct }, {}),
      ringFrontMm: 120,
    })
    const told = (deepest: number) => {
      // Again as at first, once with what is asked: repeats tell no scatter of it either.
      const d = new DayBuilder().run(5, [], at(22, 79)).run(5, [], at(22.2, 79)).change({ fr: 8 })
      d.run(5, [], at(29, deepest))
      const b = bundleOf(d)
      const names = (end: 'front' | 'rear' | null) =>
        sectionDifferences(b, 'run1', 'run3').flatMap((x) => (x.end === end ? x.name : []))
      return { moved: movedZerosOf(b, 'run3').map((z) => z.end), front: names('front'), bike: names(null) }
    }
    const right = told(80)
    expect(right.moved).toEqual([])
    expect(right.front).toContain('ride height')
    expect(right.bike).toContain('front deeper than rear')
    const wrong = told(96)
    expect(wrong.moved).toEqual(['front'])
    expect(right.front.filter((name) => !wrong.front.includes(name))).toEqual([
      'ride height',
      'depth, 95 % of the time below',
    ])
    expect(wrong.front).toContain('return speed, 95 % below')
    expect(wrong.bike).not.toContain('front deeper than rear')
  })
  it('faster with nothing else changed marks nothing as bigger than scatter', () => {
    const d = new DayBuilder()
    const sectionId = bundleOf(new DayBuilder().run(5)).trail.sections[0].id
    /** Figures as pace alone makes them, in the powers that the half-car has. */
    const at = (pace: number, more = 0) => {
      const powers = {
        rideHeightPct: 0.23,
        depthP95Pct: 0.5,
        supportPct: 1.5,
        smallBumpPct: 1.3,
        reboundP95MmS: 0.6,
      }
      const base = {
        rideHeightPct: 22,
        depthP95Pct: 55,
        supportPct: 8,
        smallBumpPct: 1.4,
        reboundP95MmS: 900,
      }
      const end = Object.fromEntries(
        Object.entries(base).map(([k, v]) => [k, v * pace ** powers[k as keyof typeof powers]]),
      )
      const analysis = analysisWith(end, { ...end, rideHeightPct: end.rideHeightPct + more })
      const section = { ...analysis.whole, sectionId, startS: 3, endS: 3 + 60 / pace }
      return { analysis: { ...analysis, sections: [section] } }
    }
    d.run(5, [], at(1))
      .run(5, [], at(1.003))
      .change({ rr: 8 })
      .run(5, [], at(1.06))
      .change({ rr: 6 })
      .run(5, [], at(1.06, 6))
    const of = (b: string) => sectionDifferences(bundleOf(d), 'run1', b)
    expect(of('run3').filter((x) => x.size === 'clear')).toEqual([])
    const support = of('run3').find((x) => x.name === 'slow movement')!
    expect(support.pace).toBe('B 6 % faster')
    // 8 % grow by 0.7 with the power that this ride has; the simulator's table says so about.
    expect(Number(support.ofPace)).toBeGreaterThan(0.4)
    expect(Number(support.ofPace)).toBeLessThan(1.2)
    expect(of('run2')[0].pace).toBe('same pace')
    // Slower in figures than the pace alone would have it, and yet next to nothing: the model is not that sure.
    const hidden = new DayBuilder().run(5, [], at(1)).run(5, [], at(1.001)).change({ rr: 8 })
    hidden.run(5, [], { analysis: { ...at(1).analysis, sections: at(1.06).analysis.sections } })
    expect(sectionDifferences(bundleOf(hidden), 'run1', 'run3').filter((x) => x.size === 'clear')).toEqual([])
    // What is more than pace still stands out.
    expect(of('run4').find((x) => x.end === 'rear' && x.name === 'ride height')!.size).toBe('clear')
  })
})

describe('what stands out', () => {
  it('puts faults before facts, in words with their end', () => {
    const a = analysisWith({}, { valleyDriftPctPerHit: 1.4, valleyDriftSe: 0.3, trains: 6 })
    const lines = standsOut(a, [], { front: 20, rear: 30 }, [])
    expect(lines[0]).toMatchObject({
      title: 'Rear sinks through hit trains',
      end: 'rear',
      detail: 'valleys move +1.4 ± 0.3 % of travel per hit, 6 trains',
    })
    expect(lines.at(-1)!.title).toBe('Balance')
  })
  it('says nothing of depths where the zero has moved; speeds and rhythm still speak', () => {
    const deep = { rideHeightPct: 40, hardBottomOuts: 3, valleyDriftPctPerHit: 1.4, trains: 6 }
    const a = analysisWith(deep, deep)
    const titles = (wrong: readonly ('front' | 'rear')[]) =>
      standsOut(a, [], { front: 20, rear: 20 }, wrong).map((l) => l.title)
    expect(titles([])).toEqual(expect.arrayContaining(['Front rides deep', '3 hard bottom-outs, front']))
    const said = titles(['front'])
    expect(said).toContain('Front sinks through hit trains')
    expect(said).toContain('Rear rides deep')
    expect(said.filter((t) => /^Front rides|bottom-outs, front|Balance/.test(t))).toEqual([])
  })
})

describe('drafts', () => {
  beforeEach(() => localStorage.clear())
  it('survive until they are forgotten, and shrug off a broken one', () => {
    keepDraft('x', { a: 1 })
    expect(readDraft('x')).toEqual({ a: 1 })
    localStorage.setItem('wild-spring:y', '{')
    expect(readDraft('y')).toBeNull()
    forgetDraft('x')
    expect(readDraft('x')).toBeNull()
  })
})

describe('small words', () => {
  it('times and days', () => {
    expect(durationWords(112)).toBe('1:52')
    expect(durationWords(119.7)).toBe('2:00')
    expect(durationWords(61.257, 1)).toBe('1:01.3')
  })
  it('a file beyond the limit is refused with both sizes', () => {
    expect(tooLargeWords(limits.uploadBytes)).toBe('')
    expect(tooLargeWords(limits.uploadBytes + 5e6)).toMatch(
      /^The file has \d+ MB; at most \d+ MB are taken\./,
    )
  })
  it('differences with their sign, and none for nothing', () => {
    expect([1.24, -0.44, -0.04].map((x) => signedWords(x, 1))).toEqual(['+1.2', '−0.4', '0.0'])
    expect(localToday(new Date(2031, 0, 5))).toBe('2031-01-05')
  })
  it('every stretch of ground joins its neighbours level', () => {
    for (const kind of ['roots', 'jump', 'drop', 'g-out'] as const) {
      const d = terrainPath(kind, 100, 22)
      expect(d.startsWith('M0.0 22.0')).toBe(true)
      expect(d.endsWith('100.0 22.0')).toBe(true)
    }
  })
})
