import { describe, expect, it } from 'vitest'
import type { SuspensionUnit } from '#contract/unit'
import { compareDials } from '../lineage/compare.ts'
import { DayBuilder, fork, shock } from '../test/dayBuilder.ts'
import { applyProfile, shiftsBetween } from './profile.ts'

const [base, wet] = new DayBuilder().change({ fp: 76, rr: 9 }, { linked: true }).history().setups
const units = [fork, shock]
const between = (a: typeof base, b: typeof base) =>
  shiftsBetween(compareDials({ positions: a.positions, units }, { positions: b.positions, units }))
const shifts = between(base, wet)

describe('a profile', () => {
  it('is the difference of two setups, by what the dials do', () => {
    expect(shifts).toEqual([
      { end: 'front', role: 'main-pressure', by: -4 },
      { end: 'rear', role: 'rebound', by: 2 },
    ])
    expect(between(base, base)).toEqual([])
  })
  it('on its own base gives the setup it was taken from', () => {
    for (const a of applyProfile(shifts, base, units))
      expect(a.to).toBe(wet.positions.find((p) => p.adjusterId === a.adjuster!.id)!.value)
  })
  it('on any other base moves by the same, to where the dial ends and no further', () => {
    const near = { positions: base.positions.map((p) => (p.adjusterId === 'rr' ? { ...p, value: 13 } : p)) }
    const rebound = applyProfile(shifts, near, units)[1]
    expect(rebound).toMatchObject({ from: 13, to: 14, cut: true })
  })
  it('turns nothing from a place that nobody has read', () => {
    const unread = { positions: base.positions.filter((p) => p.adjusterId !== 'rr') }
    expect(applyProfile(shifts, unread, units)[1]).toMatchObject({ from: null, to: null })
  })
  it('names the nearest dial where its own is not there, and leaves that one alone', () => {
    const plain = (u: SuspensionUnit): SuspensionUnit => ({
      ...u,
      adjusters: u.adjusters.map((a) =>
        a.kind === 'click' && a.role === 'low-speed-compression' ? { ...a, role: 'compression' as const } : a,
      ),
    })
    const applied = applyProfile([{ end: 'front', role: 'high-speed-compression', by: 1 }], base, [
      plain(fork),
      shock,
    ])[0]
    expect(applied).toMatchObject({ adjuster: null, to: null })
    expect(applied.instead?.role).toBe('compression')
    const none = applyProfile([{ end: 'front', role: 'preload', by: 1 }], base, units)[0]
    expect([none.adjuster, none.instead]).toEqual([null, null])
  })
})
