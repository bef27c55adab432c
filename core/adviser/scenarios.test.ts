import { describe, expect, it } from 'vitest'
import type { Adjuster } from '#contract/adjuster'
import type { CauseKind } from '#contract/proposal'
import {
  analysisWith,
  DayBuilder,
  fork,
  frontLsc,
  rearPressure,
  rearRebound,
  rearSpacers,
  shock,
  space,
  startPositions,
} from '../test/dayBuilder.ts'
import { advise } from './advise.ts'
import { bracketOf } from './bracket.ts'
import { outlookOf } from './decide.ts'
import type { SetupSpace } from './dayHistory.ts'
import {
  countedRuns,
  currentSetupId,
  rideHeightTargets,
  sessionOf,
  settingsKey,
  spaceOf,
  stillPossible,
} from './history.ts'
import { oneStep, remedyMoves } from './remedies.ts'
import { summarise } from './summary.ts'
import { findTangle } from './tangle.ts'
import { linearLeverage } from '../linkage/leverage.ts'
import { separatingTest, watchFor } from './watch.ts'

const positions = new Map(Object.entries(startPositions))
const coil: Adjuster = {
  id: 'coil',
  alias: null,
  tool: 'workshop',
  kind: 'spring-rate',
  role: 'spring-rate',
  ratesNPerMm: [70, 75, 80],
}
const turns: Adjuster = {
  id: 'turns',
  alias: null,
  tool: 'hand',
  kind: 'turn',
  role: 'rebound',
  turns: 4,
  stepTurns: 0.25,
  countBase: 'closed-0',
}

describe('what answers a cause', () => {
  const first = (kind: CauseKind, end: 'front' | 'rear' | null, s: SetupSpace = space) => {
    const m = remedyMoves(kind, end, s, positions)[0]
    return m ? `${m.end} ${m.adjuster.id} ${m.from}→${m.to}` : 'nothing'
  }
  it.each([
    ['spring-soft', 'front', 'front fp 80→83'],
    ['spring-firm', 'rear', 'rear rp 180→173'],
    ['ramp-low', 'rear', 'rear rs 1→2'],
    ['ramp-high', 'rear', 'rear rs 1→0'],
    ['lsc-open', 'front', 'front fc 8→7'],
    ['lsc-closed', 'front', 'front fc 8→9'],
    ['rebound-fast', 'rear', 'rear rr 7→6'],
    ['rebound-slow', 'front', 'front fr 6→7'],
    ['nose-low', null, 'front fp 80→83'],
    ['nose-high', null, 'front fp 80→77'],
    ['heat', null, 'rear rr 7→6'],
    ['cold', null, 'rear rr 7→8'],
  ] as const)('%s at %s: %s', (kind, end, move) => {
    expect(first(kind, end)).toBe(move)
  })
  it('no spacer at the front: the substitute comes with its side effect', () => {
    const m = remedyMoves('ramp-low', 'front', space, positions)[0]
    expect(m.adjuster.id).toBe('fp')
    expect(m.sideEffect).toMatch(/stands in for a missing spacer/)
  })
  it('a hardtail has no answer for the rear', () => {
    expect(first('rebound-fast', 'rear', { front: fork, rear: null })).toBe('nothing')
  })
  it('tyres, service and the rider are no dial', () => {
    for (const kind of ['tyres', 'stiction', 'line-or-rider', 'none'] as const)
      expect(first(kind, 'front')).toBe('nothing')
  })
})

describe('one step', () => {
  it('a coil goes to the next spring that is owned', () => {
    expect(oneStep(coil, 75, 1)).toBe(80)
    expect(oneStep(coil, 80, 1)).toBeNull()
    expect(oneStep(coil, 77, 1)).toBeNull()
  })
  it('a dial counted in turns moves a useful part of its range', () => {
    expect(oneStep(turns, 2, -1)).toBe(1.5)
  })
  it('pressure steps are never below what a gauge shows', () => {
    expect(oneStep({ ...rearPressure, minPsi: 10 } as Adjuster, 20, 1)).toBe(22)
  })
  it('a step that the limit cuts below 2 psi is none', () => {
    expect(oneStep(rearPressure, 299, 1)).toBeNull()
    expect(oneStep(rearPressure, 297, 1)).toBe(300)
  })
  it('no spacer above the number that is allowed', () => {
    expect(oneStep(rearSpacers, 3, 1)).toBeNull()
  })
})

