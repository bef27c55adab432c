import { test as base, type Page } from '@playwright/test'

/**
 * For tests that only look: one window goes from page to page, as somebody's does, and what it compiled once it has.
 * Nothing that was chosen in it goes along to the next test.
 */
export const test = base.extend<object, { oneWindow: Page }>({
  oneWindow: [
    async ({ browser }, use) => {
      const context = await browser.newContext({
        serviceWorkers: 'block',
        // Colours are looked at as they come to rest.
        reducedMotion: 'reduce',
        timezoneId: process.env.TZ,
      })
      await use(await context.newPage())
      await context.close()
    },
    { scope: 'worker' },
  ],
  page: async ({ oneWindow }, use) => {
    await oneWindow.setViewportSize({ width: 1280, height: 800 })
    await use(oneWindow)
    await oneWindow.evaluate(() => {
      localStorage.clear()
      sessionStorage.clear()
    })
  },
})
