import { existsSync, readdirSync, readFileSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { root } from './ensure.mjs'

/** What is in the page although it is no dependency at run time: the icons that are drawn. */
const builtIn = ['node_modules/@iconify-json/lucide']

/** Writes who made what Wild Spring stands on, and under which licence, beside the page. */
export function writeLicences(file) {
  const { packages } = JSON.parse(readFileSync(join(root, 'package-lock.json'), 'utf8'))
  const list = Object.entries(packages)
    .filter(([path, p]) => path && ((!p.dev && !p.devOptional) || builtIn.includes(path)))
    .filter(([path]) => existsSync(join(root, path)))
    .map(([path, p]) => ({
      name: path.slice(path.lastIndexOf('node_modules/') + 'node_modules/'.length),
      version: p.version,
      licence:
        p.license ?? JSON.parse(readFileSync(join(root, path, 'package.json'), 'utf8')).license ?? 'see text',
      text: textOf(join(root, path)),
    }))
  const own = {
    name: 'Wild Spring',
    version: '',
    licence: 'MIT',
    text: readFileSync(join(root, 'LICENSE'), 'utf8'),
  }
  const byName = (a, b) => a.name.localeCompare(b.name, 'en') || a.version.localeCompare(b.version)
  writeFileSync(file, JSON.stringify([own, ...list.sort(byName)]))
}

function textOf(folder) {
  const name = readdirSync(folder).find((n) => /^(licen[cs]e|copying|ofl)/i.test(n))
  return name ? readFileSync(join(folder, name), 'utf8') : ''
}
