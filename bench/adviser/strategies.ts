import type { Proposal } from '#contract/proposal'
import { advise } from '#core/adviser/advise'
import { outlookOf, type Outlook } from '#core/adviser/decide'
import type { DayHistory } from '#core/adviser/dayHistory'
import type { Memory } from '#core/adviser/memory/remembered'
import { keepOf } from '#core/adviser/keep'
import { stepsOf } from '#core/adviser/candidates'
import { answersOf } from '#core/adviser/remedies'
import { markCauses } from '#core/causes/marks'
import { isComplaint } from '#core/causes/words'
import { seededRandom } from '#core/numeric/random'
import { DayBuilder } from '#core/test/dayBuilder'
import { gaussianProcess } from './gaussianProcess.ts'
import type { TestRider } from './riders.ts'
import type { Positions } from '#core/practice/landscape'
import type { Claims, Strategy } from './strategy.ts'

export type StrategyName =
  'wild-spring' | 'gaussian-process' | 'one-at-a-time' | 'careful-bracketing' | 'follow-the-words' | 'random'

export const strategies: Record<StrategyName, (rider: TestRider, seed: number) => Strategy> = {
  'wild-spring': (rider) => ourAdviser(rider),
  'gaussian-process': gaussianProcess,
  'one-at-a-time': (rider) => bracketing(rider, 1, 0),
  'careful-bracketing': (rider) => bracketing(rider, 2, 0.25),
  'follow-the-words': followWords,
  random: randomSearch,
}

/** A rider is asked no more than this between two runs. */
const mostAsked = 3

/**
 * Does what the product's cards say.
 *
 * @param start where the day begins; the rider's own start when left out
 */
export function ourAdviser(
  rider: TestRider,
  start: Positions = rider.start,
  memory: Memory | null = null,
): Strategy & { history: () => DayHistory } {
  let now = { ...start }
  const day = new DayBuilder(now).allow(1000).remembering(memory)
  let runs = 0
  let claims: Claims | null = null
  let kept = now
  const look = () => {
    const h = day.history()
    let known: Outlook | null = null
    const outlook = () => (known ??= outlookOf(h, rider.space))
    const p = advise(h, rider.space, outlook)
    return { h, p, s: outlook() }
  }
  const turnTo = (to: Positions, source: 'revert' | 'proposal') => {
    if (Object.keys(to).length === 0) return
    now = { ...now, ...to }
    day.change(to, { linked: source === 'proposal' && Object.keys(to).length > 1, source })
  }
  return {
    history: () => day.history(),
    keep: () => kept,
    claims: () => claims,
    next: (felt) => {
      runs++
      day.run(felt.rating, felt.marks, {
        ...(felt.analysis ? { analysis: felt.analysis } : {}),
        ...(felt.against !== null && runs > 1 ? { against: [runs - 1, felt.against] } : {}),
      })
      let { h, s, p } = look()
      // Questions and readings cost no run: they are answered at once, as on a trail day.
      for (let asked = 0; asked < mostAsked && (p.question || p.readEnd || p.lookAt.length > 0); asked++) {
        if (p.question) {
          const { id, end } = p.question
          day.answer({ question: id, end, answer: rider.answer(p.question, now) })
        } else if (p.readEnd) day.readSag(p.readEnd, rider.sagPct(p.readEnd, now))
        // What these riders write down is where it stands.
        else day.look(Object.fromEntries(p.lookAt.map((id) => [id, now[id]])))
        ;({ h, s, p } = look())
      }
      claims = claimsOf(s, p, now)
      kept = Object.fromEntries(keepOf(h, s)!.positions.map((x) => [x.adjusterId, x.value]))
      if (p.kind === 'settled') kept = now
      if (p.kind === 'settled') return { ride: now, settled: true }
      if (p.setupId) {
        const back = h.setups.find((x) => x.id === p.setupId)!
        turnTo(Object.fromEntries(back.positions.map((x) => [x.adjusterId, x.value])), 'revert')
        // What is next may be turned from there at once.
        p = look().p
      }
      if (!p.setupId) turnTo(Object.fromEntries(p.moves.map((m) => [m.adjusterId, m.to])), 'proposal')
      return { ride: now, settled: false }
    },
  }
}

