// Installs what is missing before anything else runs: packages, and for tests a browser.
import { execFileSync, spawnSync } from 'node:child_process'
import { existsSync, statSync } from 'node:fs'
import { join } from 'node:path'

export const root = join(import.meta.dirname, '..')

export function run(command, args, options = {}) {
  const result = spawnSync(command, args, { cwd: root, stdio: 'inherit', ...options })
  if (result.error) throw result.error
  return result.status ?? 1
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

/** Path of a Chromium; installs Debian's when we may. */
export function ensureChromium() {
  const wanted = process.env.CHROMIUM ?? '/usr/bin/chromium'
  if (existsSync(wanted)) return wanted
  if (process.getuid?.() === 0 && existsSync('/usr/bin/apt-get')) {
    console.log('Installing Chromium from Debian’s packages …')
    if (
      run('apt-get', ['update', '-q']) === 0 &&
      run('apt-get', ['install', '-y', '-q', 'chromium']) === 0 &&
      existsSync('/usr/bin/chromium')
    )
      return '/usr/bin/chromium'
  }
  console.error(
    'The browser tests need Chromium: install Debian’s package "chromium" as root, or set CHROMIUM to the path of one.',
  )
  process.exit(1)
}

export function gitVersion() {
  try {
    return execFileSync('git', ['describe', '--always', '--tags'], { cwd: root, encoding: 'utf8' }).trim()
  } catch {
    return 'unknown'
  }
}
