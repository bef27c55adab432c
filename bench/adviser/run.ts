import { readFileSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { choice } from '#core/adviser/decide'
import { clueRules } from '#core/adviser/clues'
import { surfacePriors } from '#core/adviser/surface/model'
import { daysOf } from './days.ts'
import { reporting, tuning } from './families.ts'
import { strategies, type StrategyName } from './strategies.ts'
import { mostRuns, study, type StudyRow } from './study.ts'

/** Constants are chosen on the tuning riders; the published table is of riders nobody tuned on. */
const sets = {
  tuning: { firstSeed: 1000, families: tuning },
  reporting: { firstSeed: 900_000, families: reporting },
}

const option = (name: string, fallback: string) => {
  const i = process.argv.indexOf(`--${name}`)
  return i >= 0 ? process.argv[i + 1] : fallback
}
const set = option('set', 'reporting') as keyof typeof sets
const count = Number(option('riders', '60'))
// For tuning: constants given by hand.
Object.assign(choice, JSON.parse(option('choice', '{}')))
Object.assign(clueRules, JSON.parse(option('clues', '{}')))
Object.assign(surfacePriors, JSON.parse(option('surface', '{}')))
const names = (option('only', '') || Object.keys(strategies).join(',')).split(',') as StrategyName[]
const wanted = option('family', '')

const rows: StudyRow[] = []
for (const name of names)
  for (const family of sets[set].families)
    if (family.name.includes(wanted)) rows.push(study(name, family, sets[set].firstSeed, count))
rows.sort(
  (a, b) => names.indexOf(a.strategy) - names.indexOf(b.strategy) || b.regretAfter[12] - a.regretAfter[12],
)

if (process.argv.includes('--json')) console.log(JSON.stringify({ set, mostRuns, rows }, null, 2))
else {
  const text = table(rows)
  console.log(text)
  if (process.argv.includes('--write')) writeTable(text)
  if (process.argv.includes('--write') && set === 'reporting') writeDays()
}

function table(all: StudyRow[]): string {
  const runs = (x: number | null) => (x === null ? `> ${mostRuns}` : String(x))
  const percent = (x: number | null) => (x === null ? '' : `${Math.round(100 * x)} %`)
  return [
    '| way | riders | within 0.5 for good | median | P90 | regret after 8 | 12 | 20 | 30 | settled | median | false | one change left | 80 % brackets hold | “better” off by | “doubt” off by |',
    '| --- | --- | ---: | ---: | ---: | ---: | ---: | ---: | ---: | ---: | ---: | ---: | ---: | ---: | ---: | ---: |',
    ...all.map(
      (r) =>
        `| ${r.strategy} | ${r.family} | ${percent(r.reached)} | ${runs(r.reachMedian)} | ${runs(r.reachP90)} | ${[8, 12, 20, 30].map((n) => r.regretAfter[n as 8].toFixed(2)).join(' | ')} | ${percent(r.settledShare)} | ${runs(r.settleMedian)} | ${percent(r.falseSettled)} | ${percent(r.oneChangeLeft)} | ${percent(r.bracketsHold)} | ${percent(r.changesOff)} | ${percent(r.doubtOff)} |`,
    ),
  ].join('\n')
}

/** Three whole days of the family with words that goes worst. */
function writeDays(): void {
  const ours = rows.filter((r) => r.strategy === 'wild-spring')
  const spoken = sets[set].families.filter((f) => f.words !== 'none')
  const worst = ours.map((r) => spoken.find((f) => f.name === r.family)).find((f) => f !== undefined)
  if (worst)
    writeFileSync(
      join(import.meta.dirname, '..', '..', 'docs', 'adviser-days.md'),
      `# Three days of the riders it goes worst with\n\nPrinted by \`npm run bench:adviser -- --write\`, not chosen.\n\n${daysOf(
        worst,
        [0, 1, 2].map((i) => sets[set].firstSeed + i),
      )}\n`,
    )
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
