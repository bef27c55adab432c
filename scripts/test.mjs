// Everything that has to hold, in the order in which it fails fastest. `npm test`
// `npm test -- --only unit` runs one step. Ends with "N passed, N failed".
import { existsSync, mkdtempSync, readFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { ensureChromium, ensurePackages, root, run } from './ensure.mjs'

ensurePackages()
const reports = mkdtempSync(join(tmpdir(), 'wild-spring-test-'))
const bin = (name) => join(root, 'node_modules', '.bin', name)
const only = process.argv.includes('--only') ? process.argv[process.argv.indexOf('--only') + 1] : null
let passed = 0
let failed = 0

function step(name, act) {
  if (only && only !== name) return
  console.log(`\n== ${name}`)
  const before = failed
  act()
  if (failed > before) console.log(`== ${name} failed`)
}
/** A check that is one thing: it holds or it does not. */
function check(command, args) {
  if (run(command, args) === 0) passed++
  else failed++
}

step('format', () => check(bin('prettier'), ['--check', '--log-level', 'warn', '.']))
step('lint', () => check(bin('eslint'), ['.', '--max-warnings', '0']))
step('types', () => {
  check(bin('vue-tsc'), ['--noEmit', '-p', 'tsconfig.json'])
  check(bin('tsc'), ['--noEmit', '-p', 'core/tsconfig.json'])
})
step('architecture', () =>
  check(bin('depcruise'), [
    '--config',
    '.dependency-cruiser.cjs',
    'contract',
    'core',
    'server',
    'web',
    'demo',
    'logger',
    'e2e',
    'bench',
  ]),
)
step('unused', () => {
  check(bin('knip'), [])
  // What only tests use is not used.
  check(bin('knip'), ['--production'])
})
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
  const r = existsSync(file)
    ? JSON.parse(readFileSync(file, 'utf8')).stats
    : { expected: 0, unexpected: 0, flaky: 0 }
  passed += r.expected + r.flaky
  failed += r.unexpected || (code === 0 ? 0 : 1)
})

console.log(`\n${passed} passed, ${failed} failed`)
process.exit(failed === 0 ? 0 : 1)
