import { describe, expect, it } from 'vitest'
import { practiceDay, type PracticeAct } from './day.ts'
import { drillOf, drills } from './drills.ts'
import { hiddenRider } from './hiddenRider.ts'
import { bestPlaces, lossAtOffsets, type Likes } from './landscape.ts'
import { rideOf } from './ride.ts'
import { hiddenWords } from './review/hidden.ts'
import { varied, variations, type Variation } from './vary.ts'

const rings = { front: 128, rear: 48 }
const ride: PracticeAct = { do: 'ride', ringMm: rings }
const drill = (key: string) => drillOf(key)!
const seeds = [1, 2, 3, 7, 40, 999_999]
const mean = (x: number[]) => x.reduce((s, v) => s + v, 0) / x.length

describe('a hidden rider', () => {
  it.each(drills.map((d) => d.key))(
    'of "%s" can be found: the best is within reach, and costs nothing',
    (key) => {
      for (const seed of seeds) {
        const rider = hiddenRider(drill(key), seed)
        const best = bestPlaces(rider.likesAt(1))
        const there = Object.fromEntries(rider.dials.map((d, k) => [d.adjuster.id, best[k]]))
        expect(rider.lossAt(there, 1)).toBe(0)
        for (const d of rider.dials) {
          const at = d.toClicks(rider.start[d.adjuster.id])
          expect(at).toBeGreaterThanOrEqual(d.low)
          expect(at).toBeLessThanOrEqual(d.high)
        }
      }
    },
  )

  it('stands as far off as its drill says, and the way that is told', () => {
    for (const seed of seeds) {
      const soft = hiddenRider(drill('kicks'), seed)
      expect(hiddenWords(soft, 1)).toEqual([expect.stringMatching(/^rear pressure \d+ psi too low$/)])
      const packing = hiddenRider(drill('kicks-again'), seed)
      expect(hiddenWords(packing, 1)).toEqual([expect.stringMatching(/^rear rebound [34] clicks too slow$/)])
      const bottoms = hiddenRider(drill('bottoms'), seed)
      expect(hiddenWords(bottoms, 1)).toEqual(['rear spacers 2 too few'])
      const two = hiddenRider(drill('car-park'), seed)
      expect(hiddenWords(two, 1).join()).toMatch(/rear rebound [34] clicks too fast/)
      expect(hiddenWords(two, 1).join()).toMatch(/front low-speed compression [45] clicks too soft/)
      expect(hiddenWords(hiddenRider(drill('sent-to-you'), seed), 1)).toEqual([])
    }
  })

  it('is the same for the same address, another for another seed or drill', () => {
    const told = (key: string, seed: number) => {
      const r = hiddenRider(drill(key), seed)
      return JSON.stringify([r.start, [1, 2, 3, 4].map((n) => r.tell(r.start, n))])
    }
    expect(told('two-faults', 5)).toBe(told('two-faults', 5))
    const many = new Set(Array.from({ length: 40 }, (_, i) => told('two-faults', i + 1)))
    expect(many.size).toBe(40)
    expect(told('kicks', 5)).not.toBe(told('kicks-again', 5))
  })

  it('tells of a run alike whatever was asked, read or ridden before', () => {
    const rider = hiddenRider(drill('noisy-rider'), 4)
    const plain = practiceDay(rider, [ride, ride, ride]).bundle.feels.map((f) => [f.rating, f.marks])
    const asked = practiceDay(rider, [
      ride,
      { do: 'read', end: 'rear' },
      { do: 'ask', question: 'sinks-when', end: 'front' },
      ride,
      { do: 'read', end: 'front' },
      ride,
    ]).bundle.feels.map((f) => [f.rating, f.marks])
    expect(asked).toEqual(plain)
  })

  it('noted by hand a day knows of a run what was noted, and nothing of what was only said', () => {
    const rider = hiddenRider(drill('noisy-rider'), 4)
    const byHand: PracticeAct = { do: 'ride', ringMm: rings, byHand: true }
    const note = (run: number, rating: number): PracticeAct => ({
      do: 'note',
      run,
      feel: { rating, marks: [], verdicts: [], note: 'as heard' },
    })
    const ask: PracticeAct = { do: 'ask', question: 'sinks-when', end: 'front' }
    const feels = (acts: PracticeAct[]) => practiceDay(rider, acts).bundle.feels
    expect(feels([byHand])[0]).toMatchObject({ rating: null, marks: [], note: '' })
    expect(practiceDay(rider, [byHand]).runs[0].said.rating).toBe(feels([ride])[0].rating)
    // A note says nothing of a run that was told, of another one, or of one that was never ridden.
    expect(feels([ride, note(1, 2)])).toEqual(feels([ride]))
    expect(feels([byHand, byHand, note(2, 3), note(9, 4)]).map((f) => f.rating)).toEqual([null, 3])
    // What was asked stays, and the rider tells the next run alike.
    const asked = feels([byHand, note(1, 2.5), ask, ride])
    expect(asked[0]).toMatchObject({ rating: 2.5, note: 'as heard' })
    expect(asked[0].answers).toHaveLength(1)
    expect(asked[1]).toEqual(feels([ride, ride])[1])
  })

  it('scatters as its drill says: rounded to halves, the spread of many runs on one setup', () => {
    const rider = hiddenRider(drill('noisy-rider'), 12)
    const best = bestPlaces(rider.likesAt(1))
    // A little off, so that the scale does not end above.
    const at = Object.fromEntries(rider.dials.map((d, k) => [d.adjuster.id, best[k]]))
    at.rr += 3
    const ratings = Array.from({ length: 2000 }, (_, i) => rider.tell(at, i + 1).rating)
    const m = mean(ratings)
    const sd = Math.sqrt(mean(ratings.map((r) => (r - m) ** 2)))
    // Rounding to halves adds a twelfth of 0.5², a uniform error.
    expect(sd).toBeCloseTo(Math.sqrt(1.1 ** 2 + 0.25 / 12), 1)
  })

  it('is rated lower by what is lost, on average', () => {
    const rider = hiddenRider(drill('kicks-again'), 3)
    const best = {
      ...rider.start,
      rr: bestPlaces(rider.likesAt(1))[rider.dials.findIndex((d) => d.adjuster.id === 'rr')],
    }
    const over = (p: Record<string, number>) =>
      mean(Array.from({ length: 400 }, (_, i) => rider.tell(p, i + 1).rating))
    expect(over(best) - over(rider.start)).toBeCloseTo(
      rider.lossAt(rider.start, 1) - rider.lossAt(best, 1),
      1,
    )
  })

  it('shows its spring by sag, which a damper does not move', () => {
    const rider = hiddenRider(drill('kicks'), 9)
    const read = (p: Record<string, number>) =>
      mean(Array.from({ length: 200 }, (_, i) => rider.sagPct('rear', p, 1, i)))
    const best = {
      ...rider.start,
      rp: bestPlaces(rider.likesAt(1))[rider.dials.findIndex((d) => d.adjuster.id === 'rp')],
    }
    expect(read(best)).toBeGreaterThan(29)
    expect(read(best)).toBeLessThan(31)
    expect(read(rider.start)).toBeGreaterThan(32.5)
    expect(read({ ...rider.start, rr: 2 })).toBeCloseTo(read(rider.start), 6)
  })

  it('is right in the cool and not in the heat, and says since when', () => {
    const rider = hiddenRider(drill('noon-heat'), 2)
    const losses = [1, 2, 3, 4, 5, 6, 9].map((n) => rider.lossAt(rider.start, n))
    expect(losses[0]).toBeLessThan(0.25)
    expect(losses[5]).toBeGreaterThan(rider.noticeable)
    expect(losses[6]).toBe(losses[5])
    // The air in the spring is warm too: sag that was right reads short of its target at noon.
    const sag = (run: number) =>
      mean(Array.from({ length: 200 }, (_, i) => rider.sagPct('rear', rider.start, run, i)))
    expect(sag(6)).toBeLessThan(sag(1) - 0.7)
    expect(rider.answer({ id: 'since-hot', end: null }, rider.start, 1, null)).toBe('all-along')
    expect(rider.answer({ id: 'since-hot', end: null }, rider.start, 6, null)).toBe('since-hot')
  })

  it('cannot feel a dead dial, wherever it stands', () => {
    const rider = hiddenRider(drill('dials-everywhere'), 2)
    const here = rider.lossAt(rider.start, 1)
    for (const rc of [0, 8, 16]) expect(rider.lossAt({ ...rider.start, rc }, 1)).toBeCloseTo(here, 1)
    expect(rider.lossAt({ ...rider.start, rr: 0 }, 1)).not.toBeCloseTo(here, 1)
  })

  it.each(Object.keys(variations))('keeps its faults when it is varied: %s', (by) => {
    for (const d of drills) {
      const [plain, other] = [hiddenRider(d, 6), hiddenRider(varied(d, by as Variation), 6)]
      expect(other.start).toEqual(plain.start)
      expect(other.likesAt(1).best).toEqual(plain.likesAt(1).best)
    }
  })

  it('silent says no word but that nothing is wrong', () => {
    const rider = hiddenRider(varied(drill('two-faults'), 'silent'), 1)
    const words = Array.from({ length: 50 }, (_, i) => rider.tell(rider.start, i + 1).marks).flat()
    expect(words.filter((m) => m.word !== 'good')).toEqual([])
  })
})

