/**
 * Every screen and its address. The router asks for its page, the guide for its question (docs/guide/screens.md), and
 * `e2e/screens.ts` for the way there: that is what makes its picture and its accessibility check.
 */
export const screens = {
  today: '/',
  setup: '/start',
  garage: '/garage',
  setups: '/setups/:bikeId?',
  bench: '/bench/:bikeId',
  tent: '/tent/:id',
  day: '/days/:id',
  logger: '/days/:id/logger',
  trace: '/days/:id/trace/:runId',
  compare: '/days/:id/compare',
  practice: '/practice/:drill?/:seed?',
  handbook: '/handbook/:chapter?/:page?',
  data: '/data',
  access: '/access',
  enter: '/enter/:token',
  lost: '/:rest(.*)*',
} as const
export type Screen = keyof typeof screens
