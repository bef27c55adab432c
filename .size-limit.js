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
const entry = html.match(/src="\/assets\/(index-[^"]+\.js)"/)[1]
const day = built.find((file) => /^DayPage-.*\.js$/.test(file))

export default [
  {
    name: 'first load of the day screen, script before charts',
    path: [...withImports(entry, withImports(day))].map((file) => assets + file),
    limit: '300 kB',
    gzip: true,
  },
  {
    name: 'styles of the first screen',
    path: 'dist/web/assets/index-*.css',
    limit: '30 kB',
    gzip: true,
  },
]