describe('a landscape', () => {
  const rider = hiddenRider(drill('one-fault'), 1)
  const likes = rider.likesAt(1)
  it('is lowest at its best place and rises to both sides', () => {
    for (let k = 0; k < likes.dials.length; k++)
      for (const s of [-1, 1])
        for (let u = 0; u < 6; u++) {
          const at = (x: number) =>
            lossAtOffsets(
              likes,
              likes.dials.map((_, i) => (i === k ? s * x : 0)),
            )
          expect(at(u + 1)).toBeGreaterThan(at(u))
        }
  })
  it('adds what dials cost that do not act on each other; hides or sharpens where they do', () => {
    const both = (rho: number) => {
      const coupled: Likes = { ...likes, couplings: rho === 0 ? [] : [{ i: 0, j: 1, rho }] }
      return lossAtOffsets(
        coupled,
        likes.dials.map((_, i) => (i < 2 ? 2 : 0)),
      )
    }
    const alone = (k: number) =>
      lossAtOffsets(
        likes,
        likes.dials.map((_, i) => (i === k ? 2 : 0)),
      )
    expect(both(0)).toBeCloseTo(alone(0) + alone(1), 9)
    expect(both(-0.5)).toBeLessThan(both(0))
    expect(both(0.5)).toBeGreaterThan(both(0))
  })
})

