// Installs what is missing before anything else runs: packages, and for tests a browser.
import { spawn, spawnSync } from 'node:child_process'
import { existsSync, readdirSync, statSync } from 'node:fs'
import { join } from 'node:path'

const [major, minor] = process.versions.node.split('.').map(Number)
if (major < 20 || (major === 20 && minor < 19)) {
  console.error(`Wild Spring needs Node 20.19 or later; this is ${process.versions.node}.`)
  process.exit(1)
}

export const root = join(import.meta.dirname, '..')

export function run(command, args, options = {}) {
  const result = spawnSync(command, args, { cwd: root, stdio: 'inherit', ...options })
  if (result.error) throw result.error
  return result.status ?? 1
}

/** Runs beside other things; what it says is kept for when it ends. */
export function runAside(command, args) {
  return new Promise((resolve, reject) => {
    const child = spawn(command, args, { cwd: root, stdio: ['ignore', 'pipe', 'pipe'] })
    let said = ''
    child.stdout.on('data', (chunk) => (said += chunk))
    child.stderr.on('data', (chunk) => (said += chunk))
    child.on('error', reject)
    child.on('close', (code) => resolve({ code: code ?? 1, said }))
  })
}

/** Packages from the lock file, when they are missing or older than it. */
export function ensurePackages() {
  const stamp = join(root, 'node_modules', '.package-lock.json')
  const fresh =
    existsSync(stamp) && statSync(stamp).mtimeMs >= statSync(join(root, 'package-lock.json')).mtimeMs
  if (fresh) return
  console.log('Installing packages …')
  if (run('npm', ['ci', '--no-audit', '--no-fund']) !== 0) process.exit(1)
}

/** Debian's packages of Chromium, each with its path; the one that never shows a window does the same with half the work. */
const chromiums = ['chromium-headless-shell', 'chromium'].map((name) => ({ name, path: `/usr/bin/${name}` }))

/** Path of a Chromium; installs Debian's when we may. */
export function ensureChromium() {
  const paths = process.env.CHROMIUM ? [process.env.CHROMIUM] : chromiums.map((c) => c.path)
  const found = paths.find((path) => existsSync(path))
  if (found) return found
  if (process.getuid?.() === 0 && existsSync('/usr/bin/apt-get')) {
    console.log('Installing Chromium from Debian’s packages …')
    if (run('apt-get', ['update', '-q']) === 0)
      for (const { name, path } of chromiums)
        if (run('apt-get', ['install', '-y', '-q', name]) === 0 && existsSync(path)) return path
  }
  console.error(
    'The browser tests need Chromium: install Debian’s package "chromium-headless-shell" or "chromium" as root, or set CHROMIUM to the path of one.',
  )
  process.exit(1)
}

/** Whether the built page and server are there and no source is newer. */
export function isBuilt() {
  const built = join(root, 'dist', 'server', 'index.js')
  if (!existsSync(built)) return false
  const since = statSync(built).mtimeMs
  const sources = ['contract', 'core', 'server', 'web', 'demo', 'index.html', 'package-lock.json']
  return sources.every((name) => newest(join(root, name)) <= since)
}

function newest(path) {
  const stat = statSync(path)
  if (!stat.isDirectory()) return stat.mtimeMs
  return Math.max(stat.mtimeMs, ...readdirSync(path).map((name) => newest(join(path, name))))
}
