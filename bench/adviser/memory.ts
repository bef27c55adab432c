import { learnFrom } from '#core/adviser/memory/learnt'
import { memoryFor, memoryRules } from '#core/adviser/memory/memory'
import { reporting, tuning } from './families.ts'
import { testRider } from './riders.ts'
import { ourAdviser } from './strategies.ts'
import { outcome, type Outcome } from './study.ts'

/**
 * What memory is worth: a rider's second day, with what the first taught and without. The second day begins where the
 * first ended, or elsewhere (a lent bike, a service) with `elsewhere`.
 */
const option = (name: string, fallback: string) => {
  const i = process.argv.indexOf(`--${name}`)
  return i >= 0 ? process.argv[i + 1] : fallback
}
const set =
  option('set', 'reporting') === 'tuning'
    ? { seed: 5000, families: tuning }
    : { seed: 700_000, families: reporting }
const count = Number(option('riders', '24'))
const firstDayRuns = Number(option('first', '12'))
Object.assign(memoryRules, JSON.parse(option('memory', '{}')))

console.log(
  '| riders | day begins | judged | within 0.5 for good | median | regret after 4 | 8 | 12 | settled | false | brackets hold |',
)
console.log('| --- | --- | --- | ---: | ---: | ---: | ---: | ---: | ---: | ---: | ---: |')
for (const family of set.families) {
  if (!family.name.includes(option('family', ''))) continue
  const rows: Record<string, Outcome[]> = {}
  for (let i = 0; i < count; i++) {
    const first = testRider(set.seed + i, family)
    const way = ourAdviser(first)
    let ride = first.start
    for (let run = 1; run <= firstDayRuns; run++) {
      const step = way.next(first.ride(ride, run))
      ride = step.ride
      if (step.settled) break
    }
    const learnt = learnFrom({
      date: '2031-05-02',
      trailId: 'trail',
      history: way.history(),
      space: first.space,
    })
    for (const from of ['where it ended', 'elsewhere'] as const) {
      const start = from === 'elsewhere' ? first.start : way.keep()
      for (const judged of ['alone', 'with memory'] as const) {
        const rider = testRider(set.seed + i, family, 1)
        const memory =
          judged === 'with memory' && learnt
            ? memoryFor(
                {
                  date: '2031-05-16',
                  trailId: 'trail',
                  conditions: way.history().conditions,
                  space: rider.space,
                },
                [learnt],
              )
            : null
        ;(rows[`${from} | ${judged}`] ??= []).push(outcome(rider, ourAdviser(rider, start, memory), start))
      }
    }
  }
  for (const [key, all] of Object.entries(rows)) {
    const mean = (f: (o: Outcome) => number) => all.reduce((t, o) => t + f(o), 0) / all.length
    const after = (n: number) => mean((o) => o.losses[Math.min(n, o.losses.length) - 1]).toFixed(2)
    const share = (f: (o: Outcome) => boolean) => `${Math.round(100 * mean((o) => (f(o) ? 1 : 0)))} %`
    const reach = all.map((o) => o.reachedAfter).sort((a, b) => a - b)[Math.ceil(all.length / 2) - 1]
    const settled = all.filter((o) => o.stopped !== null)
    const wrong = settled.filter((o) => o.wrong).length
    console.log(
      `| ${family.name} | ${key} | ${share((o) => Number.isFinite(o.reachedAfter))} | ${Number.isFinite(reach) ? reach : '> 40'} | ${after(4)} | ${after(8)} | ${after(12)} | ${share((o) => o.stopped !== null)} | ${settled.length ? Math.round((100 * wrong) / settled.length) : 0} % | ${Math.round(
        (100 * mean((o) => o.held)) /
          Math.max(
            1,
            mean((o) => o.brackets),
          ),
      )} % |`,
    )
  }
}
