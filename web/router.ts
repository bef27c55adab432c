import { createRouter, createWebHistory, type RouteRecordRaw } from 'vue-router'
import TodayPage from './pages/TodayPage.vue'
import { screens, type Screen } from './screens.ts'

const pages: Record<Screen, RouteRecordRaw['component']> = {
  today: TodayPage,
  setup: () => import('./pages/SetupPage.vue'),
  garage: () => import('./pages/GaragePage.vue'),
  bench: () => import('./pages/BenchPage.vue'),
  day: () => import('./pages/DayPage.vue'),
  logger: () => import('./pages/LoggerPage.vue'),
  trace: () => import('./pages/TracePage.vue'),
  compare: () => import('./pages/ComparePage.vue'),
  handbook: () => import('./pages/HandbookPage.vue'),
  lost: () => import('./pages/LostPage.vue'),
}

/** One address, one question; see docs/guide/screens.md. */
export const router = createRouter({
  history: createWebHistory(),
  routes: (Object.keys(screens) as Screen[]).map(
    (name) => ({ path: screens[name], name, component: pages[name], props: true }) as RouteRecordRaw,
  ),
  scrollBehavior: (to, _from, saved) => saved ?? (to.hash ? { el: to.hash, top: 70 } : { top: 0 }),
})
