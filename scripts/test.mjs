// Everything that has to hold, in the order in which it fails fastest. `npm test`
// `npm test -- --only unit` runs one step. Ends with "N passed, N failed".
import { existsSync, mkdirSync, mkdtempSync, readdirSync, readFileSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { ensureChromium, ensurePackages, root, run, runAside } from './ensure.mjs'

ensurePackages()
const reports = mkdtempSync(join(tmpdir(), 'wild-spring-test-'))
// Data folders by the hundred: they go with the run.
process.env.TMPDIR = join(reports, 'tmp')
mkdirSync(process.env.TMPDIR)
const bin = (name) => join(root, 'node_modules', '.bin', name)
const only = process.argv.includes('--only') ? process.argv[process.argv.indexOf('--only') + 1] : null
let passed = 0
let failed = 0

let since = Date.now()
/** How long a part took: what grows is seen before it hurts. */
function took(name) {
  console.log(`== ${name} took ${Math.round((Date.now() - since) / 1000)} s`)
  since = Date.now()
}
function step(name, act) {
  if (only && only !== name) return
  console.log(`\n== ${name}`)
  const before = failed
  act()
  if (failed > before) console.log(`== ${name} failed`)
  took(name)
}
/** A check that is one thing: it holds or it does not. */
function check(command, args) {
  if (run(command, args) === 0) passed++
  else failed++
}

/** Checks that only read the code: each is one thing that holds or does not. The longest first, so that two lanes end together. */
const reading = [
  ['lint', bin('eslint'), ['.', '--max-warnings', '0']],
  ['types', bin('vue-tsc'), ['--noEmit', '-p', 'tsconfig.json']],
  ['types', bin('tsc'), ['--noEmit', '-p', 'core/tsconfig.json']],
  ['unused', bin('knip'), []],
  // What only tests use is not used.
  ['unused', bin('knip'), ['--production']],
  ['format', bin('prettier'), ['--check', '--log-level', 'warn', '.']],
  [
    'architecture',
    bin('depcruise'),
    [
      '--config',
      '.dependency-cruiser.cjs',
      ...['contract', 'core', 'server', 'web', 'demo', 'logger', 'e2e', 'bench'],
    ],
  ],
]
/** Two at a time; what each says is printed whole when it ends. */
async function readTheCode() {
  const left = reading.filter(([name]) => !only || only === name)
  const lane = async () => {
    for (let next = left.shift(); next; next = left.shift()) {
      const [name, command, args] = next
      const { code, said } = await runAside(command, args)
      console.log(`\n== ${name}\n${said}`.trimEnd())
      if (code === 0) passed++
      else {
        failed++
        console.log(`== ${name} failed`)
      }
    }
  }
  await Promise.all([lane(), lane()])
}
await readTheCode()
took('reading the code')
step('unit', () => {
  const file = join(reports, 'unit.json')
  const code = run(bin('vitest'), [
    'run',
    '--reporter=default',
    '--reporter=json',
    `--outputFile.json=${file}`,
  ])
  const r = existsSync(file)
    ? JSON.parse(readFileSync(file, 'utf8'))
    : { numPassedTests: 0, numFailedTests: 0 }
  passed += r.numPassedTests
  // A suite that could not even be loaded has no failed test to count.
  failed += r.numFailedTests || (code === 0 ? 0 : 1)
})
step('build', () => check(process.execPath, ['scripts/build.mjs']))
step('size', () => check(bin('size-limit'), []))
step('browser', () => {
  const chromium = ensureChromium()
  const file = join(reports, 'browser.json')
  const code = run(bin('playwright'), ['test'], {
    env: { ...process.env, CHROMIUM: chromium, WILD_SPRING_REPORT: file },
  })
  const report = existsSync(file) ? JSON.parse(readFileSync(file, 'utf8')) : null
  const r = report?.stats ?? { expected: 0, unexpected: 0, flaky: 0 }
  passed += r.expected + r.flaky
  failed += r.unexpected || (code === 0 ? 0 : 1)
  for (const name of report ? secondTries(report.suites) : []) console.log(`== needed a second try: ${name}`)
  if (code !== 0 || r.flaky > 0) showPages()
})
/** Tests that failed first and passed then, by file and name: each is a chance to be found out, not forgotten. */
function secondTries(suites) {
  return suites.flatMap((s) => [
    ...s.specs
      .filter(({ tests }) => tests.some((t) => t.status === 'flaky'))
      .map((spec) => `${spec.file}:${spec.line} ${spec.title}`),
    ...secondTries(s.suites ?? []),
  ])
}
/** What stood on the page where a test failed: a chance that comes once in ten runs is seldom met again. */
function showPages() {
  const folder = join(root, 'test-results')
  for (const name of existsSync(folder) ? readdirSync(folder) : []) {
    const page = join(folder, name, 'error-context.md')
    if (!existsSync(page)) continue
    const [, stood] = /```yaml\n([\s\S]*?)\n```/.exec(readFileSync(page, 'utf8')) ?? [
      null,
      'blank, or it did not answer',
    ]
    console.log(`\n== the page of ${name}\n${stood.split('\n').slice(0, 600).join('\n')}`)
  }
}

rmSync(reports, { recursive: true, force: true, maxRetries: 3 })
console.log(`\n${passed} passed, ${failed} failed`)
process.exit(failed === 0 ? 0 : 1)
