import { describe, expect, it } from 'vitest'
import { Bike } from '#contract/bike'
import type { DayBundle } from '#contract/endpoints'
import { PadReport } from '#contract/pad'
import { Rider } from '#contract/rider'
import type { Setup } from '#contract/setup'
import type { TentRider } from '#contract/tent'
import { Trail } from '#contract/trail'
import { SuspensionUnit } from '#contract/unit'
import { canStandAt } from '#core/adjusters/range'
import { sniffLayout } from '#core/formats/layout'
import { analyse } from '#core/telemetry/analyse'
import { ingestDelimited } from '#core/telemetry/ingest'
import { suggestMapping } from '#core/telemetry/mapping'
import { seededRandom } from '#core/numeric/random'
import { readBy } from '#core/setup/known'
import { idOf } from './ids.ts'
import { leverageOf } from '#core/linkage/leverage'
import { rideFile } from './sensors.ts'
import { days } from './days.ts'
import { nextDeed } from './tent/deeds.ts'
import { practiceAt } from './tent/plan.ts'
import { tentBikes, tentRiders, tentUnits } from './tent/world.ts'
import { bikes, riders, trails, units } from './world.ts'

describe('the practice of the demo', () => {
  it('sets only what the parts can do, at any hour it is begun, and everything before its present', () => {
    const adjusters = new Map(tentUnits.flatMap((u) => u.adjusters.map((a) => [a.id, a] as const)))
    for (const clock of ['00:30', '03:59', '04:00', '11:49', '23:59']) {
      const now = new Date(`2026-11-21T${clock}:00`)
      const { earlier, stories, tent, riders: inTent, hours } = practiceAt(now)
      for (const s of [...earlier, ...stories]) {
        for (const set of [s.start, ...s.steps.flatMap((x) => (x.do === 'change' ? [x.to] : []))])
          for (const [name, value] of Object.entries(set))
            expect(canStandAt(adjusters.get(idOf(name))!, value), `${name} ${value}`).toBe(true)
        const clocks = [s.readAt!, ...s.steps.map((x) => x.at!)]
        expect(clocks, s.key).toEqual([...clocks].sort())
        if (stories.includes(s)) expect(s.date).toBe(tent.date)
        else expect(s.date < tent.date, s.date).toBe(true)
      }
      for (const at of [...inTent.map((r) => r.since), ...hours.map((h) => h.at)])
        expect(Date.parse(at)).toBeLessThanOrEqual(now.getTime())
    }
  })
  it('has six riders: coil and air, two dials and many, one settled, one who has not ridden yet', () => {
    expect(tentRiders).toHaveLength(6)
    expect(tentBikes).toHaveLength(6)
    expect(new Set(tentUnits.map((u) => u.spring))).toEqual(new Set(['air', 'coil']))
    const { stories } = practiceAt(new Date('2026-11-21T11:49:00'))
    expect(stories.filter((s) => s.settled)).toHaveLength(1)
    expect(stories.filter((s) => s.steps.length === 0)).toHaveLength(1)
  })
  it('has one who rode elsewhere the week before and began today where that ended', () => {
    const { earlier, stories } = practiceAt(new Date('2026-11-21T11:49:00'))
    for (const before of earlier) {
      const turned = before.steps.flatMap((x) => (x.do === 'change' ? [x.to] : []))
      const today = stories.find((s) => s.bike === before.bike)!
      expect(today.trail).not.toBe(before.trail)
      expect(today.start).toEqual(Object.assign({}, before.start, ...turned))
    }
    expect(earlier).not.toHaveLength(0)
  })
})

describe('the demo world', () => {
  it('fits the contract', () => {
    for (const [schema, list] of [
      [Rider, riders],
      [SuspensionUnit, units],
      [Bike, bikes],
      [Trail, trails],
    ] as const)
      for (const x of list) expect(schema.parse(x)).toEqual(x)
  })
  it('gives the same ids every time, and different things different ones', () => {
    expect(idOf('ilka')).toBe(idOf('ilka'))
    const all = [...riders, ...units, ...bikes, ...trails, ...units.flatMap((u) => u.adjusters)].map(
      (x) => x.id,
    )
    expect(new Set(all).size).toBe(all.length)
  })
  it.each(days.map((d) => [d.key, d] as const))(
    'the %s day sets only what the parts can do, and names only real sections',
    (_, d) => {
      const adjusters = new Map(units.flatMap((u) => u.adjusters.map((a) => [a.id, a] as const)))
      const sections = trails.find((t) => t.id === idOf(d.trail))!.sections.map((s) => s.name)
      const settings = [d.start, ...d.steps.flatMap((s) => (s.do === 'change' ? [s.to] : []))]
      for (const set of settings)
        for (const [name, value] of Object.entries(set))
          expect(canStandAt(adjusters.get(idOf(name))!, value), `${name} ${value}`).toBe(true)
      for (const s of d.steps)
        if (s.do === 'run')
          for (const m of s.marks ?? []) if (m.section) expect(sections).toContain(m.section)
    },
  )
  it('has one settled day, a half-way one, a mess, a hot one and a wrong spring; riders with few dials too', () => {
    expect(days.filter((d) => d.settled).map((d) => d.key)).toEqual(['settled'])
    expect(days.map((d) => d.key).sort()).toEqual(['half-way', 'heat', 'mess', 'settled', 'spring'])
    expect(days.map((d) => d.date)).toEqual(days.map((d) => d.date).toSorted())
    expect(units.filter((u) => u.adjusters.length <= 2).length).toBeGreaterThanOrEqual(2)
  })
})