describe('a ride of practice', () => {
  const depthIn = (c: ReturnType<typeof rideOf>, section: string, end: 'front' | 'rear') => {
    const { startS, endS } = c.sections.find((s) => s.id === section)!
    const [a, b] = [startS, endS].map((t) => Math.round(t * c.sampleRateHz))
    return mean([...c.depthPct[end].subarray(a, b)])
  }
  it('shows what the half-car makes of the same clicks: a soft spring rides deep, a slow rebound packs down', () => {
    const rider = hiddenRider(drill('something-behind'), 3)
    const at = (over: Record<string, number>) => rideOf(rider, { ...rider.start, ...over }, 1)
    const best = bestPlaces(rider.likesAt(1))
    const right = Object.fromEntries(rider.dials.map((d, k) => [d.adjuster.id, best[k]]))
    const good = at(right)
    const soft = at({ ...right, rp: right.rp - 20 })
    const slow = at({ ...right, rr: 1 })
    expect(soft.ringMm.rear).toBeGreaterThan(good.ringMm.rear)
    expect(depthIn(soft, 'berms', 'rear')).toBeGreaterThan(depthIn(good, 'berms', 'rear'))
    expect(depthIn(slow, 'web', 'rear')).toBeGreaterThan(depthIn(good, 'web', 'rear'))
    // The other end was not touched.
    expect(Math.abs(soft.ringMm.front - good.ringMm.front)).toBeLessThanOrEqual(4)
  })
  it('is the same for the same run, and another line for the next', () => {
    const rider = hiddenRider(drill('few-dials'), 3)
    const [a, again, next] = [1, 1, 2].map((n) => rideOf(rider, rider.start, n).depthPct.front)
    expect(again).toEqual(a)
    expect(next).not.toEqual(a)
  })
  it('lays the parts of the trail one after the other, over all of it', () => {
    const rider = hiddenRider(drill('few-dials'), 3)
    const c = rideOf(rider, rider.start, 1)
    expect(c.sections[0].startS).toBe(0)
    c.sections.slice(1).forEach((s, i) => expect(s.startS).toBe(c.sections[i].endS))
    expect(c.sections.at(-1)!.endS).toBeCloseTo(c.depthPct.front.length / c.sampleRateHz, 0)
  })
})

