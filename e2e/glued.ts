import type { Page } from '@playwright/test'

/** Words of two elements that stand beside each other on one line without a gap, as "92 psi|set": a template lost its space. */
export const glued = (page: Page): Promise<string[]> =>
  page.evaluate(() => {
    const flows = (x: Element) => ['inline', 'inline-block'].includes(getComputedStyle(x).display)
    const padding = (x: Element, side: 'Left' | 'Right') =>
      parseFloat(getComputedStyle(x)[`padding${side}`]) + parseFloat(getComputedStyle(x)[`margin${side}`])
    const found = [...document.querySelectorAll('body *')].flatMap((a) => {
      const b = a.nextElementSibling
      if (!b || a.nextSibling !== b || !flows(a) || !flows(b)) return []
      if (/flex|grid/.test(getComputedStyle(a.parentElement!).display)) return []
      // A space inside an inline element is one; at the edge of a block of its own it falls away.
      const words = [a, b].map((x) =>
        getComputedStyle(x).display === 'inline' ? (x.textContent ?? '') : (x.textContent ?? '').trim(),
      )
      if (!/[\w%°]$/.test(words[0]) || !/^\w/.test(words[1])) return []
      const [left, right] = [[...a.getClientRects()].at(-1), b.getClientRects()[0]]
      if (!left || !right || Math.abs(left.bottom - right.bottom) > 12) return []
      const gapPx = right.left - left.right + padding(a, 'Right') + padding(b, 'Left')
      return gapPx < 2 ? [`${words[0].slice(-30)}|${words[1].slice(0, 30)}`] : []
    })
    return [...new Set(found)]
  })
