/** What the day screen loads before charts: its page and all it imports statically, as built. */
import { readFileSync, readdirSync } from 'node:fs'

const assets = 'dist/web/assets/'
const built = readdirSync(assets)

function withImports(file, seen = new Set()) {
  if (seen.has(file)) return seen
  seen.add(file)
  const source = readFileSync(assets + file, 'utf8')
  for (const [, next] of source.matchAll(/(?:from|import)\s*["']\.\/([^"']+\.js)["']/g))
    withImports(next, seen)
  return seen
}

const html = readFileSync('dist/web/index.html', 'utf8')
const entries = [...html.matchAll(/src="\/assets\/([^"]+\.js)"/g)].map(([, file]) => file)
const styles = [...html.matchAll(/href="(\/assets\/[^"]+\.css)"/g)].map(([, file]) => `dist/web${file}`)
if (!entries.length || !styles.length) throw new Error('dist/web/index.html names no script or no styles')
const day = built.find((file) => /^DayPage-.*\.js$/.test(file))

const pad = readFileSync('dist/web/pad.html', 'utf8')
const padFiles = [...pad.matchAll(/"\/assets\/([^"]+\.(?:js|css))"/g)].map(([, file]) => file)
if (!padFiles.length) throw new Error('dist/web/pad.html names no script')

export default [
  {
    name: 'page of a rider’s phone, script and styles',
    path: [...padFiles.reduce((seen, file) => withImports(file, seen), new Set())].map(
      (file) => assets + file,
    ),
    limit: '130 kB',
    gzip: true,
  },
  {
    name: 'first load of the day screen, script before charts',
    path: [...entries.reduce((seen, file) => withImports(file, seen), withImports(day))].map(
      (file) => assets + file,
    ),
    limit: '300 kB',
    gzip: true,
  },
  {
    name: 'styles of the first screen',
    path: styles,
    limit: '30 kB',
    gzip: true,
  },
]
