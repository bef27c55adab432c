import { defineConfig } from '@playwright/test'
import { atNoon } from './e2e/noon.ts'

// Servers and browsers are started from here, and so in this zone.
atNoon()
const chromium = process.env.CHROMIUM ?? '/usr/bin/chromium'

export default defineConfig({
  testDir: 'e2e',
  globalSetup: './e2e/fillOnce.ts',
  // Each test file has a server and a data folder of its own. One more than processors of a small machine: some wait.
  workers: 3,
  // A chance that is tried away may be a fault of ours: so it was with the line at the top of a card.
  retries: 0,
  // A machine may be busy, or get a third of its time: these bound what hangs, they measure nothing.
  timeout: 360_000,
  expect: { timeout: 45_000 },
  reporter: process.env.WILD_SPRING_REPORT
    ? [['line'], ['json', { outputFile: process.env.WILD_SPRING_REPORT }]]
    : 'list',
  outputDir: 'test-results',
  use: {
    viewport: { width: 1280, height: 800 },
    actionTimeout: 60_000,
    // Kept pages are tried in offline.spec.ts; elsewhere each test would fetch every file of the page.
    serviceWorkers: 'block',
    // A trace of every step takes more time than the steps.
    trace: process.env.TRACE ? 'retain-on-failure' : 'off',
    launchOptions: {
      executablePath: chromium,
      args: [
        '--no-sandbox',
        '--disable-gpu',
        // A process less for each browser.
        '--in-process-gpu',
        '--disable-quic',
        // Compiled for a test of seconds, code is seldom run often enough for the slow compiler; the quick one pays.
        '--js-flags=--no-turbofan,--single-threaded-gc',
        '--no-first-run',
        '--disable-background-networking',
        '--disable-component-update',
        '--disable-sync',
      ],
    },
  },
})