describe('a day of practice', () => {
  const rider = hiddenRider(drill('kicks'), 1)
  const turn = (to: Record<string, number>): PracticeAct => ({
    do: 'turn',
    to,
    linked: false,
    text: '',
    source: 'own-idea',
  })
  it('keeps what a run was ridden on, and turns nothing by reading', () => {
    const { rr } = rider.start
    const d = practiceDay(rider, [ride, turn({ rr: rr - 2 }), { do: 'read', end: 'rear' }, ride])
    expect(d.runs.map((r) => r.positions.rr)).toEqual([rr, rr - 2])
    const now = d.bundle.setups.at(-1)!
    expect(now.positions.find((p) => p.adjusterId === 'rr')?.value).toBe(rr - 2)
    expect(now.foundIn?.sagRearPct).toBeGreaterThan(20)
    expect(d.bundle.bike.currentSetupId).toBe(now.id)
  })
  it('holds an answer with the run it was about', () => {
    const d = practiceDay(rider, [ride, { do: 'ask', question: 'kicks-when', end: 'rear' }, ride])
    expect(d.bundle.feels.map((f) => f.answers.length)).toEqual([1, 0])
  })
  it('says nothing of what is hidden', () => {
    const text = JSON.stringify(practiceDay(rider, [ride, ride]).bundle)
    expect(text).not.toMatch(/best|fault|hidden|off-by/i)
    const place = bestPlaces(rider.likesAt(1))[rider.dials.findIndex((x) => x.adjuster.id === 'rp')]
    expect(text).not.toContain(`"value":${place},`)
  })
})

