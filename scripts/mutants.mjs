// What the tests would not notice: small faults put into the core one at a time. `npm run mutants`
// `npm run mutants -- stats` one room; `--share 0.2 --seed 7` every fifth line, drawn anew.
import { readdirSync, readFileSync, rmSync, writeFileSync, mkdirSync } from 'node:fs'
import { join } from 'node:path'
import { parseArgs } from 'node:util'
import { ensurePackages, root, run } from './ensure.mjs'

/**
 * Rooms of the core; of each its own files, the tests that are to notice, and the share of faults that they must notice, in
 * per cent: below it the run fails. A rung of the ladder is noticed by whole proposals, not by a test beside it.
 */
const all = {
  stats: { folder: 'stats', tests: 'stats', bar: 80 },
  telemetry: { folder: 'telemetry', tests: 'telemetry', bar: 60 },
  adviser: { folder: 'adviser', tests: 'adviser', bar: 45 },
  ladder: { folder: 'adviser/ladder', tests: 'adviser', bar: 55 },
  surface: { folder: 'adviser/surface', tests: 'adviser/surface', bar: 60 },
  command: { folder: 'command', tests: 'command', bar: 70 },
}

const { values, positionals } = parseArgs({
  options: {
    share: { type: 'string', default: '1' },
    seed: { type: 'string', default: '1' },
    workers: { type: 'string', default: '2' },
  },
  allowPositionals: true,
})
const rooms = positionals.length > 0 ? positionals : Object.keys(all)
const unknown = rooms.find((room) => !(room in all))
if (unknown) {
  console.error(`There is no room "${unknown}"; there are ${Object.keys(all).join(', ')}.`)
  process.exit(1)
}

ensurePackages()
const out = join(root, 'test-results')
mkdirSync(out, { recursive: true })
const draw = seeded(Number(values.seed))
const rows = rooms.map((room) => ({ room, ...score(room) }))
console.table(
  rows.map((r) => ({
    room: r.room,
    faults: r.faults,
    noticed: r.noticed,
    '%': r.share,
    bar: all[r.room].bar,
  })),
)
process.exit(rows.every((r) => r.share >= all[r.room].bar) ? 0 : 1)

function score(room) {
  const config = join(out, `mutants-${room}.json`)
  const report = join(out, `mutants-${room}-report.json`)
  const tests = join(out, `mutants-${room}.config.ts`)
  writeFileSync(
    tests,
    // Relative to the copy that holds the fault, not to this tree.
    `export default { test: { root: process.cwd(), include: ['core/${all[room].tests}/**/*.test.ts'], setupFiles: ['scripts/test-seed.ts'], testTimeout: 20000 } }\n`,
  )
  writeFileSync(
    config,
    JSON.stringify({
      testRunner: 'vitest',
      // Of a room its own tests: what only a neighbour notices is found late and explained badly.
      vitest: { configFile: tests, related: false },
      mutate: lines(join('core', all[room].folder), Number(values.share)),
      // Words are read by people, and by tests of wording in their own place.
      mutator: { excludedMutations: ['StringLiteral'] },
      ignorePatterns: ['**', '!{contract,core,demo}/**', '!scripts/test-seed.ts', '!*.json'],
      disableTypeChecks: false,
      coverageAnalysis: 'perTest',
      ignoreStatic: true,
      concurrency: Number(values.workers),
      timeoutMS: 4000,
      timeoutFactor: 2,
      reporters: ['progress-append-only', 'clear-text', 'json'],
      clearTextReporter: { logTests: false, reportTests: false, reportScoreTable: false },
      jsonReporter: { fileName: report },
      tempDirName: join(out, `mutants-${room}-work`),
      cleanTempDir: 'always',
    }),
  )
  rmSync(report, { force: true })
  if (run(join(root, 'node_modules', '.bin', 'stryker'), ['run', config]) !== 0) process.exit(1)
  const files = Object.values(JSON.parse(readFileSync(report, 'utf8')).files)
  const states = files.flatMap((file) => file.mutants.map((m) => m.status))
  const count = (...wanted) => states.filter((s) => wanted.includes(s)).length
  const noticed = count('Killed', 'Timeout')
  const faults = noticed + count('Survived', 'NoCoverage')
  return { faults, noticed, share: Math.round((1000 * noticed) / faults) / 10 }
}

/** Whole files, or single lines of them drawn at random. */
function lines(folder, share) {
  const files = readdirSync(join(root, folder)).filter((f) => f.endsWith('.ts') && !f.endsWith('.test.ts'))
  return files.flatMap((name) => {
    const file = `${folder}/${name}`
    if (share >= 1) return [file]
    const length = readFileSync(join(root, file), 'utf8').split('\n').length
    return Array.from({ length }, (_, i) => i + 1)
      .filter(() => draw() < share)
      .map((line) => `${file}:${line}-${line}`)
  })
}

/** Mulberry32: the same seed draws the same lines. */
function seeded(state) {
  return () => {
    state = (state + 0x6d2b79f5) | 0
    let t = Math.imul(state ^ (state >>> 15), 1 | state)
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296
  }
}