describe('advice along a day', () => {
  it('a packing rear is opened while it gets better, and left when it is good', () => {
    const sinking = (drift: number) => ({
      analysis: analysisWith({}, { valleyDriftPctPerHit: drift, trains: 5 }),
    })
    const toward = (d: DayBuilder) => advise(d.history(), space).moves[0]
    const d = new DayBuilder()
      .run(5, [{ word: 'harsh-gets-worse', strength: 3 }], sinking(1.6))
      .run(5, [{ word: 'harsh-gets-worse', strength: 3 }], sinking(1.5))
    const first = toward(d)
    expect(first).toMatchObject({ adjusterId: 'rr', from: 7 })
    expect(first.to).toBeGreaterThan(7)
    d.change({ rr: 8 }, { source: 'proposal' }).run(6.5, [{ word: 'harsh-gets-worse' }], {
      ...sinking(1),
      against: [2, 1],
    })
    d.run(6.5, [{ word: 'harsh-gets-worse' }], sinking(1))
    const second = toward(d)
    expect(second).toMatchObject({ adjusterId: 'rr', from: 8 })
    expect(second.to).toBeGreaterThan(8)
    d.change({ rr: 9 }, { source: 'proposal' })
      .run(8.5, [{ word: 'good' }], { ...sinking(0.1), against: [4, 1] })
      .run(8.5, [], sinking(0.1))
    expect(['leave-it', 'settled', 'repeat']).toContain(advise(d.history(), space).kind)
  })
  it('is not sent back to a place that was worse', () => {
    const d = new DayBuilder()
      .run(7, [{ word: 'kicks', strength: 3 }])
      .run(7, [{ word: 'kicks', strength: 3 }])
    d.change({ rr: 6 })
      .run(4, [], { against: [2, -2] })
      .run(4)
    d.change({ rr: 7 }, { source: 'revert' }).run(7, [{ word: 'kicks', strength: 3 }])
    const p = advise(d.history(), space)
    expect(p.moves.find((m) => m.adjusterId === 'rr' && m.to === 6)).toBeUndefined()
  })
  it('a warm-up rating never counts', () => {
    const h = new DayBuilder()
      .run(2, [{ word: 'pogo' }], { kind: 'warm-up' })
      .run(8, [{ word: 'good' }])
      .history()
    expect(countedRuns(h)).toHaveLength(1)
    expect(sessionOf(h).setups).toHaveLength(1)
    expect(advise(h, space).kind).toBe('leave-it')
  })
  it('a crash is no evidence', () => {
    const d = new DayBuilder()
      .run(7)
      .change({ rr: 8 })
      .run(1, [{ word: 'kicks', strength: 3 }], { kind: 'void', voidReason: 'crash' })
    expect(sessionOf(d.history()).setups).toHaveLength(1)
  })
  it('a settled day stays silent whatever is said', () => {
    const h = {
      ...new DayBuilder().run(5, [{ word: 'pogo', strength: 3 }]).history(),
      settledSetupId: 'setup1',
    }
    expect(advise(h, space)).toMatchObject({ kind: 'leave-it', moves: [] })
    expect(summarise(h, space).settled).toBe(true)
  })
  it('tyres as the likeliest cause ask for a check, not for clicks', () => {
    const d = new DayBuilder()
      .run(6, [], { tyreFrontPsi: 20 })
      .run(6, [{ word: 'good', end: 'both' }], { tyreFrontPsi: 26 })
    const p = advise(d.history(), space)
    expect(['leave-it', 'check-first', 'repeat']).toContain(p.kind)
    expect(p.moves).toEqual([])
  })
  it('with nothing to turn it says so and names what is left', () => {
    const bare: SetupSpace = { front: { ...fork, adjusters: [] }, rear: { ...shock, adjusters: [] } }
    const p = advise(new DayBuilder({}).run(5, [{ word: 'pogo', strength: 3 }]).history(), bare)
    expect(p.kind).toBe('check-first')
    expect(p.watchFor).toMatch(/spacers, another spring, or a workshop/)
  })
})

describe('tangles', () => {
  it('spring with rebound of one end, linked, is one change', () => {
    expect(
      findTangle(new DayBuilder().run(6).change({ rp: 186, rr: 6 }, { linked: true }).history(), space),
    ).toBeNull()
  })
  it('front and rear at once are a tangle, linked or not', () => {
    expect(
      findTangle(new DayBuilder().run(6).change({ fc: 7, rr: 6 }, { linked: true }).history(), space)!.moves,
    ).toHaveLength(2)
  })
  it('linked with a reason they are one change for ever', () => {
    const h = new DayBuilder().run(6).change({ fc: 7, rr: 6 }, { linked: true }).run(7).history()
    const last = h.setups.at(-1)!
    const reasoned = { ...last, reason: { ...last.reason, text: 'for the long descent' } }
    expect(findTangle({ ...h, setups: [...h.setups.slice(0, -1), reasoned] }, space)).toBeNull()
    const unlinked = { ...reasoned, reason: { ...reasoned.reason, linked: false } }
    expect(findTangle({ ...h, setups: [...h.setups.slice(0, -1), unlinked] }, space)).not.toBeNull()
  })
  it('going back is no tangle, however much it moves', () => {
    const d = new DayBuilder()
      .run(6)
      .change({ rr: 9 })
      .change({ fc: 11 })
      .change({ rr: 7, fc: 8 }, { source: 'revert', linked: true })
    expect(findTangle(d.history(), space)).toBeNull()
  })
  it('two changes that cancel each other are none', () => {
    expect(
      findTangle(new DayBuilder().run(6).change({ rr: 9 }).change({ rr: 7 }).history(), space),
    ).toBeNull()
  })
})

