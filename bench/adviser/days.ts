import { moveWords } from '#core/setup/diff'
import { advise } from '#core/adviser/advise'
import { outlookOf } from '#core/adviser/decide'
import { answerWords } from '#core/causes/questions'
import { wordRules } from '#core/causes/words'
import { DayBuilder } from '#core/test/dayBuilder'
import type { Family } from './families.ts'
import { testRider, type TestRider } from './riders.ts'
import type { Positions } from '#core/practice/landscape'

const mostRuns = 16
const mostAsked = 3

/** Whole days of virtual riders as a coach would read them, Markdown. */
export function daysOf(family: Family, seeds: readonly number[]): string {
  return [
    `Family “${family.name}”. What is lost against the best settings stands in brackets: nobody on the day knows it.`,
    ...seeds.map((seed, i) => dayOf(testRider(seed, family), i + 1)),
  ].join('\n\n')
}

function dayOf(rider: TestRider, number: number): string {
  let now: Positions = { ...rider.start }
  const day = new DayBuilder(now).allow(1000)
  const best = rider.dials.map((d, k) => {
    const off = rider.best[k] - d.toClicks(rider.start[d.adjuster.id])
    return Math.abs(off) < 0.05
      ? null
      : `${nameOf(rider, d.adjuster.id)} ${off > 0 ? '+' : '−'}${Math.abs(off).toFixed(0)}`
  })
  const lines = [
    `### Day ${number}`,
    `Best settings, in clicks of two per cent from the start: ${best.filter((x) => x !== null).join(', ')}.`,
    '',
    '| run | rating (lost) | said | asked, answered | card |',
    '| ---: | ---: | --- | --- | --- |',
  ]
  const turn = (to: Positions, source: 'proposal' | 'revert') => {
    if (Object.keys(to).length === 0) return
    now = { ...now, ...to }
    day.change(to, { linked: source === 'proposal' && Object.keys(to).length > 1, source })
  }
  for (let run = 1; run <= mostRuns; run++) {
    const felt = rider.ride(now, run)
    day.run(felt.rating, felt.marks, {
      ...(felt.analysis ? { analysis: felt.analysis } : {}),
      ...(felt.against !== null && run > 1 ? { against: [run - 1, felt.against] } : {}),
    })
    const told: string[] = []
    const look = () => {
      const h = day.history()
      return { h, p: advise(h, rider.space, () => outlookOf(h, rider.space)) }
    }
    let { h, p } = look()
    for (let asked = 0; asked < mostAsked && (p.question || p.readEnd); asked++) {
      if (p.question) {
        const { id, end } = p.question
        const answer = rider.answer(p.question, now)
        told.push(`${end ? `${end}: ` : ''}${answerWords(id, answer)}`)
        day.answer({ question: id, end, answer })
      } else if (p.readEnd) {
        const sag = rider.sagPct(p.readEnd, now)
        told.push(`${p.readEnd} sag read: ${sag.toFixed(0)} %`)
        day.readSag(p.readEnd, sag)
      }
      ;({ h, p } = look())
    }
    const lost = rider.lossAt(now).toFixed(1)
    const said = felt.marks.map(
      (m) => `“${wordRules[m.word].label}”, ${m.end}${m.strength === 3 ? ', strong' : ''}`,
    )
    const done = [p.headline]
    const isSettled = p.kind === 'settled'
    if (p.setupId) {
      const back = h.setups.find((s) => s.id === p.setupId)!
      turn(Object.fromEntries(back.positions.map((x) => [x.adjusterId, x.value])), 'revert')
      // What is next may be turned from there at once.
      p = look().p
      if (p.moves.length > 0) done.push(p.headline)
    }
    lines.push(
      `| ${run} | ${felt.rating} (${lost}) | ${said.join('; ')} | ${told.join('; ')} | ${done.join('; then ')} |`,
    )
    if (isSettled) break
    if (!p.setupId) turn(Object.fromEntries(p.moves.map((m) => [m.adjusterId, m.to])), 'proposal')
  }
  return lines.join('\n')
}

function nameOf(rider: TestRider, id: string): string {
  const d = rider.dials.find((x) => x.adjuster.id === id)!
  const [name] = moveWords({
    end: d.end,
    adjuster: d.adjuster,
    from: d.fromClicks(d.low),
    to: d.fromClicks(d.high),
  }).split(/ -?\d/)
  return name.charAt(0).toLowerCase() + name.slice(1)
}
