import type { Page } from '@playwright/test'
import { inDemo } from '../../e2e/screens.ts'
import type { Lots } from './lots.ts'

/** Where two people work on the same records: what can be done there, and what a page shows of it. */
export interface Arena {
  address: string
  /** Is there once the screen can be used. */
  ready: string
  acts: Record<string, (p: Page) => Promise<void>>
  shown: (p: Page) => Promise<Record<string, string>>
  /** Parts that show what somebody is about to do, of this page alone. */
  ofItsOwn: (p: Page) => Promise<string[]>
}

const patienceMs = 900
const flat = (texts: readonly string[]) => texts.map((t) => t.replace(/\s+/g, ' ').trim()).join(' | ')

/** @param draw what is tapped and typed is drawn from here */
export function arenas(draw: Lots): Record<string, Arena> {
  const anyOf = async (p: Page, within: string, name: RegExp) => {
    const all = p.locator(within).getByRole('button', { name })
    await all.nth(draw.below(Math.max(1, await all.count()))).click({ timeout: patienceMs })
  }
  const typed = async (p: Page, text: string) => {
    const line = p.getByRole('textbox', { name: /^Rider’s number/ })
    await line.fill(text, { timeout: patienceMs })
    await line.press('Enter')
  }
  const rider = () => String(1 + draw.below(6))
  const turned = (p: Page) => p.getByRole('button', { name: /^Done, it is on/ }).count()
  return {
    day: {
      address: inDemo.day.address,
      ready: '.p-next h1',
      acts: {
        turn: (p) => anyOf(p, '.on-bike', /one step/),
        done: (p) => anyOf(p, '.on-bike', /^Done/),
        log: (p) => anyOf(p, 'header', /^Log run/),
        rate: (p) => anyOf(p, '.p-feel', /^\d+$/),
        word: (p) => anyOf(p, '.p-feel', /^(kicks|bounces|harsh|dives|good|wallows)/),
        card: (p) => anyOf(p, '.p-next', /./),
        look: (p) => anyOf(p, '.line', /^Run \d/),
        undo: (p) => anyOf(p, 'body', /^Undo/),
      },
      shown: async (p) => {
        const rails = await p.locator('.on-bike').getByRole('slider').all()
        return {
          day: flat(await p.locator('.col.line').allInnerTexts()),
          bike: (await Promise.all(rails.map((r) => r.getAttribute('aria-valuetext')))).join(' | '),
          next: flat(await p.locator('.p-next h1').allInnerTexts()),
        }
      },
      // What is turned and not done yet is a draft of its own page.
      ofItsOwn: async (p) => ((await turned(p)) > 0 ? ['bike', 'next'] : []),
    },
    tent: {
      address: inDemo.tent.address,
      ready: '[aria-label="Riders by need"] li',
      acts: {
        turn: (p) =>
          typed(p, `${rider()} ${draw.one(['rear', 'fork'])} reb ${draw.one(['slower', 'faster'])} 1`),
        in: (p) =>
          typed(p, `${rider()} in ${draw.one(['5', '6.5', '8'])} ${draw.one(['ki', 'di', 'go', ''])}`),
        out: (p) => typed(p, `${rider()} out`),
        rest: (p) => typed(p, `${rider()} rest`),
        read: (p) => typed(p, `${rider()} read fork psi ${70 + draw.below(9)}`),
        key: (p) => anyOf(p, '[aria-label="Entry"]', /./),
        row: (p) => anyOf(p, '[aria-label="Riders by need"]', /./),
        undo: (p) => anyOf(p, 'body', /^Undo/),
      },
      shown: async (p) => {
        const rows = await p
          .getByRole('list', { name: 'Riders by need' })
          .getByRole('listitem')
          .allTextContents()
        // The clock runs on.
        const timeless = rows.map((r) => r.replace(/\d+ min\b/g, '… min'))
        return {
          riders: flat(timeless),
          trend: flat(await p.getByRole('list', { name: 'What turns in the tent' }).allInnerTexts()),
        }
      },
      ofItsOwn: async () => [],
    },
  }
}