function claimsOf(s: Outlook, p: Proposal, now: Positions): Claims {
  const { surface } = s
  const brackets = s.dials.map((_, k) => {
    const best = Array.from({ length: surface.samples }, (_, i) => surface.best[i * surface.dials + k])
    best.sort((a, b) => a - b)
    const at = (share: number) => best[Math.min(best.length - 1, Math.floor(share * best.length))]
    return { low: at(0.1), high: at(0.9) }
  })
  const to = { ...now, ...Object.fromEntries(p.moves.map((m) => [m.adjusterId, m.to])) }
  return {
    change: p.outlook && p.moves.length > 0 ? { better: p.outlook.better, to } : null,
    doubt: s.doubt,
    noticeable: s.noticeable,
    brackets,
  }
}

/**
 * Dial after dial: two clicks one way, on while it gets better, else the other way, then one click; `repeats` rides of
 * each setting, and a gain of at least `margin`. Settled after a round that changed nothing.
 */
function bracketing(rider: TestRider, repeats: number, margin: number): Strategy {
  let base = { ...rider.start }
  let baseRating: number | null = null
  let trial: Positions = base
  let heard: number[] = []
  let dial = 0
  let tries = 0
  let changed = false
  const moves = [2, -2, 1, -1]
  const wanted = (): Positions | null => {
    const d = rider.dials[dial]
    const from = base[d.adjuster.id]
    const steps = stepsOf(d, from)
    const direction = Math.sign(moves[tries])
    const side = steps
      .filter((x) => Math.sign(x - from) === direction)
      .sort((a, b) => Math.abs(a - from) - Math.abs(b - from))
    const to = side[Math.min(side.length, Math.abs(moves[tries])) - 1]
    return to === undefined ? null : { ...base, [d.adjuster.id]: to }
  }
  const advance = (): boolean => {
    tries++
    if (tries < moves.length) return false
    tries = 0
    dial++
    if (dial < rider.dials.length) return false
    dial = 0
    const done = !changed
    changed = false
    return done
  }
  return {
    keep: () => base,
    next: (felt) => {
      heard.push(felt.rating)
      if (heard.length < repeats) return { ride: trial, settled: false }
      const rating = heard.reduce((s, x) => s + x, 0) / heard.length
      heard = []
      let done = false
      if (baseRating === null) baseRating = rating
      else if (rating > baseRating + margin) {
        base = trial
        baseRating = rating
        changed = true
      } else done = advance()
      for (let i = 0; !done && i < 8; i++) {
        const to = wanted()
        if (to) {
          trial = to
          return { ride: trial, settled: false }
        }
        done = advance()
      }
      return { ride: base, settled: done }
    },
  }
}

/** Does what the first word asks for, one step; settled after two runs without a complaint. */
function followWords(rider: TestRider): Strategy {
  let now = { ...rider.start }
  let quiet = 0
  return {
    keep: () => now,
    next: (felt) => {
      const mark = felt.marks.find((m) => isComplaint(m.word))
      quiet = mark ? 0 : quiet + 1
      if (!mark || mark.end === 'both') return { ride: now, settled: quiet >= 2 }
      for (const c of markCauses(mark.word, mark.end, null)) {
        const [a] = answersOf(c.kind, c.end, rider.space)
        const d = a && rider.dials.find((x) => x.adjuster.id === a.adjuster.id)
        if (!d) continue
        const from = now[d.adjuster.id]
        const steps = stepsOf(d, from).filter((x) => Math.sign(x - from) === a.direction)
        const to = a.direction > 0 ? steps[0] : steps[steps.length - 1]
        if (to === undefined) continue
        now = { ...now, [d.adjuster.id]: to }
        break
      }
      return { ride: now, settled: false }
    },
  }
}

/** A step of chance from the best so far; never settles. */
function randomSearch(rider: TestRider, seed: number): Strategy {
  const random = seededRandom(seed ^ 0x5bd1)
  let best = { ...rider.start }
  let bestRating = -Infinity
  let trial = best
  return {
    keep: () => best,
    next: (felt) => {
      if (felt.rating > bestRating) {
        best = trial
        bestRating = felt.rating
      }
      const d = rider.dials[Math.floor(random() * rider.dials.length)]
      const steps = stepsOf(d, best[d.adjuster.id])
      trial = { ...best, [d.adjuster.id]: steps[Math.floor(random() * steps.length)] }
      return { ride: trial, settled: false }
    },
  }
}
