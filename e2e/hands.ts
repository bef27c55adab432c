import { expect, type Locator, type Page } from '@playwright/test'

/** A pair of hands that is counted: each tap where the finger can reach without a swipe, each key. */
export class Hands {
  taps = 0
  keys = 0
  private readonly page: Page
  constructor(page: Page) {
    this.page = page
  }
  /** Taps what is in reach now, and fails where it would have to be scrolled to, is too small or lies under something. */
  async tap(target: Locator, least = 44): Promise<void> {
    await expect(target).toBeVisible()
    const box = (await target.boundingBox())!
    const { width, height } = this.page.viewportSize()!
    const bar = await this.footBar()
    const name = (await target.getAttribute('aria-label')) ?? (await target.innerText())
    expect(box.y, `${name} lies above the window`).toBeGreaterThanOrEqual(0)
    expect(box.y + box.height, `${name} needs a swipe`).toBeLessThanOrEqual(
      bar && !(await this.inBar(target)) ? bar : height,
    )
    expect(box.x + box.width, `${name} needs a swipe sideways`).toBeLessThanOrEqual(width + 1)
    expect(Math.round(box.width), `${name} is too narrow`).toBeGreaterThanOrEqual(least)
    expect(Math.round(box.height), `${name} is too low`).toBeGreaterThanOrEqual(least)
    await target.click()
    this.taps++
  }
  async type(text: string): Promise<void> {
    await this.page.keyboard.type(text)
    this.keys += text.length
  }
  private footBar = () =>
    this.page.evaluate(() => {
      const bar = [...document.querySelectorAll('.tabs, .phonebar')].find(
        (x) => getComputedStyle(x).position === 'fixed' && getComputedStyle(x).display !== 'none',
      )
      return bar ? bar.getBoundingClientRect().top : null
    })
  private inBar = (target: Locator) => target.evaluate((x) => x.closest('.tabs, .phonebar') !== null)
}

/** Smallest gap between the targets that lie beside or above each other in a group, px; and the smallest side of any. */
export async function spacing(group: Locator): Promise<{ gap: number; side: number }> {
  return group.evaluate((root) => {
    const boxes = [...root.querySelectorAll('button')]
      .map((b) => b.getBoundingClientRect())
      .filter((b) => b.width > 0)
    let gap = Infinity
    for (const a of boxes)
      for (const b of boxes) {
        if (a === b) continue
        const dx = Math.max(b.left - a.right, a.left - b.right)
        const dy = Math.max(b.top - a.bottom, a.top - b.bottom)
        gap = Math.min(gap, Math.max(dx, dy))
      }
    return { gap, side: Math.min(...boxes.flatMap((b) => [b.width, b.height])) }
  })
}