describe('what is written and where it stands', () => {
  const turn = (to: Record<string, number>): PracticeAct => ({
    do: 'turn',
    to,
    linked: false,
    text: '',
    source: 'own-idea',
  })
  const look = (adjusterId: string): PracticeAct => ({ do: 'look', adjusterId })
  const writtenIn = (d: ReturnType<typeof practiceDay>, id: string) =>
    d.bundle.setups.at(-1)!.positions.find((p) => p.adjusterId === id)!

  it('are the same wherever no drill says otherwise, whatever is looked at', () => {
    for (const d of drills.filter((x) => !x.miscounted && !x.leaks))
      for (const seed of seeds) {
        const rider = hiddenRider(d, seed)
        expect(rider.written).toEqual(rider.start)
        const looks = rider.dials.map((x) => look(x.adjuster.id))
        const day = practiceDay(rider, [...looks, ride, ...looks, ride])
        expect(day.written).toEqual(rider.start)
        for (const { written, stood } of day.looked.values()) expect(stood).toBe(written)
        expect(day.runs.map((r) => r.gaps)).toEqual([{}, {}])
      }
  })

  it('differ for a count that is wrong: the card is right, and the rider feels where it stands', () => {
    for (const seed of seeds) {
      const rider = hiddenRider(drill('lost-count'), seed)
      expect(rider.lossAt({ ...rider.start, rr: rider.written.rr }, 1)).toBeCloseTo(0, 9)
      expect(Math.abs(rider.start.rr - rider.written.rr)).toBeGreaterThanOrEqual(3)
      const fresh = practiceDay(rider, [])
      expect(writtenIn(fresh, 'rr')).toMatchObject({ value: rider.written.rr, known: { how: 'assumed' } })
      // Counted, then turned to where the card says: as good as it gets.
      const mended = practiceDay(rider, [look('rr'), turn({ rr: rider.written.rr }), ride])
      expect(mended.looked.has('rr')).toBe(false)
      expect(rider.lossAt(mended.runs[0].positions, 1)).toBeCloseTo(0, 9)
      // Turned by the card alone it stays as far off as it was.
      const blind = practiceDay(rider, [turn({ rr: rider.written.rr + 1 }), ride])
      expect(blind.runs[0].positions.rr).toBe(rider.start.rr + 1)
      expect(practiceDay(rider, [look('rr')]).looked.get('rr')).toEqual({
        written: rider.written.rr,
        stood: rider.start.rr,
      })
    }
  })

  it('meet at a stop that a hand comes to on the way, which then is read', () => {
    for (const seed of seeds) {
      const rider = hiddenRider(drill('lost-count'), seed)
      const gap = rider.start.rr - rider.written.rr
      // The end of the range that it comes to too early.
      const end = gap > 0 ? 14 : 0
      const day = practiceDay(rider, [turn({ rr: end - gap + Math.sign(gap) })])
      expect(day.stopped).toEqual(['rr'])
      expect([day.positions.rr, day.written.rr, writtenIn(day, 'rr').value]).toEqual([end, end, end])
      expect(practiceDay(rider, [turn({ rr: rider.written.rr })]).stopped).toEqual([])
    }
  })

  it('drift apart where a unit leaks, until a gauge says so or a pump fills it', () => {
    const rider = hiddenRider(drill('slow-leak'), 3)
    const { rp } = rider.start
    const three = practiceDay(rider, [ride, ride, ride])
    const stood = three.runs.map((r) => r.positions.rp)
    expect(stood[0]).toBe(rp)
    expect(stood[1]).toBeLessThan(stood[0])
    expect(stood[2]).toBeLessThan(stood[1])
    expect(writtenIn(three, 'rp').value).toBe(rp)
    const losses = three.runs.map((r) => rider.lossAt(r.positions, r.number))
    expect(losses[2]).toBeGreaterThan(losses[0] + 0.5)
    const gauged = practiceDay(rider, [ride, ride, look('rp')])
    expect(writtenIn(gauged, 'rp').value).toBe(gauged.positions.rp)
    expect(gauged.positions.rp).toBeLessThan(rp)
    const filled = practiceDay(rider, [ride, ride, look('rp'), turn({ rp }), ride])
    expect(filled.runs[2].positions.rp).toBe(rp)
    // Nothing else goes.
    expect(practiceDay(rider, [ride, ride]).positions).toEqual({ ...rider.start, rp: expect.any(Number) })
  })

  it('are not touched by a sensor that creeps: the trace sinks, the ring stands where it stood', () => {
    const creeping = hiddenRider(drill('creeping-sensor'), 2)
    const sound = hiddenRider({ ...drill('creeping-sensor'), creeps: undefined }, 2)
    const [wrong, right] = [creeping, sound].map((r) => [1, 4].map((n) => rideOf(r, r.start, n)))
    expect(wrong.map((c) => c.ringMm)).toEqual(right.map((c) => c.ringMm))
    expect(wrong[0].depthPct.front).toEqual(right[0].depthPct.front)
    expect(wrong[1].depthPct.rear).toEqual(right[1].depthPct.rear)
    expect(mean([...wrong[1].depthPct.front]) - mean([...right[1].depthPct.front])).toBeCloseTo(12, 3)
    expect(creeping.tell(creeping.start, 4)).toEqual(sound.tell(sound.start, 4))
  })

  it('are told at the end, and not before', () => {
    const words = (key: string) => hiddenWords(hiddenRider(drill(key), 1), 3)
    expect(words('lost-count')).toEqual([
      expect.stringMatching(/^rear rebound [34] clicks too (fast|slow), and not where the card says$/),
    ])
    expect(words('slow-leak')).toEqual(['rear pressure lost some with every run'])
    expect(words('creeping-sensor').at(-1)).toBe('front sensor showed 4 % of travel deeper with every run')
  })
})