describe('brackets', () => {
  it('are silent about a dial that never moved', () => {
    const h = new DayBuilder().run(6).change({ rr: 8 }).run(7).history()
    expect(bracketOf(h, frontLsc, sessionOf(h), outlookOf(h, space))).toBeNull()
    expect(summarise(h, space).brackets.map((b) => b.adjuster.id)).toEqual(['rr'])
  })
  it('count the runs at each place', () => {
    const h = new DayBuilder().run(6).run(6).change({ rr: 9 }).run(7).history()
    expect(
      bracketOf(h, rearRebound, sessionOf(h), outlookOf(h, space))!.tried.map((t) => [t.value, t.runs]),
    ).toEqual([
      [7, 2],
      [9, 1],
    ])
  })
  it('stay open on the side beyond the best place that was tried, and closed where it was clearly worse', () => {
    const h = new DayBuilder().run(4).run(4).change({ rr: 9 }).run(8).run(8).history()
    const b = bracketOf(h, rearRebound, sessionOf(h), outlookOf(h, space))!
    expect(b).toMatchObject({ lowOpen: false, highOpen: true })
    expect(b.low).toBeGreaterThanOrEqual(7)
    expect(b.high).toBeGreaterThan(9)
  })
})

describe('history', () => {
  it('equal settings are one, whatever the record or the order', () => {
    const [a, b, c] = new DayBuilder().change({ rr: 9 }).change({ rr: 7 }).history().setups
    expect(settingsKey(a)).toBe(settingsKey({ ...c, positions: [...c.positions].reverse() }))
    expect(settingsKey(a)).not.toBe(settingsKey(b))
  })
  it('what is on the bike is the last setup of the day, or the one it began with', () => {
    const h = new DayBuilder().change({ rr: 9 }).history()
    const past = {
      day: { id: 'day', startSetupId: 'setup1' },
      latest: false,
      bike: { currentSetupId: 'other' },
    }
    const of = (over: object) => currentSetupId({ ...past, setups: h.setups, ...over } as never)
    expect(of({})).toBe('setup2')
    expect(of({ setups: h.setups.map((s) => ({ ...s, dayId: null })) })).toBe('setup1')
    // On the last day of a bike it is what is on the bike now, wherever that was set.
    const bench = { ...h.setups[0], id: 'bench', dayId: null }
    expect(of({ latest: true, setups: [...h.setups, bench], bike: { currentSetupId: 'bench' } })).toBe(
      'bench',
    )
    expect(of({ setups: [...h.setups, bench], bike: { currentSetupId: 'bench' } })).toBe('setup2')
  })
  it('a recount can make an old setup impossible', () => {
    const s = new DayBuilder({ ...startPositions, rr: 14 }).history().setups[0]
    expect(stillPossible(s, space)).toBe(true)
    const shorter = {
      ...shock,
      adjusters: shock.adjusters.map((a) => (a.kind === 'click' ? { ...a, clicks: 10 } : a)),
    }
    expect(stillPossible(s, spaceOf([fork, shorter]))).toBe(false)
    expect(stillPossible(s, spaceOf([fork]))).toBe(false)
  })
})

describe('ride height targets', () => {
  const linked = { ...space, leverage: linearLeverage(2.95, 2.4, 55) }
  it('are turned from stroke to wheel travel where the recording is at the axle', () => {
    expect(rideHeightTargets(linked, 'axle').rear).toBeCloseTo(32.16, 2)
    expect(rideHeightTargets(linked, 'shaft').rear).toBe(30)
    expect(rideHeightTargets(space, 'axle')).toEqual({ front: 20, rear: 30 })
  })
  it('come from the bike', () => {
    const bike = { leverageCurve: null, leverageStart: 3, leverageEnd: null }
    expect(spaceOf([fork, shock], bike).leverage).toBeNull()
    expect(spaceOf([fork, shock], { ...bike, leverageEnd: 2.5 }).leverage).toEqual(linearLeverage(3, 2.5, 55))
  })
})

describe('what to watch for', () => {
  const kinds: CauseKind[] = [
    'rebound-slow',
    'rebound-fast',
    'spring-soft',
    'spring-firm',
    'ramp-low',
    'ramp-high',
    'lsc-open',
    'lsc-closed',
    'hsc-open',
    'hsc-closed',
    'nose-low',
    'heat',
    'tyres',
  ]
  it.each(kinds)('%s has something to look out for and something that would prove it wrong', (kind) => {
    const { watch, changeOurMind } = watchFor(kind, 'rear', 'Root web')
    expect(watch.length).toBeGreaterThan(20)
    expect(changeOurMind.length).toBeGreaterThan(20)
    expect(watch + changeOurMind).not.toMatch(/!|\bmore rebound\b/)
  })
  it('a test for two look-alikes does not depend on their order', () => {
    expect(separatingTest('rebound-fast', 'rebound-slow', 'rear')).toBe(
      separatingTest('rebound-slow', 'rebound-fast', 'rear'),
    )
    expect(separatingTest('spring-soft', 'spring-firm', 'rear')).toMatch(/sag at the shock/)
  })
})