describe('the demo’s sensor files', () => {
  const trail = trails[0]
  const bike = bikes[0]
  const fitted = units.filter((u) => u.id === bike.frontUnitId || u.id === bike.rearUnitId)
  const ride = (rebound: number, seed = 41) => {
    const set: Record<string, number> = {
      'ilka fork psi': 78,
      'ilka fork spacers': 2,
      'ilka fork lsc': 10,
      'ilka fork rebound': 6,
      'ilka shock psi': 178,
      'ilka shock rebound': rebound,
    }
    const positions = fitted.flatMap((u) =>
      u.adjusters.flatMap((a) => {
        const named = Object.entries(set).find(([name]) => idOf(name) === a.id)
        return named ? [{ end: u.end, adjusterId: a.id, value: named[1] }] : []
      }),
    )
    const bytes = new TextEncoder().encode(
      rideFile({ bike, units: fitted, positions, ridingMassKg: 73 }, trail.sections, seed),
    )
    const r = ingestDelimited(bytes, suggestMapping(sniffLayout(bytes)), {
      frontTravelMm: 150,
      rearStrokeMm: 55,
      leverage: leverageOf(bike, 55),
    })
    return { recording: r, analysis: analyse(r, trail.sections) }
  }
  it('are read back by the importer without a complaint, at the axle, with sections by distance', () => {
    const { recording, analysis } = ride(6)
    expect(recording.issues).toEqual([])
    expect(recording.rearAt).toBe('axle')
    expect(analysis.sectionsBy).toBe('distance')
    expect(analysis.sections).toHaveLength(trail.sections.length)
  })
  it('show what the dial does: slower rebound rides deeper and sinks more through the roots', () => {
    const slow = ride(2).analysis
    const fast = ride(9).analysis
    expect(slow.whole.rear!.rideHeightPct).toBeGreaterThan(fast.whole.rear!.rideHeightPct + 1)
    expect(slow.sections[2].rear!.valleyDriftPctPerHit!).toBeGreaterThan(
      fast.sections[2].rear!.valleyDriftPctPerHit! + 0.3,
    )
  })
})

describe('a practice that lives', () => {
  const tentOf = (over: Partial<TentRider>): TentRider => ({
    id: idOf('day tent mika'),
    version: 1,
    tentId: idOf('tent practice'),
    number: 1,
    whereabouts: 'here',
    since: '2031-05-02T10:00:00.000Z',
    temper: 'number',
    named: false,
    ...over,
  })
  const bike = tentBikes.find((b) => b.id === idOf('mika bike'))!
  const units = tentUnits.filter((u) => u.id === bike.frontUnitId || u.id === bike.rearUnitId)
  const setup = {
    id: idOf('a setup'),
    bikeId: bike.id,
    positions: units.flatMap((u) =>
      u.adjusters.flatMap((a) =>
        a.kind === 'click'
          ? [{ end: u.end, adjusterId: a.id, value: 0, known: readBy({ at: '2031-05-02T08:00:00.000Z' }) }]
          : [],
      ),
    ),
  } as unknown as Setup
  const dayWith = (runs: number): DayBundle =>
    ({
      day: { id: idOf('day tent mika'), startSetupId: setup.id },
      bike: { ...bike, currentSetupId: setup.id },
      units,
      trail: trails[0],
      setups: [setup],
      runs: Array.from({ length: runs }, (_, i) => ({
        id: idOf(`run ${i}`),
        setupId: setup.id,
        kind: i ? 'counted' : 'warm-up',
      })),
      feels: [],
    }) as unknown as DayBundle
  const soon = '2031-05-02T10:00:05.000Z'
  const later = '2031-05-02T10:05:00.000Z'

  it('leaves alone who is settled, who has just come and who has just gone', () => {
    expect(nextDeed(tentOf({ whereabouts: 'settled' }), dayWith(3), () => 0, later)).toBeNull()
    for (const whereabouts of ['here', 'out', 'resting'] as const)
      expect(nextDeed(tentOf({ whereabouts }), dayWith(3), () => 0, soon)).toBeNull()
  })
  it('turns one dial by one click and never past its end; its runs begin when the rider went out', () => {
    const random = seededRandom(4)
    const adjusters = new Map(units.flatMap((u) => u.adjusters.map((a) => [a.id, a] as const)))
    let turns = 0
    for (let i = 0; i < 400; i++) {
      const deed = nextDeed(tentOf({}), dayWith(3), random, later)!
      if (deed.does !== 'turns') continue
      turns++
      const stood = new Map(setup.positions.map((p) => [p.adjusterId, p.value]))
      const moved = deed.setup.positions.filter((p) => p.value !== stood.get(p.adjusterId))
      expect(moved).toHaveLength(1)
      expect(canStandAt(adjusters.get(moved[0].adjusterId)!, moved[0].value)).toBe(true)
      expect(deed.setup.parentId).toBe(setup.id)
    }
    expect(turns).toBeGreaterThan(20)
    const out = nextDeed(tentOf({ whereabouts: 'out' }), dayWith(2), random, later)!
    expect(out).toMatchObject({
      does: 'comes in',
      run: { startedAt: '2031-05-02T10:00:00.000Z', kind: 'counted' },
    })
  })
  it('says only what the contract knows, and compares only where there is something to compare with', () => {
    const random = seededRandom(9)
    for (const runs of [0, 1, 3])
      for (let i = 0; i < 100; i++) {
        const deed = nextDeed(tentOf({ whereabouts: 'out' }), dayWith(runs), random, later)!
        if (deed.does !== 'comes in') throw new Error('they come in')
        expect(deed.run.kind).toBe(runs === 0 ? 'warm-up' : 'counted')
        if (!deed.report) continue
        expect(PadReport.parse(deed.report)).toEqual(deed.report)
        if (runs < 2) expect(deed.report.against).toBeNull()
      }
  })
})
