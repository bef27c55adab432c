import { readFileSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { choice } from '#core/adviser/decide'
import type { Family } from './riders.ts'
import { strategies, type StrategyName } from './strategies.ts'
import { mostRuns, study, type StudyRow } from './study.ts'

/** Constants were chosen on the tuning riders; the published table is of riders nobody tuned on. */
const sets: Record<string, { firstSeed: number; families: Family[] }> = {
  tuning: { firstSeed: 1000, families: ['bowl', 'sharp', 'indifferent'] },
  reporting: { firstSeed: 900_000, families: ['cone', 'lopsided'] },
}

const option = (name: string, fallback: string) => {
  const i = process.argv.indexOf(`--${name}`)
  return i >= 0 ? process.argv[i + 1] : fallback
}
const set = option('set', 'reporting')
const count = Number(option('riders', '200'))
// For tuning: constants of the choice given by hand.
Object.assign(choice, JSON.parse(option('choice', '{}')))
const names = (option('only', '') || Object.keys(strategies).join(',')).split(',') as StrategyName[]

const rows: StudyRow[] = []
for (const name of names)
  for (const [sensors, mumbles] of name === 'wild-spring'
    ? [
        [false, false],
        [true, false],
        [false, true],
      ]
    : [[false, false]]) {
    if (process.stderr.isTTY) process.stderr.write(`${name}${sensors ? ' with sensors' : ''} …\n`)
    rows.push(study(name, { ...sets[set], count }, sensors, mumbles))
  }

if (process.argv.includes('--json')) console.log(JSON.stringify({ set, mostRuns, rows }, null, 2))
else {
  const text = table(rows)
  console.log(text)
  if (process.argv.includes('--write')) writeTable(text)
}

function table(all: StudyRow[]): string {
  const runs = (x: number | null) => (x === null ? `> ${mostRuns}` : String(x))
  const percent = (x: number) => `${(100 * x).toFixed(1)} %`
  return [
    '| way | sensors | words | settled after, median | P90 | settled at all | false “settled” | one change left | within 0.5 for good, median | P90 | regret after 8 | 12 | 20 | 30 |',
    '| --- | --- | --- | ---: | ---: | ---: | ---: | ---: | ---: | ---: | ---: | ---: | ---: | ---: |',
    ...all.map(
      (r) =>
        `| ${r.strategy} | ${r.sensors ? 'yes' : 'no'} | ${r.mumbles ? 'look-alikes' : 'clear'} | ${runs(r.settleMedian)} | ${runs(r.settleP90)} | ${percent(r.settledShare)} | ${percent(r.falseSettled)} | ${percent(r.oneChangeLeft)} | ${runs(r.reachMedian)} | ${runs(r.reachP90)} | ${[8, 12, 20, 30].map((n) => r.regretAfter[n as 8].toFixed(2)).join(' | ')} |`,
    ),
  ].join('\n')
}

/** Puts the table between its marks in docs/benchmarks.md. */
function writeTable(text: string): void {
  const file = join(import.meta.dirname, '..', '..', 'docs', 'benchmarks.md')
  const old = readFileSync(file, 'utf8')
  const [open, close] = ['<!-- adviser -->', '<!-- /adviser -->']
  const [a, b] = [old.indexOf(open), old.indexOf(close)]
  if (a < 0 || b < 0) throw new Error(`docs/benchmarks.md lacks ${open} … ${close}`)
  writeFileSync(file, `${old.slice(0, a + open.length)}\n\n${text}\n\n${old.slice(b)}`)
}
