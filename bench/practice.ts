import { drills } from '#core/practice/drills'
import { hiddenRider } from '#core/practice/hiddenRider'
import { followsAdviser } from '#core/practice/players/adviser'
import { playOut } from '#core/practice/players/play'
import { disciplinedTester } from '#core/practice/players/tester'
import { lossesOf, lostInAll } from '#core/practice/review/losses'

/** Riders of practice that nothing was chosen on; `--first 100` for those that are looked at on the way. */
const first = process.argv.indexOf('--first')
const firstSeed = first < 0 ? 2000 : Number(process.argv[first + 1])
const mostRuns = 12
/** `--sensors`: the adviser’s bike bears them; the notebook has none either way. */
const withSensors = process.argv.includes('--sensors')
/** Sums this near are a draw: nobody would feel it over a day. */
const draw = 0.5

interface DrillRow {
  drill: string
  riders: number
  won: number
  drawn: number
  /** Mean rating points lost over the day. */
  adviser: number
  tester: number
  /** Riders left with more than they would notice. */
  adviserShort: number
  testerShort: number
}

/** The adviser against the disciplined tester on riders of practice, the same for both. */
function row(drill: (typeof drills)[number], riders: number): DrillRow {
  const out = {
    drill: drill.key,
    riders,
    won: 0,
    drawn: 0,
    adviser: 0,
    tester: 0,
    adviserShort: 0,
    testerShort: 0,
  }
  for (let i = 0; i < riders; i++) {
    const rider = hiddenRider(drill, firstSeed + i)
    const ours = playOut(rider, followsAdviser(withSensors), mostRuns)
    const theirs = playOut(rider, disciplinedTester(rider), mostRuns)
    const [a, t] = [lostInAll(rider, ours, mostRuns), lostInAll(rider, theirs, mostRuns)]
    if (Math.abs(a - t) < draw) out.drawn++
    else if (a < t) out.won++
    out.adviser += a / riders
    out.tester += t / riders
    if (lossesOf(rider, ours).left > rider.noticeable) out.adviserShort++
    if (lossesOf(rider, theirs).left > rider.noticeable) out.testerShort++
  }
  return out
}

const riders = Number(
  process.argv.slice(2).find((a, i, all) => !a.startsWith('--') && all[i - 1] !== '--first') ?? 5,
)
const rows = drills.map((d) => row(d, riders))
const sum = (f: (r: DrillRow) => number) => rows.reduce((s, r) => s + f(r), 0)
console.log(
  '| drill | riders | adviser ahead | drawn | points lost: adviser | tester | left short: adviser | tester |',
)
console.log('| --- | ---: | ---: | ---: | ---: | ---: | ---: | ---: |')
for (const r of rows)
  console.log(
    `| ${r.drill} | ${r.riders} | ${r.won} | ${r.drawn} | ${r.adviser.toFixed(1)} | ${r.tester.toFixed(1)} | ${r.adviserShort} | ${r.testerShort} |`,
  )
console.log(
  `| all | ${sum((r) => r.riders)} | ${sum((r) => r.won)} | ${sum((r) => r.drawn)} | ${(sum((r) => r.adviser) / rows.length).toFixed(1)} | ${(sum((r) => r.tester) / rows.length).toFixed(1)} | ${sum((r) => r.adviserShort)} | ${sum((r) => r.testerShort)} |`,
)
