import { watch } from 'vue'
import { createRouter, createWebHistory, type RouteLocationNormalized, type RouteRecordRaw } from 'vue-router'
import { access, isWall } from './api/door.ts'
import { begin, reads } from './api/cache.ts'
import { entryId } from './handbook/page.ts'
import TodayPage from './pages/TodayPage.vue'
import { screens, type Screen } from './screens.ts'

const pages: Record<Screen, RouteRecordRaw['component']> = {
  today: TodayPage,
  setup: () => import('./pages/SetupPage.vue'),
  garage: () => import('./pages/GaragePage.vue'),
  setups: () => import('./pages/SetupsPage.vue'),
  bench: () => import('./pages/BenchPage.vue'),
  tent: () => import('./pages/TentPage.vue'),
  day: () => import('./pages/DayPage.vue'),
  logger: () => import('./pages/LoggerPage.vue'),
  trace: () => import('./pages/TracePage.vue'),
  compare: () => import('./pages/ComparePage.vue'),
  practice: () => import('./pages/PracticePage.vue'),
  handbook: () => import('./pages/HandbookPage.vue'),
  data: () => import('./pages/DataPage.vue'),
  access: () => import('./pages/AccessPage.vue'),
  enter: () => import('./pages/EnterPage.vue'),
  lost: () => import('./pages/LostPage.vue'),
}

/** One address, one question; see docs/guide/screens.md. */
export const router = createRouter({
  history: createWebHistory(),
  routes: (Object.keys(screens) as Screen[]).map(
    (name) => ({ path: screens[name], name, component: pages[name], props: true }) as RouteRecordRaw,
  ),
  scrollBehavior: (to, _from, saved) => saved ?? placeOf(to),
})

/** A page of before an update asks for parts that are gone: the address is taken anew, from the server as it is now. */
router.onError((error, to) => void takeAnew(error, to.fullPath))
async function takeAnew(error: unknown, address: string): Promise<void> {
  if (!/dynamically imported module|module script failed/i.test(String(error))) return
  const isThere = await fetch(address, { method: 'HEAD' }).then(
    (r) => r.ok,
    () => false,
  )
  // Out of reach the page at hand is better than none; and what fails twice is no update.
  if (!isThere || sessionStorage.getItem(takenAnew) === address) return
  sessionStorage.setItem(takenAnew, address)
  location.assign(address)
}
const takenAnew = 'wild-spring:taken-anew'
router.afterEach((_to, _from, failure) => failure ?? sessionStorage.removeItem(takenAnew))

function placeOf({ name, hash, params }: RouteLocationNormalized) {
  if (name === 'handbook' && params.chapter === 'words' && params.page)
    return { el: `#${entryId(String(params.page))}`, top: 140 }
  return hash ? { el: hash, top: 70 } : { top: 0 }
}

/** A wall has one screen, whatever is typed. */
const ofWall = (name: unknown) =>
  isWall.value && access.value?.tentId && name !== 'tent' && name !== 'enter'
    ? { name: 'tent', params: { id: access.value.tentId }, query: { wall: '1' } }
    : undefined
router.beforeEach((to) => ofWall(to.name))
// Known only after the first screen was on its way.
watch(isWall, () => {
  const to = ofWall(router.currentRoute.value.name)
  if (to) void router.replace(to)
})

/** What a screen reads first, by the parts of its address. */
const firstReads: Partial<Record<Screen, (at: Record<string, string>) => unknown>> = {
  today: () => (begin(reads.days()), begin(reads.garage())),
  garage: () => begin(reads.garage()),
  setups: (at) => (begin(reads.garage()), at.bikeId && begin(reads.setups(at.bikeId))),
  bench: (at) => (begin(reads.benches(at.bikeId)), begin(reads.garage())),
  tent: (at) => begin(reads.tent(at.id)),
  day: (at) => begin(reads.day(at.id)),
  trace: (at) => begin(reads.day(at.id)),
  compare: (at) => begin(reads.day(at.id)),
}
/** Sends for the screen in the address bar and what it reads, both at once, before anything is mounted. */
export function sendAhead(): void {
  const { name, params } = router.resolve(location.pathname)
  const screen = name as Screen
  const page = pages[screen]
  // What fails here fails again for the router, which tells it.
  if (typeof page === 'function') (page as () => Promise<unknown>)().catch(() => undefined)
  firstReads[screen]?.(params as Record<string, string>)
}
