import type { Page } from '@playwright/test'
import axe, { type RunOptions } from 'axe-core'
import { glued } from './glued.ts'

/** Contrast takes most of the time and depends on colours, not on width: it is looked at once a theme. */
const looks = [
  { width: 1280, height: 800, theme: 'light', only: 'all' },
  { width: 390, height: 844, theme: 'dark', only: 'contrast' },
  { width: 320, height: 700, theme: 'light', only: 'no contrast' },
] as const
const contrast = ['color-contrast', 'color-contrast-enhanced']

/** Numbers are read in sun and in the dusk: 7:1, the big ones too; and they alone. */
const numbersRule = {
  rules: [{ id: 'color-contrast-enhanced', selector: '.num, .num *', enabled: true }],
  checks: [
    {
      id: 'color-contrast-enhanced',
      options: { contrastRatio: { normal: { expected: 7 }, large: { expected: 7 } } },
    },
  ],
}

/**
 * What is wrong on a page, by axe-core.
 * @param within a part of it, by its selector; the whole page else
 */
export async function faultsNow(page: Page, options: RunOptions = {}, within: string | null = null) {
  // A page that was left takes it with it.
  if (!(await page.evaluate(() => 'axe' in window)))
    await page.evaluate(`${axe.source};axe.configure(${JSON.stringify(numbersRule)})`)
  return page.evaluate(
    async ([own, where]) => {
      const { violations } = await (window as unknown as { axe: typeof axe }).axe.run(where ?? document, {
        // What passes is not written out.
        resultTypes: ['violations'],
        ...own,
      })
      return violations.flatMap((v) =>
        v.nodes.slice(0, 2).map((n) => ({ rule: v.id, html: n.html.slice(0, 140) })),
      )
    },
    [options, within] as const,
  )
}

/** What is wrong at any size in day and dusk colours, one line a fault. @param within a part, by its selector */
export async function faults(page: Page, within: string | null = null): Promise<string[]> {
  const found = new Set<string>()
  for (const { width, height, theme, only } of looks) {
    await page.setViewportSize({ width, height })
    await page.evaluate(async (t) => {
      document.documentElement.setAttribute('data-bs-theme', t)
      // Colours fade into each other: what is half-way is no colour that anybody has to read by.
      const fading = document
        .getAnimations()
        .filter((a) => Number.isFinite(a.effect?.getComputedTiming().endTime))
      await Promise.allSettled(fading.map((a) => a.finished))
    }, theme)
    // Both contrasts in one look: the background of a letter is found once.
    const options: RunOptions =
      only === 'contrast'
        ? { runOnly: contrast }
        : { rules: Object.fromEntries(contrast.map((id) => [id, { enabled: only === 'all' }])) }
    for (const f of await faultsNow(page, options, within))
      found.add(`${f.rule} (${width}, ${theme}): ${f.html}`)
    for (const words of await glued(page)) found.add(`words without a space (${width}): ${words}`)
  }
  return [...found]
}
