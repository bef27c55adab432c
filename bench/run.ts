import { readFileSync, writeFileSync } from 'node:fs'
import { cpus } from 'node:os'
import { join } from 'node:path'
import { adviceRows } from './advice.ts'
import { analysisRows } from './analysis.ts'
import { benchRows } from './bench.ts'
import { bundleRows } from './bundle.ts'
import { clientRows } from './clients.ts'
import { figureRows } from './figures.ts'
import { readingRows } from './reading.ts'
import { pageRows } from './pages.ts'
import { panZoomRows } from './panZoom.ts'
import { ridingRows } from './riding.ts'
import { windowRows } from './windows.ts'
import { tentRows } from './tent.ts'
import { setupMapRows } from './setupMap.ts'
import type { Row } from './measure.ts'

const groups: Record<string, () => Row[] | Promise<Row[]>> = {
  reading: readingRows,
  analysis: analysisRows,
  riding: ridingRows,
  advice: adviceRows,
  bench: benchRows,
  pages: pageRows,
  'setup-map': setupMapRows,
  tent: tentRows,
  figures: figureRows,
  clients: clientRows,
  windows: windowRows,
  bundle: bundleRows,
  'pan-zoom': panZoomRows,
}
const only = process.argv.includes('--only') ? process.argv[process.argv.indexOf('--only') + 1] : null
if (only !== null && !groups[only])
  throw new Error(`--only takes one of ${Object.keys(groups).join(', ')}, not "${only}"`)
if (only !== null && process.argv.includes('--write'))
  throw new Error('--write renews the whole page: leave --only out')
const rows: Row[] = []
for (const [name, measure] of Object.entries(groups))
  if (only === null || only === name) rows.push(...(await measure()))

if (process.argv.includes('--json'))
  console.log(JSON.stringify({ node: process.version, cpus: cpus().length, rows }, null, 2))
else {
  const table = [
    '| work | measured | held against |',
    '| --- | ---: | --- |',
    ...rows.map((r) => `| ${r.work} | ${format(r.figure)} ${r.unit} | ${r.against} |`),
  ].join('\n')
  console.log(table)
  if (process.argv.includes('--write')) {
    const head = `# Benchmarks

Repeat with \`npm run bench\` (\`-- --json\` for one JSON document, \`-- --write\` to renew this page). Ratios are taken
within one run on one machine and are what to compare; absolute times only tell their order of size.
Medians of five runs after a warm-up, Node ${process.version}, ${cpus().length} cores.

`
    const file = join(import.meta.dirname, '..', 'docs', 'benchmarks.md')
    // The adviser's part has its own command and stays.
    const adviser = /\n## The adviser[\s\S]*$/.exec(readFileSync(file, 'utf8'))?.[0] ?? ''
    writeFileSync(file, head + table + '\n' + adviser)
  }
}

function format(x: number): string {
  return x >= 100 ? x.toFixed(0) : x >= 10 ? x.toFixed(1) : x.toFixed(2)
}
