import { expect, type Page } from '@playwright/test'
import { idOf } from '../demo/ids.ts'
import type { Screen } from '../web/screens.ts'

const day = `/days/${idOf('day half-way')}`
const run = (i: number) => idOf(`half-way run ${i}`)

export const proposed = (page: Page) =>
  page.getByRole('heading', { name: 'Rear: when does it kick?' }).waitFor()

/** Where each screen is in the demo world, and by what it is known to have come up whole. */
export const inDemo: Record<Screen, { address: string; ready: (page: Page) => Promise<unknown> }> = {
  today: {
    address: '/',
    ready: async (p) => {
      await p.getByText('Next: Rear: when does it kick?').waitFor()
      await expect(p.getByText('Next: …')).toHaveCount(0)
    },
  },
  setup: {
    address: '/start',
    ready: (p) => expect(p.getByRole('heading', { name: 'Who rides it?' })).toBeVisible(),
  },
  garage: { address: '/garage', ready: (p) => p.getByText('55 mm air shock').first().waitFor() },
  setups: {
    address: `/setups/${idOf('tarek bike')}`,
    ready: (p) => p.getByRole('button', { name: /^Wet roots, October/ }).waitFor(),
  },
  bench: {
    address: `/bench/${idOf('joren bike')}?step=sag-rear`,
    ready: (p) => p.getByText('Check this again').waitFor(),
  },
  tent: {
    address: `/tent/${idOf('tent practice')}`,
    ready: (p) => p.getByText('Settled. Leave it alone.').waitFor(),
  },
  day: { address: day, ready: proposed },
  logger: {
    address: `${day}/logger`,
    ready: (p) => p.getByText(/No logger answers/).waitFor(),
  },
  trace: { address: `${day}/trace/${run(5)}`, ready: (p) => p.locator('canvas').first().waitFor() },
  compare: {
    address: `${day}/compare?a=${run(2)}&b=${run(5)}`,
    ready: (p) => p.locator('canvas').first().waitFor(),
  },
  practice: {
    address: '/practice',
    ready: (p) => p.getByRole('heading', { name: 'One word, two causes' }).waitFor(),
  },
  handbook: {
    address: '/handbook/feels/harsh-gets-worse',
    ready: (p) => p.getByRole('heading', { name: 'What it may come from' }).waitFor(),
  },
  data: {
    address: '/data',
    ready: (p) => p.getByRole('heading', { name: 'Safe copies' }).waitFor(),
  },
  access: {
    address: '/access',
    ready: (p) => p.getByRole('heading', { name: 'This server answers to this machine alone' }).waitFor(),
  },
  enter: {
    address: '/enter/AAAAAAAAAAAAAAAAAAAAAA',
    ready: (p) => p.getByRole('button', { name: 'Come in' }).waitFor(),
  },
  lost: {
    address: '/nowhere',
    ready: (p) => expect(p.getByRole('heading', { level: 1 })).toBeVisible(),
  },
}
