import { existsSync } from 'node:fs'
import { join } from 'node:path'
import type { Browser } from '@playwright/test'

/** A headless Chromium without a graphics card; null where there is none, or no built page to show. */
export async function builtBrowser(): Promise<Browser | null> {
  const executablePath = process.env.CHROMIUM ?? '/usr/bin/chromium'
  const built = existsSync(join(import.meta.dirname, '..', 'dist', 'server', 'index.js'))
  if (!built || !existsSync(executablePath)) return null
  const { chromium } = await import('@playwright/test')
  return chromium.launch({ executablePath, args: ['--no-sandbox', '--disable-gpu'] })
}
