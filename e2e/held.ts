import type { Page } from '@playwright/test'

/**
 * A slow line without a clock: writes to what matches wait until they are let go, however slow the machine is.
 * @returns lets go what waits and what comes; `again` holds from then on
 */
export async function holdWrites(page: Page, url: string): Promise<{ letGo: () => void; again: () => void }> {
  let open = () => {}
  let gate: Promise<void>
  const again = () => void (gate = new Promise((done) => (open = done)))
  again()
  await page.route(url, async (route) => {
    if (route.request().method() !== 'GET') await gate
    await route.continue().catch(() => undefined)
  })
  return { letGo: () => open(), again }
}
